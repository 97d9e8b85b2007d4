/** Numbers as the screens say them. */
import type { HandField } from '@wild-needle/core/riff';
import type { HeardSoFar } from '@wild-needle/contract';

/** -38 → '−38 cents' */
export function signedCents(cents: number): string {
  const sign = cents < 0 ? '−' : '+';
  return `${sign}${Math.abs(cents)} ${Math.abs(cents) === 1 ? 'cent' : 'cents'}`;
}

export function counted(count: number, one: string): string {
  return `${count} ${one}${count === 1 ? '' : 's'}`;
}

/** The words as a sentence begins. */
export function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** What is known of a recording that is still being listened to, as '−23 cents, 140 bpm in 4/4, 262 strums'. */
export function soFarWords(soFar: HeardSoFar | null): string {
  if (!soFar) return '';
  const { referenceOffsetCents: cents, tempoBpm, meter, strumsS } = soFar;
  const words = [
    cents === null ? null : Math.round(cents) === 0 ? 'at concert pitch' : signedCents(Math.round(cents)),
    tempoBpm === null || !meter ? null : `${Math.round(tempoBpm)} bpm in ${meter.beats}/${meter.unit}`,
    strumsS.length === 0 ? null : counted(strumsS.length, 'strum'),
  ];
  return words.filter((w) => w !== null).join(', ');
}

const RELATIVE_DAY = new Intl.RelativeTimeFormat('en-GB', { numeric: 'auto' });
const HOUR = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });
const DAY_AND_YEAR = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** 'Today, 16:40', 'Yesterday', or the date. */
export function dayOf(time: Date, now: Date): string {
  const startOfDay = (d: Date): number => new Date(d.getFullYear(), d.getMonth(), d.getDate()).getTime();
  const days = Math.round((startOfDay(now) - startOfDay(time)) / 86_400_000);
  if (days > 1) return (time.getFullYear() === now.getFullYear() ? DAY : DAY_AND_YEAR).format(time);
  const day = RELATIVE_DAY.format(-days, 'day');
  return days === 0 ? `${capital(day)}, ${HOUR.format(time)}` : capital(day);
}

/** How far a shape is moved: '+2', '−3', '' for not at all. */
export function movedBy(semitones: number): string {
  if (semitones === 0) return '';
  return `${semitones > 0 ? '+' : '−'}${Math.abs(semitones)}`;
}

const HAND_FIELD_WORDS: Record<HandField, string> = {
  tuning: 'the tuning',
  guitar2: 'the second guitar',
  key: 'the key',
  referenceOffsetCents: 'how far the recording is off',
  tuneTo: 'what you tune to',
  grid: 'the beats',
  loops: 'your loops',
};

/** What a draft has left as it was. */
export function keptWords(kept: readonly HandField[]): string {
  const list = new Intl.ListFormat('en-GB').format(kept.map((field) => HAND_FIELD_WORDS[field]));
  return `The draft is here. It left what you had set by hand: ${list}.`;
}
