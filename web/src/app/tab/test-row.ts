/** A riff of one bar, for the tests of the row. */
import { STANDARD_TUNING } from '@wild-needle/core/guitar';
import { PLAIN_RIFF, PLAIN_STRUM, type Riff, type Strum } from '@wild-needle/core/riff';

export function strum(
  startTicks: number,
  frets: readonly (readonly [number, number])[],
  marks: Partial<Strum> = {},
): Strum {
  return {
    ...PLAIN_STRUM,
    id: String(startTicks),
    startTicks,
    durationTicks: 960,
    frets: frets.map(([string, fret]) => ({ string, fret })),
    trust: 'heard',
    ...marks,
  };
}
export const RIFF: Riff = {
  id: 'r',
  ...PLAIN_RIFF,
  letter: 'A',
  name: 'R',
  bars: [{ beats: 4, unit: 4 }],
  strums: [
    strum(0, [
      [6, 0],
      [5, 2],
    ]),
    strum(
      960,
      [
        [6, 0],
        [5, 2],
      ],
      { palmMute: true },
    ),
    strum(1920, [], { dead: true }),
    strum(2880, [
      [6, 3],
      [5, 5],
    ]),
  ],
};
export const OPTIONS = {
  tuning: STANDARD_TUNING,
  key: null,
  widthPx: 800,
  window: { fromTicks: 0, toTicks: 3840 },
  openString: null,
};
