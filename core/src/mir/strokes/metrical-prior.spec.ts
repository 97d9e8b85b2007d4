import { describe, expect, it } from 'vitest';
import { applyMetricalPrior } from './metrical-prior';
import type { StrokeProbabilities } from './stroke-kinds';

const ringing = (p: number): StrokeProbabilities => ({ ring: 0.75 * p, palmMute: 0.25 * p, dead: 0 });
const strokeOf = ({ ring, palmMute, dead }: StrokeProbabilities): number => ring + palmMute + dead;

/** Forty beats of half a second. Every beat is struck, every third sixteenth is not; at 10 s and 10.375 s nobody is sure. */
const BEATS = Array.from({ length: 41 }, (_, i) => i / 2);
const TIMES = BEATS.slice(0, 40).flatMap((timeS) => [timeS, timeS + 0.375]);
const DOUBTFUL = [40, 41];
const HEARD = TIMES.map((_, k) => ringing(DOUBTFUL.includes(k) ? 0.4 : k % 2 === 0 ? 0.97 : 0.03));

describe('places of the beat', () => {
  const weighed = applyMetricalPrior(TIMES, HEARD, BEATS);

  it('that are struck all over the song make a stroke of what is doubtful, others none', () => {
    expect(strokeOf(weighed[40])).toBeGreaterThan(0.5);
    expect(strokeOf(weighed[41])).toBeLessThan(0.3);
  });

  it('do not overrule what is clear', () => {
    const loud = HEARD.map((p, k) => (k === 41 ? ringing(0.9) : p));
    expect(strokeOf(applyMetricalPrior(TIMES, loud, BEATS)[41])).toBeGreaterThan(0.8);
  });

  it('change how sure a stroke is, not what kind it is', () => {
    const { ring, palmMute } = weighed[40];
    expect(ring / palmMute).toBeCloseTo(3, 6);
  });

  it('say nothing of what the user has confirmed, of free time, and without beats', () => {
    const says = TIMES.map((_, k) => (k === 41 ? ('none' as const) : null));
    expect(applyMetricalPrior(TIMES, HEARD, BEATS, says)[41]).toEqual(HEARD[41]);
    const pause = BEATS.filter((timeS) => timeS < 9.8 || timeS > 11.2);
    expect(strokeOf(applyMetricalPrior(TIMES, HEARD, pause)[40])).toBeCloseTo(0.4, 9);
    expect(applyMetricalPrior(TIMES, HEARD, [])).toEqual(HEARD);
    expect(applyMetricalPrior([], [], BEATS)).toEqual([]);
  });
});
