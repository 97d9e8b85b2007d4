/** A riff of two bars in two sections, and judgements of it, for tests of Check. */
import type { JudgedPlace, SongJudgement } from '@wild-needle/core/check';
import {
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  strumsInPasses,
  type SongDocument,
  type Strum,
} from '@wild-needle/core/riff';

export const strum = (id: string, startTicks: number, fret: number, changes: Partial<Strum> = {}): Strum => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 960,
  frets: [
    { string: 6, fret },
    { string: 5, fret: fret + 2 },
    { string: 4, fret: fret + 2 },
  ],
  trust: 'heard',
  ...changes,
});

const bar = { beats: 4, unit: 4 } as const;
const section = { ...PLAIN_SECTION, riffId: 'a', transpose: 0 };
export const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'T',
  grid: {
    beatsS: Array.from({ length: 33 }, (_, i) => i / 2),
    bars: Array.from({ length: 8 }, (_, i) => ({ beat: 4 * i, ...bar })),
  },
  riffs: [
    {
      ...{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'Riff A', bars: [bar, bar] },
      strums: [strum('s0', 0, 3), strum('s1', 1920, 5), strum('s2', 3840, 7, { palmMute: true })],
    },
  ],
  sections: [
    { ...section, id: 'v', name: 'Verse', startBar: 0, passes: 2 },
    { ...section, id: 'c', name: 'Chorus', startBar: 4, passes: 2, transpose: 2 },
  ],
};

/** The recording bears out everything but what it is told. */
export function judged(
  wrong: Partial<Record<string, Partial<JudgedPlace>>> = {},
  song = SONG,
): SongJudgement {
  const places = strumsInPasses(song).map(({ id, midi, timeS, endS, strum: s }): JudgedPlace => ({
    id,
    verdict: 'agrees',
    doubt: 0.02,
    kinds: { notes: 0.01, mute: 0.01, time: 0, there: 0 },
    reason: { kind: 'notes', extra: [], missing: [] },
    heard: { timeS, endS, midi, palmMuted: s.palmMute, dead: false },
    offsetS: 0.004,
    ...wrong[id],
  }));
  return { places, extra: [], habit: null };
}
