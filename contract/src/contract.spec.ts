import { describe, expect, it } from 'vitest';
import { DOCUMENT_SCHEMA } from '@wild-needle/core/riff';
import { analysisSchema, describeApi, songDocumentSchema, upgradeDocument } from './index';
import { upgradeToNewest } from './upgrades';

/** As the first version of the program stored it. */
const STORED = {
  schema: 'wild-needle/song@1',
  title: 'T',
  artist: '',
  tuning: { name: 'standard', stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0 },
  key: null,
  referenceOffsetCents: 0,
  recordings: [],
  tuneTo: 'concert',
  loops: [],
  grid: { beatsS: [0, 0.5, 1], bars: [{ beat: 0, beats: 2, unit: 4 }] },
  riffs: [
    {
      id: 'r',
      letter: 'A',
      name: 'R',
      bars: [{ beats: 4, unit: 4 }],
      strums: [
        {
          id: 's',
          startTicks: 0,
          durationTicks: 960,
          frets: [{ string: 6, fret: 0 }],
          palmMute: false,
          dead: false,
          trust: 'heard',
        },
      ],
    },
  ],
  sections: [{ id: 'x', name: 'Verse', riffId: 'r', startBar: 0, passes: 1, transpose: 0 }],
};
const DOCUMENT = upgradeDocument(STORED);
const [riff] = DOCUMENT.riffs;
const [strum] = riff.strums;

describe('document', () => {
  it('takes a whole one as it is', () => {
    expect(songDocumentSchema.parse(DOCUMENT)).toEqual(DOCUMENT);
  });

  it('gives one of before what came since: no marks, no second guitar, nothing decided', () => {
    expect(DOCUMENT.guitar2).toBeNull();
    expect(riff).toMatchObject({ guitar2: [], variations: [], barNotes: [], groups: [] });
    expect(strum).toMatchObject({
      rest: false,
      note: '',
      marks: { join: null, bendCents: 0, vibrato: false },
    });
    expect(DOCUMENT.sections[0]).toMatchObject({ answers: [], tone: '' });
  });

  it.each([
    ['a riff that does not exist', { sections: [{ ...DOCUMENT.sections[0], riffId: 'q' }] }, 'names no riff'],
    ['beats that go back', { grid: { ...DOCUMENT.grid, beatsS: [0, 2, 1] } }, 'must ascend'],
    ['two strums of one id', { riffs: [{ ...riff, strums: [strum, strum] }] }, 'same id'],
    [
      'a strum of one id with one of the second guitar',
      { riffs: [{ ...riff, guitar2: [strum] }] },
      'same id',
    ],
    [
      'a variation that ends before it starts',
      {
        riffs: [
          {
            ...riff,
            variations: [{ id: 'v', name: 'V', fromTicks: 5, toTicks: 5, strums: [], guitar2: [] }],
          },
        ],
      },
      'end after it starts',
    ],
    [
      'a string written twice',
      { riffs: [{ ...riff, strums: [{ ...strum, frets: [...strum.frets, ...strum.frets] }] }] },
      'written twice',
    ],
    [
      'a fret beyond the neck',
      { riffs: [{ ...riff, strums: [{ ...strum, frets: [{ string: 1, fret: 25 }] }] }] },
      'expected number to be <=24',
    ],
    ['no title', { title: ' ' }, 'title'],
  ])('refuses %s', (_, change, message) => {
    const result = songDocumentSchema.safeParse({ ...DOCUMENT, ...change });
    expect(result.success).toBe(false);
    expect(JSON.stringify(result.error?.issues)).toContain(message);
  });

  it('of version 1 keeps its second guitar, its whammy bar and what was said of its starts', () => {
    const marks = { bar: 'dip', vibrato: true };
    const older = {
      ...STORED,
      second: STORED.tuning,
      riffs: [
        {
          ...STORED.riffs[0],
          strums: [{ ...STORED.riffs[0].strums[0], marks }],
          second: [{ ...STORED.riffs[0].strums[0], id: 's2', marks }],
          variations: [{ id: 'v', name: 'V', fromTicks: 0, toTicks: 960, strums: [], second: [] }],
        },
      ],
      sections: [{ ...STORED.sections[0], startIsSettled: true }],
    };
    const upgraded = upgradeDocument(older);
    expect(upgraded.schema).toBe(DOCUMENT_SCHEMA);
    expect(upgraded.guitar2).toEqual(STORED.tuning);
    expect(upgraded.riffs[0].strums[0].marks).toMatchObject({ whammyBar: 'dip', vibrato: true });
    expect(upgraded.riffs[0].guitar2[0].marks.whammyBar).toBe('dip');
    expect(upgraded.riffs[0].variations[0].guitar2).toEqual([]);
    expect(upgraded.sections[0].startIsConfirmed).toBe(true);
  });

  it('is brought up step by step from older versions', () => {
    const upgrades = {
      'wild-needle/song@-1': (old: object) => ({ ...old, schema: 'wild-needle/song@0' }),
      'wild-needle/song@0': (old: object) => ({ ...old, schema: DOCUMENT_SCHEMA, key: null }),
    };
    const { key: _key, ...older } = DOCUMENT;
    expect(upgradeToNewest({ ...older, schema: 'wild-needle/song@-1' }, upgrades)).toEqual(DOCUMENT);
  });

  it.each([
    ['a newer program', { ...DOCUMENT, schema: 'wild-needle/song@3' }],
    ['nothing', null],
    ['a list', []],
  ])('from %s is refused, not guessed at', (_, stored) => {
    expect(() => upgradeDocument(stored)).toThrow();
  });
});

describe('a stored analysis', () => {
  it('of before keeps how likely its meters and starts are', () => {
    const span = { startS: 0, endS: 4 };
    const older = {
      schema: 'wild-needle/analysis@1',
      algorithm: 'networks-7',
      durationS: 4,
      referenceOffsetCents: 0,
      referenceSpreadCents: 0,
      tempoBpm: 120,
      meter: { beats: 4, unit: 4 },
      meters: [{ tempoBpm: 120, meter: { beats: 4, unit: 4 }, confidence: 0.7 }],
      beatsS: [],
      downbeatsS: [],
      key: null,
      tuning: { ...STORED.tuning, candidates: [] },
      sections: [
        {
          ...span,
          label: 'A',
          transposeOf: null,
          startBar: 0,
          barsPerPass: 1,
          passes: 2,
          startSureness: 0.4,
        },
      ],
      strums: [],
    };
    const { meters, sections } = analysisSchema.parse(older);
    expect(meters[0].probability).toBe(0.7);
    expect(sections[0].startProbability).toBe(0.4);
  });
});

describe('OpenAPI', () => {
  it('names every route with its parameters and the error', () => {
    const api = JSON.parse(JSON.stringify(describeApi('1'))) as {
      paths: Record<
        string,
        Record<string, { parameters: { name: string; in: string; required: boolean }[] }>
      >;
    };
    expect(api.paths['/api/recordings']['post'].parameters).toContainEqual(
      expect.objectContaining({ name: 'fileName', in: 'query', required: true }),
    );
    expect(api.paths['/api/songs/{id}']['get'].parameters[0]).toMatchObject({
      name: 'id',
      in: 'path',
      required: true,
    });
  });
});
