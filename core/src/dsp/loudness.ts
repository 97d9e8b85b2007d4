/**
 * Integrated loudness, ITU-R BS.1770-4 (2015) annex 1 as EBU R 128 asks for it: K-weighting, mean square of 400 ms blocks
 * that overlap by three quarters, an absolute gate at -70 LUFS and a relative one 10 LU under what passes it.
 */
import { applyBiquad, type Biquad } from './biquad';

/**
 * The analogue filters that BS.1770 states as coefficients for 48 kHz, so that other rates get the same curve (found by
 * De Man 2018, "Evaluation of implementations of the EBU R128 loudness measurement", AES 145, table 1).
 */
const SHELF = { hz: 1681.9744509555319, gainDb: 3.99984385397, q: 0.7071752369554193 };
const CUT = { hz: 38.13547087613982, q: 0.5003270373253953 };
/** How the gain of the shelf divides between its middle and its top. */
const SHELF_BEND = 0.499666774155;

const BLOCK_S = 0.4;
const STEP_S = 0.1;
const ABSOLUTE_GATE_LUFS = -70;
const RELATIVE_GATE_LU = -10;
/** Makes a 997 Hz sine of full scale in one channel read -3.01 LUFS. */
const OFFSET_LU = -0.691;

/** The two stages of K-weighting, in order. */
export function kWeighting(sampleRate: number): readonly [Biquad, Biquad] {
  const k = Math.tan((Math.PI * SHELF.hz) / sampleRate);
  const top = 10 ** (SHELF.gainDb / 20);
  const middle = top ** SHELF_BEND;
  const a0 = 1 + k / SHELF.q + k * k;
  const shelf = {
    b0: (top + (middle * k) / SHELF.q + k * k) / a0,
    b1: (2 * (k * k - top)) / a0,
    b2: (top - (middle * k) / SHELF.q + k * k) / a0,
    a1: (2 * (k * k - 1)) / a0,
    a2: (1 - k / SHELF.q + k * k) / a0,
  };
  const c = Math.tan((Math.PI * CUT.hz) / sampleRate);
  const c0 = 1 + c / CUT.q + c * c;
  const cut = { b0: 1, b1: -2, b2: 1, a1: (2 * (c * c - 1)) / c0, a2: (1 - c / CUT.q + c * c) / c0 };
  return [shelf, cut];
}

const lufs = (power: number): number => OFFSET_LU + 10 * Math.log10(power);

/** LUFS of one or two channels together; null when nothing passes the absolute gate. */
export function integratedLoudness(channels: readonly Float32Array[], sampleRate: number): number | null {
  const step = Math.round(STEP_S * sampleRate);
  const perBlock = Math.round(BLOCK_S / STEP_S);
  const steps = Math.floor(channels[0].length / step);
  const squares = new Float64Array(steps);
  for (const channel of channels) {
    const weighted = applyBiquad(channel, ...kWeighting(sampleRate));
    for (let s = 0; s < steps; s++) {
      for (let n = s * step; n < (s + 1) * step; n++) squares[s] += (weighted[n] * weighted[n]) / step;
    }
  }
  const blocks: number[] = [];
  for (let s = 0; s + perBlock <= steps; s++) {
    blocks.push(squares.subarray(s, s + perBlock).reduce((sum, v) => sum + v, 0) / perBlock);
  }
  const meanOver = (gate: number): number | null => {
    const passing = blocks.filter((power) => power > 0 && lufs(power) > gate);
    return passing.length > 0 ? passing.reduce((sum, v) => sum + v, 0) / passing.length : null;
  };
  const rough = meanOver(ABSOLUTE_GATE_LUFS);
  if (rough === null) return null;
  const fine = meanOver(Math.max(ABSOLUTE_GATE_LUFS, lufs(rough) + RELATIVE_GATE_LU));
  return fine === null ? null : lufs(fine);
}
