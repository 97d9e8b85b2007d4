/**
 * Amplifiers drawn at random, from clean to a fuzz that does not decay: tightening, one to three clipping stages of
 * several curves, a loudspeaker from muffled to fizzy. Clipping runs at twice the rate.
 */
import { applyBiquad, highPass, lowPass, peaking, type Biquad } from '@wild-needle/core/dsp';
import type { Chance } from './chance';
import { SAMPLE_RATE } from './rates';

const CURVES = ['valve', 'cubic', 'unsymmetric', 'hard'] as const;
type Curve = (typeof CURVES)[number];

/** One function, not one per curve: asked for each sample of each stage, it has to be inlined. */
function clipped(curve: Curve, x: number): number {
  switch (curve) {
    case 'valve':
      return Math.tanh(x);
    case 'cubic':
      return x > 1 ? 2 / 3 : x < -1 ? -2 / 3 : x - (x * x * x) / 3;
    case 'unsymmetric':
      return x > 0 ? 1 - Math.exp(-x) : -0.8 * (1 - Math.exp(1.3 * x));
    case 'hard':
      return Math.max(-1, Math.min(0.9, x));
  }
}

const OVERSAMPLED = 2 * SAMPLE_RATE;

interface Stage {
  readonly gain: number;
  readonly bias: number;
  readonly curve: Curve;
  readonly after: readonly Biquad[];
}

export interface Amplifier {
  readonly before: readonly Biquad[];
  readonly stages: readonly Stage[];
  readonly cabinet: readonly Biquad[];
  readonly hiss: number;
}

export function drawAmplifier(chance: Chance): Amplifier {
  const count = chance.weighted([
    [1, 5],
    [2, 5],
    [3, 2],
  ]);
  // In comes a signal of about 0.1 RMS: 3 is on the edge of breaking up, 150 is fuzz, 600 no longer decays at all.
  const total = chance.yes(0.5) ? chance.logUniform(0.6, 30) : chance.logUniform(15, 600);
  const stages = Array.from({ length: count }, (_, i): Stage => ({
    gain: total ** (1 / count) * (i === 0 && count > 1 ? 2 : 1),
    bias: chance.uniform(0, 0.35),
    curve: chance.pick(CURVES),
    after: [
      highPass(chance.uniform(20, 80), OVERSAMPLED),
      lowPass(chance.logUniform(2800, 11000), OVERSAMPLED),
    ],
  }));
  const top = chance.logUniform(3600, 10500);
  return {
    before: [
      highPass(chance.logUniform(40, 160), SAMPLE_RATE),
      peaking(chance.logUniform(400, 1300), SAMPLE_RATE, 0.7, chance.uniform(0, 9)),
    ],
    stages,
    cabinet: [
      highPass(chance.uniform(60, 115), SAMPLE_RATE),
      peaking(chance.uniform(90, 140), SAMPLE_RATE, 1.1, chance.uniform(-2, 6)),
      peaking(chance.uniform(300, 700), SAMPLE_RATE, 0.8, chance.uniform(-8, 2)),
      peaking(chance.uniform(1500, 3500), SAMPLE_RATE, 1.2, chance.uniform(0, 8)),
      lowPass(top, SAMPLE_RATE),
      ...(chance.yes(0.6) ? [lowPass(top * 1.15, SAMPLE_RATE)] : []),
    ],
    hiss: chance.logUniform(1e-6, 1e-4),
  };
}

export function drive(samples: Float32Array, amplifier: Amplifier, chance: Chance): Float32Array {
  const noisy = samples.slice();
  for (let n = 0; n < noisy.length; n++) noisy[n] += amplifier.hiss * (2 * chance.random() - 1);
  const tight = applyBiquad(noisy, ...amplifier.before);
  const edge = lowPass(SAMPLE_RATE * 0.42, OVERSAMPLED);
  let up: Float32Array = new Float32Array(tight.length * 2);
  for (let n = 0; n < tight.length; n++) up[2 * n] = 2 * tight[n];
  up = applyBiquad(up, edge);
  for (const { gain, bias, curve, after } of amplifier.stages) {
    const rest = clipped(curve, bias);
    for (let n = 0; n < up.length; n++) up[n] = clipped(curve, gain * up[n] + bias) - rest;
    up = applyBiquad(up, ...after);
  }
  up = applyBiquad(up, edge);
  const down = new Float32Array(samples.length);
  for (let n = 0; n < down.length; n++) down[n] = up[2 * n];
  return applyBiquad(down, ...amplifier.cabinet);
}
