/** A riff and how it was heard, for the tests of this folder. */
import { PLAIN_RIFF, PLAIN_STRUM, type Riff, type Strum } from '../riff';
import type { HeardStroke } from './place';

export const fifth = (fret: number): Strum['frets'] => [
  { string: 6, fret },
  { string: 5, fret: fret + 2 },
];
const strum = (id: string, startTicks: number, changes: Partial<Strum> = {}): Strum => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 960,
  frets: fifth(3),
  trust: 'checked',
  ...changes,
});
/** Two bars: G G(muted) x A | G A. */
export const RIFF: Riff = {
  ...PLAIN_RIFF,
  id: 'r',
  letter: 'A',
  name: 'Riff A',
  bars: [
    { beats: 4, unit: 4 },
    { beats: 4, unit: 4 },
  ],
  strums: [
    strum('a', 0),
    strum('b', 960, { palmMute: true }),
    strum('c', 1920, { dead: true, frets: [] }),
    strum('d', 2880, { frets: fifth(5) }),
    strum('e', 3840),
    strum('f', 5760, { frets: fifth(5) }),
  ],
};
export const heardAs = (ticks: number, low: number, changes: Partial<HeardStroke> = {}): HeardStroke => ({
  ticks,
  endTicks: ticks + 480,
  midi: [low, low + 7],
  palmMuted: false,
  dead: false,
  confidence: 0.9,
  ...changes,
});
/** The riff as it was played, with the looseness of a hand. */
export const AS_WRITTEN: HeardStroke[] = [
  heardAs(12, 43),
  heardAs(955, 43, { palmMuted: true }),
  heardAs(1930, 0, { dead: true, midi: [] }),
  heardAs(2860, 45),
  heardAs(3850, 43),
  heardAs(5750, 45),
];
export const without = (...indices: number[]): HeardStroke[] =>
  AS_WRITTEN.filter((_, i) => !indices.includes(i));
export const withAt = (index: number, changes: Partial<HeardStroke>): HeardStroke[] =>
  AS_WRITTEN.map((h, i) => (i === index ? { ...h, ...changes } : h));
