/** The words of Practice. */
import type { PlannedItem, PracticeItem, Way } from '@wild-needle/core/practice';
import { markWords, type Strum } from '@wild-needle/core/riff';
import { dayOf, movedBy } from '../../shared/words';

export const WAY_WORDS: Readonly<Record<Way, { readonly name: string; readonly words: string }>> = {
  whole: { name: 'Whole part', words: 'round after round' },
  bursts: { name: 'Bursts', words: 'a bar at full speed between slow rounds' },
  backwards: { name: 'Backwards', words: 'the last bar first, one more when it is clean' },
  rests: { name: 'With rests', words: 'a bar of silence between the rounds' },
  random: { name: 'Anywhere', words: 'two bars by chance' },
};

export function itemName({ kind, name, letter, transpose }: PracticeItem): string {
  if (kind === 'song') return 'Whole song';
  if (kind === 'turn') return `Turn to ${name}`;
  const own = name === '' ? `Riff ${letter}` : name;
  return transpose === 0 ? own : `${own}, ${transpose > 0 ? 'up' : 'down'}`;
}

const DAY_MS = 24 * 3600 * 1000;

/** The local day of an instant, counted from 1970-01-01. */
export function dayNumber(time: Date): number {
  return Math.floor(Date.UTC(time.getFullYear(), time.getMonth(), time.getDate()) / DAY_MS);
}

function timeOfDay(day: number): Date {
  const utc = new Date(day * DAY_MS);
  return new Date(utc.getUTCFullYear(), utc.getUTCMonth(), utc.getUTCDate(), 12);
}

/** 'today', 'yesterday', '3 days ago', '5 March', 'never'. */
export function lastPlayedWords(lastDay: number | null, today: number): string {
  if (lastDay === null) return 'never';
  const days = today - lastDay;
  if (days <= 0) return 'today';
  if (days === 1) return 'yesterday';
  return days < 7 ? `${days} days ago` : dayWords(lastDay, today);
}

/** '26 February'; 'today' for today. */
export function dayWords(day: number, today: number): string {
  return day === today ? 'today' : dayOf(timeOfDay(day), new Date(timeOfDay(today).getTime() + 9 * DAY_MS));
}

export function bpmOf(item: PracticeItem, percent: number | null): number {
  return percent === null ? 0 : Math.round((item.bpm * percent) / 100);
}

const CAUSES = { tempo: 'tempo', shifts: 'shifts', stretch: 'stretch', crossings: 'strings' } as const;

/** 'Riff B, Verse riff, due today, 99 of 132 beats a minute, hard in shifts, last played yesterday' */
export function spokenItem(item: PlannedItem, isDue: boolean, today: number): string {
  const [[hardest]] = Object.entries(item.difficulty).sort(([, a], [, b]) => Number(b) - Number(a));
  return [
    ...(item.letter === '' ? [] : [`Riff ${item.letter}${movedBy(item.transpose)}`]),
    itemName(item),
    isDue ? 'due today' : 'not today',
    `${bpmOf(item, item.bestPercent)} of ${Math.round(item.bpm)} beats a minute`,
    `hard in ${CAUSES[hardest as keyof typeof CAUSES]}`,
    `last played ${lastPlayedWords(item.lastDay, today)}`,
  ].join(', ');
}

const HALVES: Readonly<Record<number, string>> = { 0: '', 0.25: '¼', 0.5: '½', 0.75: '¾' };

/** 1.5 → '1½ beats' */
export function beatsWords(beats: number): string {
  const quarters = Math.max(0.25, Math.round(4 * beats) / 4);
  const whole = Math.floor(quarters);
  const words = `${whole === 0 ? '' : whole}${HALVES[quarters - whole]}`;
  return `${words} ${quarters > 1 ? 'beats' : 'beat'}`;
}

/** 'slid up from E5, rings 1½ beats' */
export function strumWords(strum: Strum, beats: number): string {
  const marks = markWords(strum);
  if (strum.rest || strum.dead || strum.palmMute) return marks.join(', ');
  return [...marks, `rings ${beatsWords(beats)}`].join(', ');
}
