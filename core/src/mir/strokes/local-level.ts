/**
 * How loud the loud parts around each instant are: what a level is measured against, so that a quiet passage is heard as
 * well as a loud one. Quantiles of blocks of one second, and of those a quantile over the neighbourhood.
 */
import { quantile } from '../../dsp';

/** Neighbourhood to each side, s: a passage with a sound of its own is seldom shorter. */
const REACH_S = 8;
/** Loud parts of a block, and loud blocks of the neighbourhood. */
const LOUD_IN_BLOCK = 0.9;
const LOUD_AMONG_BLOCKS = 0.8;

/** For each second the loud level of `curve` around it; never under `floor`, so that silence stays silent. */
export function localLevel(curve: Float32Array, frameRate: number, floor: number): Float32Array {
  const perBlock = Math.max(1, Math.round(frameRate));
  const blocks = Math.max(1, Math.ceil(curve.length / perBlock));
  const loud = Float32Array.from(
    { length: blocks },
    (_, b) => quantile(curve.subarray(b * perBlock, (b + 1) * perBlock), LOUD_IN_BLOCK) ?? floor,
  );
  return loud.map((_, b) => {
    const around = loud.subarray(Math.max(0, b - REACH_S), b + REACH_S + 1);
    return Math.max(floor, quantile(around, LOUD_AMONG_BLOCKS) ?? floor);
  });
}

/** Value of a per-second curve at an instant. */
export function atSecond(perSecond: Float32Array, timeS: number): number {
  return perSecond[Math.max(0, Math.min(perSecond.length - 1, Math.floor(timeS)))];
}
