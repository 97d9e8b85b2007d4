import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../guitar';
import type { Riff } from '../riff';
import { comparePass, isNotable, ownDifferences, sharedDifferences, type PassComparison } from './compare';
import type { HeardStroke } from './place';
import { AS_WRITTEN, heardAs, RIFF, withAt, without } from './test-riff';

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

  it('is written otherwise where more than half of the passes differ in the same', () => {
    const compare = (heard: readonly HeardStroke[]): PassComparison =>
      comparePass(RIFF, heard, STANDARD_TUNING);
    const other = compare(withAt(2, { dead: false, midi: [41, 48] }));
    const same = compare(AS_WRITTEN);
    const kinds = (...passes: PassComparison[]): string[] =>
      sharedDifferences(passes).map(({ pass, difference }) => `${pass} ${difference.kind}`);
    expect(kinds(same, other, other)).toEqual(['1 chord']);
    expect(kinds(same, other)).toEqual([]);
    expect(kinds(other)).toEqual(['0 chord']);
  });

  it('takes an octave more or less for the same chord, and expects nothing in a rest', () => {
    const bare = comparePass(RIFF, withAt(0, { midi: [43, 50, 55] }), STANDARD_TUNING);
    expect(bare.verdicts[0].verdict).toBe('agrees');
    const rest: Riff = { ...RIFF, strums: [{ ...RIFF.strums[0], rest: true }, ...RIFF.strums.slice(1)] };
    expect(comparePass(rest, without(0), STANDARD_TUNING).differences).toEqual([]);
  });
});
