/** How a pass differs from the riff, in words, and what a variation of it is called. */
import type { Difference, HeardStroke } from '@wild-needle/core/draft';
import {
  barOf,
  barStartsTicks,
  countSyllable,
  isEnding,
  riffTicks,
  ticksPerBeat,
  type Riff,
  type Variation,
} from '@wild-needle/core/riff';
import { nameNotes, type Key } from '@wild-needle/core/theory';

/** '2 &', or '3 of bar 2' in a riff of several bars: the place as players count it, to the nearest sixteenth. */
export function placeWords(riff: Riff, ticks: number): string {
  const grid = ticksPerBeat(riff.bars[barOf(riff, Math.max(0, ticks))].unit) / 4;
  const place = Math.max(0, Math.round(ticks / grid) * grid);
  if (place >= riffTicks(riff)) return 'the one after it';
  // What comes early for a bar is counted in it.
  const bar = barOf(riff, place);
  const { unit } = riff.bars[bar];
  const inBar = place - barStartsTicks(riff)[bar];
  const beat = Math.floor(inBar / ticksPerBeat(unit)) + 1;
  const syllable = countSyllable(inBar, unit);
  const count = syllable === String(beat) || syllable === '' ? String(beat) : `${beat} ${syllable}`;
  return riff.bars.length > 1 ? `${count} of bar ${bar + 1}` : count;
}

function oneDifference(
  riff: Riff,
  { kind, ticks, heard }: Difference,
  strokes: readonly HeardStroke[],
  key: Key | null,
): string {
  const where = placeWords(riff, ticks);
  const stroke = heard === null ? null : strokes[heard];
  const name = stroke ? nameNotes(stroke.midi, key).symbol : '';
  switch (kind) {
    case 'early-end':
      return `ends early, at ${where}`;
    case 'missing':
      return `nothing on ${where}`;
    case 'extra':
      return stroke?.dead || name === '' ? `one more stroke on ${where}` : `one more ${name} on ${where}`;
    case 'chord':
      return `${name} on ${where}`;
    case 'mute':
      return `${stroke?.palmMuted ? 'muted' : 'ringing'} on ${where}`;
  }
}

/** Those that are worth the words: an early end first, then chords and strokes, then mutes. */
const ORDER = ['early-end', 'chord', 'extra', 'missing', 'mute'] as const;
/** More are counted, not told. */
const TOLD = 2;

/** What differs, as a part of a sentence; '' for nothing. */
export function differencesInWords(
  riff: Riff,
  differences: readonly Difference[],
  strokes: readonly HeardStroke[],
  key: Key | null,
): string {
  const inOrder = [...differences].sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
  const told = inOrder.slice(0, TOLD).map((d) => oneDifference(riff, d, strokes, key));
  const more = inOrder.length > TOLD ? ` and ${inOrder.length - TOLD} more` : '';
  return `${told.join('; ')}${more}`;
}

/** One sentence about a pass; '' when it agrees. */
export function differenceWords(...of: Parameters<typeof differencesInWords>): string {
  const words = differencesInWords(...of);
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** 'Ending 2', 'Variation 1': the next free name of its kind. The riff itself is the first ending. */
export function variationName(riff: Riff, differences: readonly Difference[]): string {
  const last = barStartsTicks(riff).at(-1) ?? 0;
  const atEnd = differences.every((d) => d.ticks >= last || d.kind === 'early-end');
  const endings = riff.variations.filter((v) => isEnding(riff, v)).length;
  return atEnd ? `Ending ${endings + 2}` : `Variation ${riff.variations.length - endings + 1}`;
}

/** What a variation is called in a list. */
export function variationLabel(riff: Riff, variation: Variation): string {
  const [from, to] = [barOf(riff, variation.fromTicks), barOf(riff, variation.toTicks - 1)];
  const bars = from === to ? `bar ${from + 1}` : `bars ${from + 1}–${to + 1}`;
  return riff.bars.length > 1 ? `${variation.name}, ${bars}` : variation.name;
}
