import { describe, expect, it } from 'vitest';
import { CHORD_SHAPES } from './chord-shapes.data';
import { BASS_NOTES, SHAPES, LOWEST_BASS } from './chord-network';
import { poolPasses, poolSoundingAlike } from './chord-pooling';

const shape = (notes: readonly number[]): number =>
  CHORD_SHAPES.findIndex((f) => f.notes?.join() === notes.join());
const SINGLE = shape([0]);
const FIFTH = shape([0, 7]);
const WITH_OCTAVE = shape([0, 7, 12]);
const MAJOR = shape([0, 7, 12, 16, 19]);

type Reading = readonly [bass: number, shape: number, p: number];
const at = (bass: number, f: number): number => (bass - LOWEST_BASS) * SHAPES + f;

function said(...readings: readonly Reading[]): Float32Array {
  const logs = new Float32Array(BASS_NOTES * SHAPES).fill(Math.log(1e-6));
  for (const [bass, f, p] of readings) logs[at(bass, f)] = Math.log(p);
  return logs;
}

const FIFTH_LIKELY = said([40, FIFTH, 0.62], [40, SINGLE, 0.375]);
const SINGLE_LIKELY = said([40, FIFTH, 0.4], [40, SINGLE, 0.55]);
const ELSEWHERE = said([45, FIFTH, 0.95]);
/** How much more a fifth is believed than a single note. */
const oddsOfFifth = (logs: Float32Array): number => logs[at(40, FIFTH)] - logs[at(40, SINGLE)];

describe('strums that sound alike', () => {
  const strums = [FIFTH_LIKELY, FIFTH_LIKELY, SINGLE_LIKELY, FIFTH_LIKELY, ELSEWHERE];
  const near = strums.map((_, k) => k / 2);

  it('decide together what is doubtful in one of them', () => {
    expect(oddsOfFifth(strums[2])).toBeLessThan(0);
    expect(oddsOfFifth(poolSoundingAlike(strums, strums, near)[2])).toBeGreaterThan(0);
  });

  it('do not talk a full chord into the power chord on its root', () => {
    const major = said([40, MAJOR, 0.7], [40, WITH_OCTAVE, 0.25]);
    const power = said([40, MAJOR, 0.05], [40, WITH_OCTAVE, 0.9]);
    const all = [power, power, power, power, major, power, power, power, power];
    const pooled = poolSoundingAlike(
      all,
      all,
      all.map((_, k) => k / 2),
    );
    expect(Array.from(pooled[4])).toEqual(Array.from(major));
    // One that is in doubt itself is still decided by its like.
    const doubtful = said([40, MAJOR, 0.45], [40, WITH_OCTAVE, 0.46]);
    const among = [...all.slice(0, 4), doubtful, ...all.slice(5)];
    const [before, after] = [
      doubtful,
      poolSoundingAlike(
        among,
        among,
        among.map((_, k) => k / 2),
      )[4],
    ].map((logs) => logs[at(40, MAJOR)] - logs[at(40, WITH_OCTAVE)]);
    expect(before).toBeCloseTo(0, 1);
    expect(after).toBeLessThan(-1);
  });

  it('take a full chord for what all its passes say, not for what it sounds like once', () => {
    const power = said([40, MAJOR, 0.05], [40, WITH_OCTAVE, 0.9]);
    const [clear, doubtful] = [
      said([40, MAJOR, 0.8], [40, WITH_OCTAVE, 0.15]),
      said([40, MAJOR, 0.46], [40, WITH_OCTAVE, 0.49]),
    ];
    const alone = [power, power, doubtful, power, clear, power, clear];
    const passes = poolPasses(alone, [[0], [1], [2, 4, 6], [3], [4, 2, 6], [5], [6, 2, 4]]);
    const pooled = poolSoundingAlike(
      passes,
      alone,
      alone.map((_, k) => k / 2),
    );
    const oddsOfMajor = (logs: Float32Array): number => logs[at(40, MAJOR)] - logs[at(40, WITH_OCTAVE)];
    expect(oddsOfMajor(pooled[2])).toBeGreaterThan(oddsOfMajor(passes[2]));
  });

  it('leave alone what sounds otherwise, and what is far away', () => {
    expect(Array.from(poolSoundingAlike(strums, strums, near)[4])).toEqual(Array.from(ELSEWHERE));
    const far = strums.map((_, k) => 40 * k);
    expect(Array.from(poolSoundingAlike(strums, strums, far)[2])).toEqual(Array.from(SINGLE_LIKELY));
  });

  it('do not ask each other on how many strings a power chord is played', () => {
    const two = said([40, FIFTH, 0.6], [40, WITH_OCTAVE, 0.3]);
    const three = said([40, FIFTH, 0.3], [40, WITH_OCTAVE, 0.6]);
    const pooled = poolSoundingAlike([two, three, three], [two, three, three], [0, 1, 2]);
    const octave = pooled[0][at(40, WITH_OCTAVE)] - pooled[0][at(40, FIFTH)];
    expect(octave).toBeCloseTo(Math.log(0.5), 4);
  });

  it('grow in evidence as the root of their number', () => {
    const many = Array<Float32Array>(16).fill(FIFTH_LIKELY);
    const [first] = poolPasses(many, [many.map((_, k) => k), ...many.slice(1).map((_, k) => [k + 1])]);
    expect(oddsOfFifth(first) / oddsOfFifth(FIFTH_LIKELY)).toBeCloseTo(4, 1);
  });
});
