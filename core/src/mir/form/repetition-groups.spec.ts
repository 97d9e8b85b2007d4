import { describe, expect, it } from 'vitest';
import { groupRepetitions, type KnownSections } from './repetition-groups';
import type { BarContent } from './bar-contents';
import { poolStrokes } from '../strokes/stroke-pooling';
import type { HeardSection, RepetitionGroup } from '../types';

const SECTION: HeardSection = {
  startS: 0,
  endS: 8,
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
};
const DOWNBEATS = [0, 2, 4, 6, 8];
const known = (sections: readonly HeardSection[]): KnownSections => ({ sections, sameAsBar: [] });
const members = (timesS: readonly number[], sections: readonly HeardSection[]): (readonly number[])[] =>
  groupRepetitions(timesS, known(sections), DOWNBEATS).map((group) => group.members);

describe('repeated strums', () => {
  it('stand in bars that are the same, whatever section these are in', () => {
    const groups = groupRepetitions(
      [0, 2, 4, 6],
      { sections: [SECTION], sameAsBar: [0, 0, 2, 0, 4] },
      DOWNBEATS,
    );
    expect(groups.map((g) => g.members)).toEqual([[0, 1, 3], [1, 0, 3], [2], [3, 0, 1]]);
    expect(groups[0].passes).toBe(3);
  });

  it('stand at the same place of another pass', () => {
    expect(members([0, 1, 4.02, 5.5], [SECTION])).toEqual([[0, 2], [1], [2, 0], [3]]);
    expect(groupRepetitions([0], known([SECTION]), DOWNBEATS)[0].passes).toBe(2);
  });

  it('belong to the bar that they come a little early for', () => {
    expect(members([0, 3.98], [SECTION])).toEqual([
      [0, 1],
      [1, 0],
    ]);
  });

  it('are not those of a bar that plays something else: a section drawn a bar off', () => {
    const strum = (rootPc: number): BarContent =>
      [0, 0.5].map((at) => ({ at, bass: 40 + rootPc, rootPc, palmMuted: false }));
    const bars = [strum(0), strum(5), strum(7), strum(5)];
    const groups = groupRepetitions([0, 2, 4, 6], known([SECTION]), DOWNBEATS, bars);
    expect(groups.map((g) => g.members)).toEqual([[0], [1, 3], [2], [3, 1]]);
    expect(groups.map((g) => g.passes)).toEqual([1, 2, 1, 2]);
  });

  it('are not those of another riff, or of none', () => {
    const other = { ...SECTION, label: 'B', startBar: 2, passes: 1 };
    expect(members([0, 4, 9], [{ ...SECTION, passes: 1 }, other])).toEqual([[0], [1], [2]]);
  });

  it('know their riff, whatever height it is played at', () => {
    const moved = {
      ...SECTION,
      label: 'A+2',
      transposeOf: { label: 'A', semitones: 2 },
      startBar: 2,
      passes: 1,
    };
    const groups = groupRepetitions([0, 4, 9], known([{ ...SECTION, passes: 1 }, moved]), DOWNBEATS);
    expect(groups.map((g) => g.riff)).toEqual(['A', 'A', '']);
  });
});

describe('strokes of passes', () => {
  const p = (stroke: number, muted = 0): { ring: number; palmMute: number; dead: number } => ({
    ring: stroke * (1 - muted),
    palmMute: stroke * muted,
    dead: 0,
  });
  const all = (count: number, passes = count): RepetitionGroup[] =>
    Array.from({ length: count }, (_, k) => ({
      members: [k, ...Array.from({ length: count }, (_v, i) => i).filter((i) => i !== k)],
      passes,
      riff: 'A',
    }));
  const sure = ({ ring, palmMute, dead }: { ring: number; palmMute: number; dead: number }): number =>
    ring + palmMute + dead;

  it('bring back one that was missed here, and drop one that nobody else has', () => {
    expect(sure(poolStrokes([p(0.95), p(0.4), p(0.95)], all(3))[1])).toBeGreaterThan(0.5);
    expect(sure(poolStrokes([p(0.6)], all(1, 4))[0])).toBeLessThan(0.5);
  });

  it('leave a clear one alone', () => {
    expect(sure(poolStrokes([p(0.99)], all(1, 4))[0])).toBeGreaterThan(0.5);
  });

  it('mute alike', () => {
    const { ring, palmMute } = poolStrokes([p(0.9, 0.9), p(0.9, 0.4), p(0.9, 0.9)], all(3))[1];
    expect(palmMute).toBeGreaterThan(ring);
  });

  it('do not speak for a place outside of all riffs', () => {
    expect(poolStrokes([p(0.6)], all(1, 1))[0]).toEqual(p(0.6));
  });
});
