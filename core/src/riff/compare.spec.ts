import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../guitar';
import { strumsFromHeard } from './from-heard';
import { comparePass, isNotable, ownDifferences, variationOfPass, type HeardStroke } from './compare';
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_STRUM, type Riff, type SongDocument, type Strum } from './document';
import {
  isEnding,
  keepVariation,
  removeVariation,
  reopenPass,
  riffOfPass,
  sameRiff,
  variationOf,
  whereVaried,
} from './variation';

const fifth = (fret: number): Strum['frets'] => [
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
const RIFF: Riff = {
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
const heardAs = (ticks: number, low: number, changes: Partial<HeardStroke> = {}): HeardStroke => ({
  ticks,
  midi: [low, low + 7],
  palmMuted: false,
  dead: false,
  confidence: 0.9,
  ...changes,
});
/** The riff as it was played, with the looseness of a hand. */
const AS_WRITTEN: HeardStroke[] = [
  heardAs(12, 43),
  heardAs(955, 43, { palmMuted: true }),
  heardAs(1930, 0, { dead: true, midi: [] }),
  heardAs(2860, 45),
  heardAs(3850, 43),
  heardAs(5750, 45),
];
const without = (...indices: number[]): HeardStroke[] => AS_WRITTEN.filter((_, i) => !indices.includes(i));
const withAt = (index: number, changes: Partial<HeardStroke>): HeardStroke[] =>
  AS_WRITTEN.map((h, i) => (i === index ? { ...h, ...changes } : h));

describe('a pass against the riff', () => {
  it('agrees stroke by stroke when it is played as written', () => {
    const { verdicts, differences } = comparePass(RIFF, AS_WRITTEN, STANDARD_TUNING);
    expect(verdicts.map((v) => v.verdict)).toEqual(Array(6).fill('agrees'));
    expect(verdicts.map((v) => v.heard)).toEqual([0, 1, 2, 3, 4, 5]);
    expect(differences).toEqual([]);
  });

  it.each<[string, HeardStroke[], string[], string[]]>([
    [
      'a stroke less',
      without(1),
      ['missing b'],
      ['agrees', 'missing', 'agrees', 'agrees', 'agrees', 'agrees'],
    ],
    [
      'a stroke more',
      [...AS_WRITTEN.slice(0, 4), heardAs(3360, 45), ...AS_WRITTEN.slice(4)],
      ['extra 3360'],
      Array<string>(6).fill('agrees'),
    ],
    [
      'another chord',
      withAt(3, { midi: [48, 55] }),
      ['chord d'],
      ['agrees', 'agrees', 'agrees', 'clashes', 'agrees', 'agrees'],
    ],
    [
      'another chord that was hardly heard',
      withAt(3, { midi: [48, 55], confidence: 0.2 }),
      [],
      ['agrees', 'agrees', 'agrees', 'doubtful', 'agrees', 'agrees'],
    ],
    [
      'another mute',
      withAt(1, { palmMuted: false }),
      ['mute b'],
      ['agrees', 'doubtful', 'agrees', 'agrees', 'agrees', 'agrees'],
    ],
    [
      'an early end',
      without(4, 5),
      ['early-end e'],
      ['agrees', 'agrees', 'agrees', 'agrees', 'missing', 'missing'],
    ],
  ])('finds %s', (_, heard, differences, verdicts) => {
    const found = comparePass(RIFF, heard, STANDARD_TUNING);
    expect(found.differences.map((d) => `${d.kind} ${d.strumId ?? d.ticks}`)).toEqual(differences);
    expect(found.verdicts.map((v) => v.verdict)).toEqual(verdicts);
  });

  it('asks about another chord and an early end, not about one mute or one lost dead stroke', () => {
    const notable = (heard: HeardStroke[]): boolean =>
      isNotable(comparePass(RIFF, heard, STANDARD_TUNING).differences);
    expect(notable(withAt(3, { midi: [48, 55] }))).toBe(true);
    expect(notable(without(4, 5))).toBe(true);
    expect(notable(without(2))).toBe(false);
    expect(notable(withAt(1, { palmMuted: false }))).toBe(false);
  });

  it('asks about what one pass has alone, not about what most of them have', () => {
    const compare = (heard: HeardStroke[]): ReturnType<typeof comparePass> =>
      comparePass(RIFF, heard, STANDARD_TUNING);
    const all = [compare(without(1)), compare(without(1)), compare(without(1, 4, 5)), compare(AS_WRITTEN)];
    expect(ownDifferences(all).map((own) => own.map((d) => d.kind))).toEqual([[], [], ['early-end'], []]);
    expect(ownDifferences([compare(without(4, 5))])).toEqual([[]]);
  });

  it('takes an octave more or less for the same chord, and expects nothing in a rest', () => {
    const bare = comparePass(RIFF, withAt(0, { midi: [43, 50, 55] }), STANDARD_TUNING);
    expect(bare.verdicts[0].verdict).toBe('agrees');
    const rest: Riff = { ...RIFF, strums: [{ ...RIFF.strums[0], rest: true }, ...RIFF.strums.slice(1)] };
    expect(comparePass(rest, without(0), STANDARD_TUNING).differences).toEqual([]);
  });
});

const SONG = {
  riffs: [RIFF],
  sections: [{ ...PLAIN_SECTION, id: 's', name: 'Verse', riffId: 'r', startBar: 0, passes: 4, transpose: 0 }],
} as unknown as SongDocument;

function kept(heard: HeardStroke[], pass = 3, document = SONG): SongDocument {
  const comparison = comparePass(RIFF, heard, STANDARD_TUNING);
  let n = 0;
  const variation = variationOfPass(RIFF, heard, comparison.differences, STANDARD_TUNING, {
    id: `v${pass}`,
    name: 'Early end',
    newId: () => `v${pass}-${n++}`,
  });
  return variation ? keepVariation(document, 's', pass, variation) : document;
}

describe('a variation', () => {
  it('holds the bars that differ, and is played in its pass only', () => {
    const song = kept(without(4, 5));
    const [section] = song.sections;
    const [riff] = song.riffs;
    expect(riff.variations[0]).toMatchObject({ fromTicks: 3840, toTicks: 7680, strums: [] });
    expect(isEnding(riff, riff.variations[0])).toBe(true);
    expect(riffOfPass(riff, section, 3).strums.map((s) => s.id)).toEqual(['a', 'b', 'c', 'd']);
    expect(riffOfPass(riff, section, 0)).toBe(riff);
    expect(whereVaried(song, riff, riff.variations[0])).toBe('pass 4 of Verse');
  });

  it('plays the chord that was heard, in a shape that the tuning has, and keeps the rest as written', () => {
    const song = kept(withAt(3, { midi: [48, 55], palmMuted: true }));
    const varied = riffOfPass(song.riffs[0], song.sections[0], 3).strums;
    expect(varied.map((s) => s.startTicks)).toEqual(RIFF.strums.map((s) => s.startTicks));
    expect(varied[3]).toMatchObject({ palmMute: true, trust: 'heard' });
    expect(varied[3].frets).not.toEqual(RIFF.strums[3].frets);
    expect(varied[1].palmMute).toBe(true);
  });

  it('that another pass has already is used again', () => {
    const twice = kept(without(4, 5), 1, kept(without(4, 5)));
    expect(twice.riffs[0].variations).toHaveLength(1);
    expect(whereVaried(twice, twice.riffs[0], twice.riffs[0].variations[0])).toBe('passes 2 and 4 of Verse');
  });

  it('follows the riff where they are the same', () => {
    const song = kept(without(4, 5));
    const edited = { ...song.riffs[0], strums: song.riffs[0].strums.filter((s) => s.id !== 'b') };
    expect(riffOfPass(edited, song.sections[0], 3).strums.map((s) => s.id)).toEqual(['a', 'c', 'd']);
  });

  it('is taken back, forgotten, or declared to be the riff', () => {
    const song = kept(without(4, 5));
    expect(reopenPass(song, 's', 3).sections[0].answers).toEqual([]);
    const forgotten = removeVariation(song, 'r', 'v3');
    expect([forgotten.riffs[0].variations, forgotten.sections[0].answers]).toEqual([[], []]);
    const same = sameRiff(song, 's', 3);
    expect(same.sections[0].answers).toEqual([{ pass: 3, variationId: null }]);
    expect(variationOf(same.riffs[0], same.sections[0], 3)).toBeNull();
  });
});

describe('a riff from what was heard', () => {
  it('is on the grid, in one fingering, to be checked', () => {
    let n = 0;
    const strums = strumsFromHeard(RIFF, AS_WRITTEN, STANDARD_TUNING, () => `h${n++}`);
    expect(strums.map((s) => s.startTicks)).toEqual(RIFF.strums.map((s) => s.startTicks));
    expect(strums.map((s) => s.palmMute)).toEqual(RIFF.strums.map((s) => s.palmMute));
    expect(strums.map((s) => s.dead)).toEqual(RIFF.strums.map((s) => s.dead));
    expect(strums[3].frets).toEqual(fifth(5));
    expect(strums.every((s) => s.trust === 'heard')).toBe(true);
  });

  it('puts triplets on thirds, and two strokes on one place once', () => {
    const ids = (): string => 'x';
    const ticks = (...at: number[]): number[] =>
      strumsFromHeard(
        RIFF,
        at.map((t) => heardAs(t, 43)),
        STANDARD_TUNING,
        ids,
      ).map((s) => s.startTicks);
    expect(ticks(0, 322, 638)).toEqual([0, 320, 640]);
    expect(ticks(5, 20, 475)).toEqual([0, 480]);
  });
});
