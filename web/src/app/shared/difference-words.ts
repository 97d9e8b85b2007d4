/** How a pass differs from the riff, in words, and what a variation of it is called. */
import type { Difference, HeardStroke, Suggestion, WholeMove } from '@wild-needle/core/draft';
import type { Tuning } from '@wild-needle/core/guitar';
import {
  barOf,
  barStartsTicks,
  countSyllable,
  riffTicks,
  SIXTEENTH,
  strumNotes,
  ticksPerBeat,
  type Riff,
  type Variation,
} from '@wild-needle/core/riff';
import { nameNotes, type Key } from '@wild-needle/core/theory';
import { capital, counted } from './words';

/** To the nearest sixteenth: what comes early for a bar is counted in it. */
function countedPlace(riff: Riff, ticks: number): number {
  const grid = ticksPerBeat(riff.bars[barOf(riff, Math.max(0, ticks))].unit) / 4;
  return Math.max(0, Math.round(ticks / grid) * grid);
}

/** The number of the bar that a place is counted in, from 1. */
export function countedBar(riff: Riff, ticks: number): number {
  return Math.min(barOf(riff, countedPlace(riff, ticks)) + 1, riff.bars.length);
}

/** '2 &', or 'bar 2, 3 &' in a riff of several bars: the place as players count it, to the nearest sixteenth; 'beat 3' on a beat. */
export function placeWords(riff: Riff, ticks: number): string {
  const place = countedPlace(riff, ticks);
  if (place >= riffTicks(riff)) return 'the first beat after it';
  const bar = barOf(riff, place);
  const { unit } = riff.bars[bar];
  const inBar = place - barStartsTicks(riff)[bar];
  const beat = Math.floor(inBar / ticksPerBeat(unit)) + 1;
  const syllable = countSyllable(inBar, unit);
  const count = syllable === String(beat) || syllable === '' ? `beat ${beat}` : `${beat} ${syllable}`;
  return riff.bars.length > 1 ? `bar ${bar + 1}, ${count}` : count;
}

function oneDifference(
  riff: Riff,
  { kind, ticks, heard }: Pick<Difference, 'kind' | 'ticks' | 'heard'>,
  strokes: readonly HeardStroke[],
  key: Key | null,
): string {
  const where = placeWords(riff, ticks);
  const stroke = heard === null ? null : strokes[heard];
  const name = stroke ? nameNotes(stroke.midi, key).symbol : '';
  switch (kind) {
    case 'early-end':
      return `${where}: ends early`;
    case 'missing':
      return `${where}: no stroke heard`;
    case 'extra':
      return `${where}: one more ${stroke?.dead || name === '' ? 'stroke' : name}`;
    case 'chord':
      return `${where}: ${name}`;
    case 'mute':
      return `${where}: ${stroke?.palmMuted ? 'muted' : 'ringing'}`;
  }
}

/** What measuring again suggests: 'Bar 2, 3 &: C5, written A5'. */
export function suggestionWords(
  riff: Riff,
  { kind, ticks, strumId, stroke }: Suggestion,
  tuning: Tuning,
  key: Key | null,
): string {
  const words = oneDifference(riff, { kind, ticks, heard: stroke && 0 }, stroke ? [stroke] : [], key);
  const strum = riff.strums.find((s) => s.id === strumId);
  const written = !strum ? '' : strum.dead ? 'dead' : nameNotes(strumNotes(strum, tuning), key).symbol;
  return capital(kind === 'chord' && written !== '' ? `${words}, written ${written}` : words);
}

/** Those that are worth the words: an early end first, then chords and strokes, then mutes. */
const ORDER = ['early-end', 'chord', 'extra', 'missing', 'mute'] as const;
/** More are told one by one where they are asked for. */
export const TOLD = 2;

type Differing = readonly [
  riff: Riff,
  differences: readonly Difference[],
  strokes: readonly HeardStroke[],
  key: Key | null,
];

/** Each difference in words, the gravest first. */
export function differenceList(...[riff, differences, strokes, key]: Differing): string[] {
  return [...differences]
    .sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind))
    .map((d) => capital(oneDifference(riff, d, strokes, key)));
}

/** What differs in one sentence; '' for nothing. */
export function differenceWords(...differing: Differing): string {
  const all = differenceList(...differing);
  const [first = '', ...others] = all.slice(0, TOLD);
  const more = all.length > TOLD ? ` and ${all.length - TOLD} more` : '';
  return [first, ...others.map((w) => w.charAt(0).toLowerCase() + w.slice(1))].join('; ') + more;
}

/** What a pass does that is moved as a whole: '2 frets up', 'an eighth early'. */
export function moveWords({ semitones, ticks }: WholeMove): string {
  if (semitones !== 0) return `${counted(Math.abs(semitones), 'fret')} ${semitones > 0 ? 'up' : 'down'}`;
  const length = Math.abs(ticks) === SIXTEENTH ? 'a sixteenth' : 'an eighth';
  return `${length} ${ticks < 0 ? 'early' : 'late'}`;
}

/** How a pass differs, in one sentence: 'The whole pass is played 2 frets up', or what differs in it. */
export function passWords(
  {
    riff,
    differences,
    strokes,
    whole,
  }: {
    readonly riff: Riff;
    readonly differences: readonly Difference[];
    readonly strokes: readonly HeardStroke[];
    readonly whole: WholeMove | null;
  },
  key: Key | null,
): string {
  return whole
    ? `The whole pass is played ${moveWords(whole)}`
    : differenceWords(riff, differences, strokes, key);
}

/** The next free name for the riff moved as a whole, and the note for what is pushed over its edge. */
export function wholePassNames(
  riff: Riff,
  move: WholeMove,
): { readonly name: string; readonly note: string } {
  const words = moveWords(move);
  const place = move.ticks < 0 ? 'before the pass begins' : 'after the pass has ended';
  return { name: freeName(riff, capital(words)), note: `One more stroke ${place}` };
}

/** The name itself, or with the first number that is free. */
function freeName({ variations }: Riff, name: string): string {
  const taken = new Set(variations.map((v) => v.name));
  let number = 2;
  if (!taken.has(name)) return name;
  while (taken.has(`${name} ${number}`)) number++;
  return `${name} ${number}`;
}

/** 'Ending 2', 'Variation 1': the next free name of its kind. The riff itself is the first ending. */
export function variationName(riff: Riff, differences: readonly Difference[]): string {
  const last = barStartsTicks(riff).at(-1) ?? 0;
  const atEnd = differences.every((d) => d.ticks >= last || d.kind === 'early-end');
  return nextVariationName(riff, atEnd);
}

/** The next free name of an ending or a variation. */
export function nextVariationName({ variations }: Riff, isEnd: boolean): string {
  const taken = new Set(variations.map((v) => v.name));
  const [word, first] = isEnd ? ['Ending', 2] : ['Variation', 1];
  let number = first;
  while (taken.has(`${word} ${number}`)) number++;
  return `${word} ${number}`;
}

/** What a variation is called in a list. */
export function variationLabel(riff: Riff, variation: Variation): string {
  const [from, to] = [barOf(riff, variation.fromTicks), barOf(riff, variation.toTicks - 1)];
  const bars = from === to ? `bar ${from + 1}` : `bars ${from + 1}–${to + 1}`;
  return riff.bars.length > 1 ? `${variation.name}, ${bars}` : variation.name;
}
