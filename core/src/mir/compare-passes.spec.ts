import { describe, expect, it } from 'vitest';
import { comparePasses } from './compare-passes';
import { strumOf } from './test-sounds';
import type { HeardSection, HeardStrum } from './types';

const RIFF = [40, 43, 45, 43];
const PASSES = 4;
const downbeats = Array.from({ length: PASSES + 1 }, (_, i) => 2 * i);
const section: HeardSection = {
  startS: 0,
  endS: 8,
  label: 'A',
  transposeOf: null,
  startBar: 0,
  barsPerPass: 1,
  passes: PASSES,
  startSureness: 1,
  orElseBars: null,
  likeRiff: null,
};

/** Four passes of a bar; `change` answers null to leave a strum out. */
function play(change: (pass: number, at: number, strum: HeardStrum) => HeardStrum | null): HeardStrum[] {
  return Array.from({ length: PASSES }, (_, pass) =>
    RIFF.flatMap((root, at) => {
      const timeS = 2 * pass + 0.5 * at;
      const strum = change(pass, at, strumOf(timeS, timeS + 0.45, root));
      return strum ? [strum] : [];
    }),
  ).flat();
}

const differences = (strums: HeardStrum[]) =>
  comparePasses(strums, [section], downbeats, 8)[0].map((p) => p.differences.map((d) => [d.kind, d.timeS]));

describe('passes of a riff', () => {
  it('that are all the same have no differences', () => {
    expect(differences(play((_p, _a, s) => s))).toEqual([[], [], [], []]);
  });

  it('show a strum that one of them lacks', () => {
    expect(differences(play((p, a, s) => (p === 2 && a === 1 ? null : s)))).toEqual([
      [],
      [],
      [['missing', 4.5]],
      [],
    ]);
  });

  it('show another chord, and what the others play there', () => {
    const strums = play((p, a, s) => (p === 3 && a === 2 ? strumOf(s.timeS, s.endS, 47) : s));
    const [, , , last] = comparePasses(strums, [section], downbeats, 8)[0];
    expect(last.differences).toEqual([{ kind: 'chord', timeS: 7, strum: 14, usual: [45, 52] }]);
  });

  it('show another mute', () => {
    expect(differences(play((p, a, s) => (p === 0 && a === 0 ? { ...s, palmMuted: true } : s)))[0]).toEqual([
      ['mute', 0],
    ]);
  });

  it('show a strum that one of them has alone', () => {
    const strums = [...play((_p, _a, s) => s), strumOf(2.25, 2.4, 40)].sort((a, b) => a.timeS - b.timeS);
    expect(differences(strums)).toEqual([[], [['extra', 2.25]], [], []]);
  });

  it('say once that a pass ends early', () => {
    expect(differences(play((p, a, s) => (p === 3 && a > 1 ? null : s)))[3]).toEqual([['early-end', 7]]);
  });

  it('have none when the riff is played once', () => {
    const once = { ...section, passes: 1, endS: 2 };
    expect(comparePasses(play((_p, _a, s) => s).slice(0, 4), [once], downbeats, 8)).toEqual([
      [{ startS: 0, endS: 2, differences: [] }],
    ]);
  });
});
