/**
 * What was heard, put on the places of a riff: strums of the recording in ticks of the pass that they sound in, and from there
 * on the nearest sixteenth or triplet.
 */
import { bisector } from 'd3-array';
import type { AnalysedStrum } from '../analysis';
import {
  quantise,
  riffTicks,
  secondsToPassTicks,
  SIXTEENTH,
  type BeatGrid,
  type Pass,
  type Riff,
} from '../riff';
import { EARLY_S, type MidiNote, type Ticks } from '../units';

/** A strum as it was heard in a pass, on the clock of the riff. */
export interface HeardStroke {
  /** Where it begins and ends sounding; not rounded. */
  readonly ticks: number;
  readonly endTicks: number;
  /** Sounding notes, lowest first, without the section's transposition. */
  readonly midi: readonly MidiNote[];
  readonly palmMuted: boolean;
  readonly dead: boolean;
  /** 0 to 1. */
  readonly confidence: number;
}

/** A stroke on a place of the riff. */
export interface PlacedStroke extends Omit<HeardStroke, 'ticks' | 'endTicks'> {
  readonly ticks: Ticks;
  readonly endTicks: Ticks;
}

const byTime = bisector((strum: AnalysedStrum) => strum.timeS);

/** Of strums in order of time, those of a pass: one that comes a little early belongs to the pass that it comes early for. */
export function strumsOfPass<T extends AnalysedStrum>(
  { startS, endS }: Pick<Pass, 'startS' | 'endS'>,
  strums: readonly T[],
): readonly T[] {
  return strums.slice(byTime.left(strums, startS - EARLY_S), byTime.left(strums, endS - EARLY_S));
}

/** Strums of a pass on the clock of its riff. */
export function strokesOfPass(pass: Pass, grid: BeatGrid, strums: readonly AnalysedStrum[]): HeardStroke[] {
  return strums.map(({ timeS, endS, midi, palmMuted, dead, confidence }) => ({
    ticks: secondsToPassTicks(pass, grid, timeS),
    endTicks: secondsToPassTicks(pass, grid, endS),
    midi: midi.map((note) => note - pass.transpose),
    palmMuted,
    dead,
    confidence,
  }));
}

/** The strokes of a pass on the places of the riff, in order of time, at most one on each; those outside of it are left out. */
export function placeStrokes(riff: Riff, strokes: readonly HeardStroke[]): PlacedStroke[] {
  const end = riffTicks(riff);
  const places = quantise(strokes.map((s) => s.ticks));
  const placed: PlacedStroke[] = [];
  strokes.forEach((stroke, i) => {
    const ticks = Math.max(0, places[i]);
    if (ticks >= end || placed.some((p) => p.ticks === ticks)) return;
    const sounds = Math.min(end, Math.round(stroke.endTicks / SIXTEENTH) * SIXTEENTH);
    placed.push({ ...stroke, ticks, endTicks: Math.max(ticks + SIXTEENTH, sounds) });
  });
  return placed.sort((a, b) => a.ticks - b.ticks);
}
