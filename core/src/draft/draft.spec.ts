import { describe, expect, it } from 'vitest';
import type { AnalysedStrum, Analysis } from '../analysis';
import { soundingNotes, STANDARD_TUNING } from '../guitar';
import { PLAIN_SONG, strumNotes, type SongDocument } from '../riff';
import { draftInto, draftPart, gridOf } from './draft';

function heard(timeS: number, root: number, marks: Partial<AnalysedStrum> = {}): AnalysedStrum {
  return {
    timeS,
    endS: timeS + 0.5,
    midi: [root, root + 7],
    rootPc: root % 12,
    quality: '5',
    palmMuted: false,
    dead: false,
    confidence: 0.9,
    alternatives: [],
    name: 'x',
    voicings: [{ frets: [root - 40, root - 38, null, null, null, null], score: 1 }],
    ...marks,
  };
}

/** Two bars of 4/4 at 120 bpm, played twice; the second pass has a strum too many. */
const BEATS = Array.from({ length: 17 }, (_, i) => 1 + i * 0.5);
const PASS = [0, 0.5, 1, 2, 3];
const ANALYSIS: Analysis = {
  schema: 'wild-needle/analysis@1',
  algorithm: 'test',
  durationS: 10,
  referenceOffsetCents: 12,
  referenceSpreadCents: 3,
  referenceIsUnsettled: false,
  referenceHistogram: [],
  referencePartials: 0,
  referenceOverTime: [],
  tempoBpm: 120,
  meter: { beats: 4, unit: 4 },
  meters: [],
  beatsS: BEATS,
  downbeatsS: [1, 3, 5, 7, 9],
  beatsPerBar: [4, 4, 4, 4, 1],
  freeTime: [],
  sameAsBar: [0, 1, 0, 1, 4],
  strokes: [],
  guitars: [],
  doubts: [],
  key: { tonic: 'E', mode: 'minor' },
  tuning: { name: 'standard', stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0, candidates: [] },
  sections: [
    {
      startS: 1,
      endS: 9,
      label: 'A',
      transposeOf: null,
      startBar: 0,
      barsPerPass: 2,
      passes: 2,
      cutBars: 0,
      returns: true,
      startProbability: 1,
      orElseBars: null,
      likeRiff: null,
      key: null,
    },
  ],
  strums: [
    ...PASS.map((t) => heard(1.01 + t, 40)),
    ...PASS.map((t) => heard(4.99 + t, 40)),
    heard(8.75, 43),
    heard(5.27, 47, { dead: true, midi: [], voicings: [], rootPc: null, quality: null }),
  ].sort((a, b) => a.timeS - b.timeS),
};
const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'T',
  artist: 'A',
  recordings: [{ id: 'rec', isReference: true }],
};
const drafted = (analysis: Analysis): SongDocument => draftInto(SONG, analysis).document;

