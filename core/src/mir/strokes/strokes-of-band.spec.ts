import { describe, expect, it } from 'vitest';
import { addChord, RATE } from '../test-sounds';
import { findStrokeCandidates } from './stroke-candidates';
import { strokeProbability } from './stroke-kinds';
import { findStrokesOf, type HeardStrokes } from './strokes-of-band';

const SECONDS = 6;

/** A power chord every half second, from `fromS` on. */
function riff(fromS: number): Float32Array {
  const out = new Float32Array(SECONDS * RATE);
  for (let timeS = fromS; timeS < SECONDS - 0.5; timeS += 0.5) addChord(out, timeS, 0.48, [40, 47]);
  return out.map((v) => Math.tanh(3 * v));
}

/** How likely the likeliest stroke within 30 ms is, over the instants `fromS`, one and a half, two seconds later and so on. */
function likeliest({ timesS, probabilities }: HeardStrokes, fromS: number): number[] {
  return [1, 1.5, 2, 2.5, 3].map((laterS) =>
    timesS.reduce(
      (most, timeS, k) =>
        Math.abs(timeS - fromS - laterS) < 0.03 ? Math.max(most, strokeProbability(probabilities[k])) : most,
      0,
    ),
  );
}

describe('the strokes of a band', () => {
  const guitars = riff(0);
  const others = riff(0.25);
  const whole = { mid: guitars.map((v, n) => v + others[n]), side: null };

  it('are those of all that sounds where it is not apart', () => {
    const { timesS } = findStrokesOf({ whole, guitars: null }, RATE);
    expect(timesS).toEqual(findStrokeCandidates(whole, RATE).timesS);
  });

  it('are believed of others half as much, and of the guitars as before', () => {
    const together = findStrokesOf({ whole, guitars: null }, RATE);
    const apart = findStrokesOf({ whole, guitars: { mid: guitars, side: null } }, RATE);
    const before = likeliest(together, 0.25);
    likeliest(apart, 0).forEach((p) => expect(p).toBeGreaterThan(0.6));
    likeliest(apart, 0.25).forEach((p, k) => expect(p).toBeLessThan(0.7 * Math.max(0.3, before[k])));
  });

  it('are found where all that sounds has none', () => {
    const covered = { mid: new Float32Array(SECONDS * RATE), side: null };
    const apart = findStrokesOf({ whole: covered, guitars: { mid: guitars, side: null } }, RATE);
    likeliest(apart, 0).forEach((p) => expect(p).toBeGreaterThan(0.4));
    expect([...apart.timesS].sort((a, b) => a - b)).toEqual(apart.timesS);
  });
});
