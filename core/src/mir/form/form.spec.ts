import { describe, expect, it } from 'vitest';
import { strumOf } from '../test-sounds';
import type { HeardSection, HeardStrum } from '../types';
import { findSections, toOnePassLength } from './form';

describe('form', () => {
  const bar = (start: number, roots: readonly number[]): HeardStrum[] =>
    roots.map((root, i) => strumOf(start + i * 0.5, start + i * 0.5 + 0.5, root));
  const downbeats = (bars: number): number[] => Array.from({ length: bars }, (_, i) => i * 2);
  const riffA = [40, 40, 43, 45];
  const riffB = [47, 52, 47, 50];

  it('finds two riffs, their passes and where they change', () => {
    const plan = [riffA, riffA, riffA, riffA, riffB, riffB, riffB, riffB];
    const strums = plan.flatMap((roots, i) => bar(i * 2, roots));
    const sections = findSections(strums, downbeats(8), 16);
    expect(sections.map((s) => [s.label, s.startS, s.passes])).toEqual([
      ['A', 0, 4],
      ['B', 8, 4],
    ]);
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
    const sections = findSections(strums, downbeats(7), 14);
    expect(sections.at(-1)).toMatchObject({ label: 'A+2', transposeOf: { label: 'A', semitones: 2 } });
  });

  it('gives a riff one length, at whatever height it is played', () => {
    const section = (label: string, startBar: number, barsPerPass: number, passes: number): HeardSection => ({
      label,
      startBar,
      barsPerPass,
      passes,
      startS: 2 * startBar,
      endS: 2 * (startBar + barsPerPass * passes),
      transposeOf: label === 'A+2' ? { label: 'A', semitones: 2 } : null,
      startProbability: 1,
      orElseBars: null,
      likeRiff: null,
    });
    const passes = (sections: readonly HeardSection[]): unknown =>
      toOnePassLength(sections).map((s) => [s.label, s.startBar, s.barsPerPass, s.passes]);
    expect(passes([section('A', 0, 4, 2), section('B', 8, 2, 3), section('A+2', 14, 8, 1)])).toEqual([
      ['A', 0, 4, 2],
      ['B', 8, 2, 3],
      ['A+2', 14, 4, 2],
    ]);
    expect(passes([section('A', 0, 8, 1), section('A', 8, 4, 2)])).toEqual([
      ['A', 0, 8, 1],
      ['A', 8, 8, 1],
    ]);
    // Half of it is played: then that half is the riff.
    expect(passes([section('A', 0, 8, 1), section('A', 8, 4, 1)])).toEqual([
      ['A', 0, 4, 2],
      ['A', 8, 4, 1],
    ]);
  });

  it('says nothing about silence', () => {
    expect(findSections([], downbeats(4), 8)).toEqual([]);
  });

  it('never says that a section may begin where another one does', () => {
    const riffC = [38, 36, 33, 41];
    const plan = [riffA, riffB, riffC].flatMap((riff) => [riff, riff, riff, riff]);
    const strums = plan.flatMap((roots, i) => bar(i * 2, roots));
    const sections = findSections(strums, downbeats(plan.length), 2 * plan.length);
    const starts = new Set(sections.map((s) => s.startBar));
    expect(starts.size).toBeGreaterThan(1);
    for (const { startBar, orElseBars, startProbability } of sections) {
      if (orElseBars !== null) expect(starts.has(startBar + orElseBars)).toBe(false);
      expect(startProbability).toBeGreaterThan(0);
      expect(startProbability).toBeLessThanOrEqual(1);
    }
  });
});
