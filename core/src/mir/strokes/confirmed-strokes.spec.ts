import { describe, expect, it } from 'vitest';
import type { Confirmed, ConfirmedStrum } from '../confirmed';
import { confirmStrokes } from './confirmed-strokes';
import { strokeProbability, type StrokeProbabilities } from './stroke-kinds';

const confirmedStrum = (timeS: number, marks: Partial<ConfirmedStrum> = {}): ConfirmedStrum => ({
  timeS,
  midi: [40, 47],
  palmMuted: false,
  dead: false,
  ...marks,
});
const confirmed = (startS: number, endS: number, strums: readonly ConfirmedStrum[]): Confirmed => ({
  referenceCents: null,
  spans: [{ startS, endS }],
  strums,
});
const doubtful: StrokeProbabilities = { ring: 0.3, palmMute: 0.2, dead: 0.05 };

describe('confirmed strokes', () => {
  it('are certain, and nothing else is struck inside of their spans', () => {
    const found = confirmStrokes(
      [0.5, 1, 1.5],
      [doubtful, doubtful, doubtful],
      confirmed(0, 2, [confirmedStrum(1.02)]),
    );
    expect(found.timesS).toEqual([0.5, 1, 1.5]);
    expect(found.probabilities.map(strokeProbability)).toEqual([0, 1, 0]);
    expect(found.annotations.map((s) => (typeof s === 'object' ? 'strum' : s))).toEqual([
      'none',
      'strum',
      'none',
    ]);
  });

  it('are added where nothing was heard, in order of time', () => {
    const found = confirmStrokes([0.5, 1.5], [doubtful, doubtful], confirmed(0, 2, [confirmedStrum(1)]));
    expect(found.timesS).toEqual([0.5, 1, 1.5]);
    expect(strokeProbability(found.probabilities[1])).toBe(1);
  });

  it('teach that this player mutes where the network hears ringing', () => {
    const times = [0, 1, 2, 3, 4, 5, 10];
    const ringing: StrokeProbabilities = { ring: 0.55, palmMute: 0.4, dead: 0 };
    const strums = times.slice(0, 6).map((t) => confirmedStrum(t, { palmMuted: true }));
    const { probabilities } = confirmStrokes(
      times,
      times.map(() => ringing),
      confirmed(-1, 6, strums),
    );
    const outside = probabilities[6];
    expect(outside.palmMute).toBeGreaterThan(outside.ring);
    // Whether it is a stroke at all is not their say.
    expect(strokeProbability(outside)).toBeCloseTo(0.95, 6);
  });

  it('change nothing when nothing is confirmed', () => {
    const found = confirmStrokes([1], [doubtful], { referenceCents: null, spans: [], strums: [] });
    expect(found.probabilities).toEqual([doubtful]);
  });
});
