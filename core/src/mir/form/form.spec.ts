import { describe, expect, it } from 'vitest';
import { strumOf } from '../test-sounds';
import type { HeardStrum } from '../types';
import { findForm } from './form';

describe('form', () => {
  const bar = (start: number, roots: readonly number[]): HeardStrum[] =>
    roots.map((root, i) => strumOf(start + i * 0.5, start + i * 0.5 + 0.5, root));
  const downbeats = (bars: number): number[] => Array.from({ length: bars }, (_, i) => i * 2);
  const riffA = [40, 40, 43, 45];
  const riffB = [47, 52, 47, 50];

  it('finds two riffs, their passes and where they change', () => {
    const plan = [riffA, riffA, riffA, riffA, riffB, riffB, riffB, riffB];
    const strums = plan.flatMap((roots, i) => bar(i * 2, roots));
    const { sections, sameAsBar } = findForm(strums, downbeats(8), 16);
    expect(sections.map((s) => [s.label, s.startS, s.passes])).toEqual([
      ['A', 0, 4],
      ['B', 8, 4],
    ]);
    expect(sameAsBar).toEqual([0, 0, 0, 0, 4, 4, 4, 4]);
  });

  it('hears a riff that comes back two frets higher', () => {
    const plan = [
      riffA,
      riffA,
      riffA,
      riffA,
      riffA.map((r) => r + 2),
      riffA.map((r) => r + 2),
      riffA.map((r) => r + 2),
    ];
    const strums = plan.flatMap((roots, i) => bar(i * 2, roots));
    const { sections } = findForm(strums, downbeats(7), 14);
    expect(sections.at(-1)).toMatchObject({ label: 'A+2', transposeOf: { label: 'A', semitones: 2 } });
  });

  it('hears the last pass that stops half-way, and what plays once and faintly', () => {
    const riff = [riffA, riffB, [38, 36, 33, 41], [45, 45, 33, 33]];
    const riffE = [43, 43, 31, 46];
    const faint = (strums: HeardStrum[]): HeardStrum[] => strums.map((s) => ({ ...s, confidence: 0.3 }));
    const noise = [50, 41, 48, 39, 35, 44].map((root, i) => [
      root,
      root - 5 * (i % 2),
      30 + 4 * i,
      52 - 3 * i,
    ]);
    const plan = [...riff, ...riff, ...riff.slice(0, 2), riffE, riffE, riffE, riffE];
    const strums = [
      ...plan.flatMap((roots, i) => bar(i * 2, roots)),
      ...faint(noise.flatMap((roots, i) => bar(28 + i * 2, roots))),
    ];
    const { sections } = findForm(strums, downbeats(20), 40);
    expect(sections.map((s) => [s.startBar, s.barsPerPass * s.passes - s.cutBars, s.returns])).toEqual([
      [0, 10, true],
      [10, 4, true],
      [14, 6, false],
    ]);
    expect(sections[0]).toMatchObject({ barsPerPass: 4, passes: 3, cutBars: 2, endS: 20 });
  });

  it('says nothing about silence', () => {
    expect(findForm([], downbeats(4), 8)).toEqual({ sections: [], sameAsBar: [0, 1, 2, 3] });
  });

  it('never says that a section may begin where another one does', () => {
    const riffC = [38, 36, 33, 41];
    const plan = [riffA, riffB, riffC].flatMap((riff) => [riff, riff, riff, riff]);
    const strums = plan.flatMap((roots, i) => bar(i * 2, roots));
    const { sections } = findForm(strums, downbeats(plan.length), 2 * plan.length);
    const starts = new Set(sections.map((s) => s.startBar));
    expect(starts.size).toBeGreaterThan(1);
    for (const { startBar, orElseBars, startProbability } of sections) {
      if (orElseBars !== null) expect(starts.has(startBar + orElseBars)).toBe(false);
      expect(startProbability).toBeGreaterThan(0);
      expect(startProbability).toBeLessThanOrEqual(1);
    }
  });
});
