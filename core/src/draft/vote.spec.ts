import { describe, expect, it } from 'vitest';
import type { PlacedStroke } from './place';
import { agreeOnStrokes } from './vote';

const placed = (ticks: number, midi: readonly number[], marks: Partial<PlacedStroke> = {}): PlacedStroke => ({
  ticks,
  endTicks: ticks + 480,
  midi,
  palmMuted: false,
  dead: midi.length === 0,
  confidence: 0.8,
  ...marks,
});

describe('what passes agree on', () => {
  it('is there when more than half of them have it', () => {
    const passes = [
      [placed(0, [40]), placed(960, [43])],
      [placed(0, [40])],
      [placed(0, [40]), placed(1920, [45])],
    ];
    expect(agreeOnStrokes(passes).map((s) => s.ticks)).toEqual([0]);
  });

  it('leaves passes in which nothing was heard without a vote', () => {
    expect(agreeOnStrokes([[placed(0, [40])], [], []])).toHaveLength(1);
  });

  it('sounds what most of them sound, weighed by how sure they are', () => {
    const sure = [placed(0, [40, 47], { confidence: 0.9 })];
    const doubtful = [placed(0, [40, 47, 52], { confidence: 0.4 })];
    expect(agreeOnStrokes([sure, doubtful, doubtful])[0].midi).toEqual([40, 47]);
    expect(agreeOnStrokes([sure, doubtful, doubtful, doubtful])[0].midi).toEqual([40, 47, 52]);
  });

  it('is muted when most of those that sound it are', () => {
    const muted = [placed(0, [40], { palmMuted: true })];
    expect(agreeOnStrokes([muted, muted, [placed(0, [40])]])[0].palmMuted).toBe(true);
    expect(agreeOnStrokes([muted, [placed(0, [40])]])[0].palmMuted).toBe(false);
  });

  it('is as sure as they are of it together', () => {
    const [yes, no] = [[placed(0, [40])], [placed(0, [45], { confidence: 0.2 })]];
    expect(agreeOnStrokes([yes, yes])[0].confidence).toBeCloseTo(0.8);
    expect(agreeOnStrokes([yes, no])[0].confidence).toBeCloseTo(0.4);
  });

  it('takes its length from the surest', () => {
    const long = placed(0, [40], { confidence: 0.95, endTicks: 1900 });
    expect(agreeOnStrokes([[placed(0, [40])], [long]])[0].endTicks).toBe(1900);
  });
});
