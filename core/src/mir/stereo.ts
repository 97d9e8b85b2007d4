/**
 * Middle and sides of a recording. Guitars are often recorded twice, left and right, with bass, singer and the loud
 * drums in the middle: where the sides hold enough sound they are heard on their own.
 */
import type { MidSide, StereoSignal } from './types';

/** Share of the energy in the sides from which on guitars may be assumed there. */
const WIDE_SHARE = 0.02;

function mix(a: Float32Array, b: Float32Array, sign: 1 | -1): Float32Array {
  const mixed = new Float32Array(a.length);
  for (let i = 0; i < mixed.length; i++) mixed[i] = 0.5 * (a[i] + sign * b[i]);
  return mixed;
}

function energy(samples: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < samples.length; i++) sum += samples[i] * samples[i];
  return sum;
}

export function splitStereo({ channels }: StereoSignal): MidSide {
  const [left, right] = channels;
  if (!right) return { mid: left, side: null };
  const mid = mix(left, right, 1);
  const side = mix(left, right, -1);
  // One channel turned over, or silent: everything is in the sides, and nothing is lost by hearing them as the middle.
  if (energy(mid) < WIDE_SHARE * energy(side)) return { mid: side, side: null };
  return { mid, side: energy(side) > WIDE_SHARE * energy(mid) ? side : null };
}
