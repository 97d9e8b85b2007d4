import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG, PLAIN_STRUM, settle, type SongDocument } from '../riff';
import type { Evidence, StrumEvidence, Witness, WrittenStrum } from './evidence';
import { judgeSong, settledIn } from './judge-song';

const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'T',
  grid: {
    beatsS: Array.from({ length: 9 }, (_, i) => i / 2),
    bars: [0, 4].map((beat) => ({ beat, beats: 4, unit: 4 as const })),
  },
  riffs: [
    {
      ...PLAIN_RIFF,
      id: 'a',
      letter: 'A',
      name: 'A',
      bars: [{ beats: 4, unit: 4 }],
      strums: [0, 1920].map((startTicks) => ({
        ...PLAIN_STRUM,
        id: `s${startTicks}`,
        startTicks,
        durationTicks: 960,
        frets: [{ string: 6, fret: 3 }],
        trust: 'heard' as const,
      })),
    },
  ],
  sections: [{ ...PLAIN_SECTION, id: '1', name: 'Verse', riffId: 'a', startBar: 0, passes: 2, transpose: 0 }],
};
const heard = (timeS: number, midi: readonly number[], confidence = 0.9): Evidence['extra'][number] => ({
  timeS,
  endS: timeS + 0.3,
  midi,
  rootPc: null,
  quality: null,
  palmMuted: false,
  dead: false,
  confidence,
  alternatives: [],
});
/** Bears out everything but what it is told. */
function witness(
  extra: Evidence['extra'] = [],
  wrong: Partial<Record<number, Partial<StrumEvidence>>> = {},
): Witness {
  return {
    ask: (written: readonly WrittenStrum[]) => ({
      extra,
      strums: written.map((w, i): StrumEvidence => ({
        notes: 0.99,
        struck: 0.99,
        kind: 0.99,
        heard: heard(w.timeS, w.midi),
        offsetS: 0,
        elsewhere: null,
        cover: null,
        ...wrong[i],
      })),
    }),
  };
}

describe('a song held against its recording', () => {
  it('is asked about strum by strum, pass by pass', () => {
    const { places, extra } = judgeSong(witness([], { 3: { notes: 0.001 } }), SONG);
    expect(places.map((p) => [p.id, p.verdict])).toEqual([
      ['1/0/s0', 'agrees'],
      ['1/0/s1920', 'agrees'],
      ['1/1/s0', 'agrees'],
      ['1/1/s1920', 'clashes'],
    ]);
    expect(extra).toEqual([]);
  });

  it('tells what is struck where nothing is written, at the nearest place of the riff', () => {
    const { extra } = judgeSong(witness([heard(2.51, [45, 52])]), SONG);
    expect(extra).toHaveLength(1);
    expect(extra[0]).toMatchObject({ id: '1/1/+960', sectionId: '1', pass: 1, ticks: 960, settled: null });
  });

  it.each([
    ['what is hardly heard', heard(2.5, [45], 0.3)],
    ['what is struck outside of all passes', heard(9, [45])],
    ['what stands there already', heard(2.02, [45])],
  ])('does not tell %s', (_, strum) => {
    expect(judgeSong(witness([strum]), SONG).extra).toEqual([]);
  });

  it('is heard with what the ear has settled', () => {
    const place = { sectionId: '1', pass: 1, ticks: 0, written: 'open 43' };
    expect(settledIn(SONG).strums).toEqual([]);
    expect(settledIn(settle(SONG, [place], 'kept')).strums.map((s) => [s.timeS, s.midi])).toEqual([
      [2, [43]],
    ]);
  });

  it('says nothing of a song without riffs', () => {
    expect(judgeSong(witness(), { ...SONG, sections: [] })).toEqual({ places: [], extra: [], habit: null });
  });
});
