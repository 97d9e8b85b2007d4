import { describe, expect, it } from 'vitest';
import type { AnalysedStrum } from './analyse';
import { agreeOnStrums, type PlacedStrum } from './consensus';

const placed = (ticks: number, midi: readonly number[], marks: Partial<AnalysedStrum> = {}): PlacedStrum => ({
  ticks,
  endTicks: ticks + 480,
  strum: {
    timeS: 0,
    endS: 1,
    midi,
    rootPc: null,
    quality: null,
    palmMuted: false,
    dead: midi.length === 0,
    confidence: 0.8,
    alternatives: [],
    name: '',
    voicings: [],
    ...marks,
  },
});

describe('what passes agree on', () => {
  it('is there when more than half of them have it', () => {
    const passes = [
      [placed(0, [40]), placed(960, [43])],
      [placed(0, [40])],
      [placed(0, [40]), placed(1920, [45])],
    ];
    expect(agreeOnStrums(passes).map((s) => s.ticks)).toEqual([0]);
  });

  it('leaves passes in which nothing was heard without a vote', () => {
    expect(agreeOnStrums([[placed(0, [40])], [], []])).toHaveLength(1);
  });

  it('sounds what most of them sound, weighed by how sure they are', () => {
    const sure = [placed(0, [40, 47], { confidence: 0.9 })];
    const doubtful = [placed(0, [40, 47, 52], { confidence: 0.4 })];
    expect(agreeOnStrums([sure, doubtful, doubtful])[0].strum.midi).toEqual([40, 47]);
    expect(agreeOnStrums([sure, doubtful, doubtful, doubtful])[0].strum.midi).toEqual([40, 47, 52]);
  });

  it('is muted when most of those that sound it are', () => {
    const muted = [placed(0, [40], { palmMuted: true })];
    expect(agreeOnStrums([muted, muted, [placed(0, [40])]])[0].strum.palmMuted).toBe(true);
    expect(agreeOnStrums([muted, [placed(0, [40])]])[0].strum.palmMuted).toBe(false);
  });

  it('takes length and voicings from the surest', () => {
    const long: PlacedStrum = { ...placed(0, [40], { confidence: 0.95 }), endTicks: 1900 };
    expect(agreeOnStrums([[placed(0, [40])], [long]])[0].endTicks).toBe(1900);
  });
});
