/**
 * Three invented songs that fluidsynth plays, from easy to dense: what is heard of them wrongly is put right by hand in
 * `correcting.spec.ts`.
 */
import type { Arrangement, Bar } from '../../e2e/support/fluidsynth-riff';

const [E, F, G, A, B, C, D] = [40, 41, 43, 45, 47, 48, 50];
const mute = (root: number): { readonly muted: number } => ({ muted: root });
const times = (count: number, ...bars: readonly Bar[]): Bar[] =>
  Array.from({ length: count }, () => bars).flat();
const _ = null;

/** Half and quarter notes, the last round with another end. */
const LONG_CHORDS: Arrangement = {
  name: 'long chords',
  guitarsDb: -8,
  voice: [76, 74, 72, 71],
  bpm: 96,
  bars: [
    ...times(3, [A, _, _, _, F, _, _, _], [C, _, _, _, G, _, _, _]),
    ...[
      [A, _, _, _, F, _, _, _],
      [C, _, G, _, D, _, B, _],
    ],
    ...times(4, [E, _, G, _, A, _, _, _], [D, _, C, _, B, _, _, _]),
  ],
};

/** Eighths, half of them muted. */
const GALLOP: Bar = [E, mute(E), mute(E), G, mute(E), mute(E), A, G];
const EIGHTHS: Arrangement = {
  name: 'muted eighths',
  guitarsDb: -10,
  voice: [71, 67, 64, 66],
  bpm: 118,
  bars: [
    ...times(4, GALLOP, [E, mute(E), mute(E), B, _, A, _, G]),
    ...times(4, [C, _, C, D, _, _, mute(E), mute(E)], [A, _, A, B, _, _, mute(E), E]),
  ],
};

/** Sixteenths of open and muted strokes. */
const RUN: Bar = [E, _, mute(E), mute(E), G, _, mute(E), mute(E), E, _, mute(E), A, _, mute(E), G, _];
const SIXTEENTHS: Arrangement = {
  name: 'dense sixteenths',
  guitarsDb: -10,
  voice: [64, 71, 69, 67],
  bpm: 92,
  bars: [
    ...times(4, RUN, [E, _, mute(E), mute(E), B, _, mute(E), mute(E), A, _, _, G, _, _, F, _]),
    ...times(3, [A, _, mute(A), A, _, mute(A), A, _, F, _, mute(F), F, _, _, G, _]),
    [A, _, mute(A), A, _, mute(A), A, _, D, _, _, _, C, _, _, _],
  ],
};

export const SONGS_TO_CORRECT: readonly Arrangement[] = [SIXTEENTHS, EIGHTHS, LONG_CHORDS];