describe('draft', () => {
  it('makes bars between the downbeats', () => {
    expect(gridOf(ANALYSIS).bars.map((b) => [b.beat, b.beats])).toEqual([
      [0, 4],
      [4, 4],
      [8, 4],
      [12, 4],
      [16, 1],
    ]);
  });

  it('writes the dotted quarters of six eighths as eighths', () => {
    const sixEighths = {
      ...ANALYSIS,
      meter: { beats: 6, unit: 8 },
      beatsS: [1, 2, 3, 4, 5],
      downbeatsS: [1, 3, 5],
    };
    const { beatsS, bars } = gridOf(sixEighths);
    expect(beatsS.slice(0, 4).map((t) => Number(t.toFixed(3)))).toEqual([1, 1.333, 1.667, 2]);
    expect(bars.map((b) => [b.beat, b.beats, b.unit])).toEqual([
      [0, 6, 8],
      [6, 6, 8],
      [12, 3, 8],
    ]);
  });

  it('writes the riff once, on the grid, where most passes have a strum', () => {
    const { riffs, sections } = drafted(ANALYSIS);
    expect(riffs).toHaveLength(1);
    expect(riffs[0].strums.map((s) => s.startTicks)).toEqual([0, 960, 1920, 3840, 5760]);
    expect(riffs[0].strums[0].frets).toEqual([
      { string: 6, fret: 0 },
      { string: 5, fret: 2 },
    ]);
    expect(sections).toMatchObject([{ startBar: 0, passes: 2, transpose: 0 }]);
  });

  it('writes the riff from whole passes where the first part leaves its end out', () => {
    const [section] = ANALYSIS.sections;
    const { riffs, sections } = drafted({
      ...ANALYSIS,
      sections: [
        { ...section, endS: 3, passes: 1, cutBars: 1 },
        { ...section, startS: 3, endS: 7, startBar: 1, passes: 1 },
      ],
    });
    expect(riffs.map((r) => r.bars.length)).toEqual([2]);
    expect(sections).toMatchObject([
      { startBar: 0, passes: 1, cutBars: 1 },
      { startBar: 1, passes: 1, cutBars: 0 },
    ]);
  });

  it('leaves a part without a riff where nothing comes round', () => {
    const [section] = ANALYSIS.sections;
    const { riffs, sections } = drafted({
      ...ANALYSIS,
      sections: [
        { ...section, endS: 5, passes: 1 },
        { ...section, label: 'B', startS: 5, startBar: 2, passes: 1, returns: false },
      ],
    });
    expect(riffs.map((r) => r.letter)).toEqual(['A']);
    expect(sections[1]).toMatchObject({ riffId: null, startBar: 2, passes: 2 });
  });

  it('writes such a part down as it was heard when it is asked to', () => {
    const [section] = ANALYSIS.sections;
    const song = drafted({
      ...ANALYSIS,
      sections: [
        { ...section, endS: 5, passes: 1 },
        { ...section, label: 'B', startS: 5, startBar: 2, passes: 1, returns: false },
      ],
    });
    const written = draftPart(song, ANALYSIS.strums, 'section-2', 'riff-new');
    expect(written.sections[1]).toMatchObject({ riffId: 'riff-new', passes: 1 });
    expect(written.riffs[1]).toMatchObject({ letter: 'B', bars: [{ beats: 4 }, { beats: 4 }] });
    expect(written.riffs[1].strums.map((s) => s.startTicks)).toEqual([0, 480, 960, 1920, 3840, 5760, 7200]);
    expect(draftPart(song, ANALYSIS.strums, 'section-1', 'riff-new')).toBe(song);
    expect(draftPart(song, ANALYSIS.strums, 'gone', 'riff-new')).toBe(song);
  });

  it('lets the passes outvote a chord that was misheard in one of them', () => {
    const passes = [40, 40, 43].map((root, p) => ({
      ...ANALYSIS.sections[0],
      startS: 1 + 2 * p,
      startBar: p,
      root,
    }));
    const strums = passes.flatMap(({ startS, root }) => [heard(startS, root), heard(startS + 1, 45)]);
    const sections = [{ ...ANALYSIS.sections[0], barsPerPass: 1, passes: 3 }];
    const [riff] = drafted({ ...ANALYSIS, strums, sections }).riffs;
    const lowest = riff.strums.map((s) => strumNotes(s, STANDARD_TUNING)[0]);
    expect(lowest).toEqual([40, 45]);
  });

  it('carries tuning, key and pitch of the recording', () => {
    expect(drafted(ANALYSIS)).toMatchObject({
      tuning: { name: 'standard' },
      key: { tonic: 'E' },
      referenceOffsetCents: 12,
      recordings: [{ id: 'rec', isReference: true }],
    });
  });

  it('puts triplets on thirds of the beat', () => {
    const third = 0.5 / 3;
    const strums = [0, 1, 2, 3, 4, 5].map((i) => heard(1 + i * third, 40));
    const { riffs } = drafted({ ...ANALYSIS, strums });
    expect(riffs[0].strums.map((s) => s.startTicks)).toEqual([0, 320, 640, 960, 1280, 1600]);
  });

  it('leaves what stands in free time out of the riffs', () => {
    const freeTime = [4.7, 8.7].map((startS) => ({ startS, endS: startS + 0.1 }));
    const wrong = { ...ANALYSIS, strums: [1, 4.75, 5, 8.75].map((t) => heard(t, 40)) };
    const count = (analysis: Analysis): number => drafted(analysis).riffs[0].strums.length;
    expect(count(wrong)).toBe(2);
    expect(count({ ...wrong, freeTime })).toBe(1);
  });

  it('is an empty document when nothing was heard', () => {
    const nothing = { ...ANALYSIS, strums: [], sections: [], beatsS: [], downbeatsS: [] };
    expect(drafted(nothing)).toMatchObject({ riffs: [], sections: [], grid: { bars: [] } });
  });
});

describe('a draft that comes late', () => {
  const loop = { id: 'l', name: 'Mine', startS: 1, endS: 2 };
  const DROP_C = { name: 'custom', stringsMidi: [36, 43, 48, 53, 57, 62], capo: 0 };

  it('says that it left nothing where nothing was set', () => {
    expect(draftInto(SONG, ANALYSIS).kept).toEqual([]);
  });

  it('leaves loops, offset, key and what is tuned to as they were set', () => {
    const set = {
      ...SONG,
      loops: [loop],
      tuneTo: 'recording',
      referenceOffsetCents: 12,
      key: { tonic: 'D', mode: 'minor' },
    } as const satisfies SongDocument;
    const { document, kept } = draftInto(set, ANALYSIS);
    expect(kept).toEqual(['key', 'referenceOffsetCents', 'tuneTo', 'loops']);
    expect(document).toMatchObject({
      loops: [loop],
      tuneTo: 'recording',
      referenceOffsetCents: 12,
      key: { tonic: 'D', mode: 'minor' },
    });
    expect(document.riffs).toHaveLength(drafted(ANALYSIS).riffs.length);
  });

  it('fingers its riffs in the tuning that was set: the same notes', () => {
    const { document, kept } = draftInto({ ...SONG, tuning: DROP_C }, ANALYSIS);
    expect(kept).toEqual(['tuning']);
    expect(document.tuning).toEqual(DROP_C);
    const sounding = ({ riffs, tuning }: SongDocument): number[][] =>
      riffs[0].strums.map((s) => soundingNotes(tuning, s.frets));
    expect(sounding(document)).toEqual(sounding(drafted(ANALYSIS)));
    expect(document.riffs[0].strums[0].frets).not.toEqual(drafted(ANALYSIS).riffs[0].strums[0].frets);
  });

  it('stands in the bars that were set', () => {
    // The same time counted twice as fast.
    const grid = {
      beatsS: Array.from({ length: 34 }, (_, i) => 1 + i / 4),
      bars: Array.from({ length: 8 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const })),
    };
    const { document, kept } = draftInto({ ...SONG, grid }, ANALYSIS);
    expect(kept).toEqual(['grid']);
    expect(document.grid).toEqual(grid);
    const [before] = drafted(ANALYSIS).riffs;
    const [riff] = document.riffs;
    expect(riff.bars).toHaveLength(2 * before.bars.length);
    expect(riff.strums.map((s) => s.startTicks)).toEqual(before.strums.map((s) => 2 * s.startTicks));
    expect(document.sections[0].startBar).toBe(2 * drafted(ANALYSIS).sections[0].startBar);
  });
});
