/**
 * Instants at which strings are struck: peaks of the onset strength of the chord region, placed to about
 * 5 ms by the steepest rise of the short-time energy around them.
 */
import { pickPeaks, quantile } from '../dsp';
import type { OnsetStrength } from './onset-strength';

/** A strum is at most this early or late against its flux peak. */
const REFINE_S = 0.03;
const BLOCK_S = 0.0025;
/** Two strums of one guitar are never closer: sixteenths at 240 bpm are 62 ms apart. */
const MIN_DISTANCE_S = 0.05;
/** Height above the local mean, as a share of a strong attack of this recording: low, the network decides. */
const RELATIVE_DELTA = 0.02;

/** Log energy of the differentiated signal in blocks of {@link BLOCK_S}; differences stress the pick. */
function blockEnergies(samples: Float32Array, from: number, to: number, block: number): Float32Array {
  const count = Math.max(0, Math.floor((to - from) / block));
  const energies = new Float32Array(count);
  for (let k = 0; k < count; k++) {
    let sum = 1e-9;
    for (let i = from + k * block; i < from + (k + 1) * block; i++) {
      const d = (samples[i] ?? 0) - (samples[i - 1] ?? 0);
      sum += d * d;
    }
    energies[k] = Math.log(sum);
  }
  return energies;
}

function refine(samples: Float32Array, sampleRate: number, timeS: number): number {
  const block = Math.round(BLOCK_S * sampleRate);
  const from = Math.max(0, Math.round((timeS - REFINE_S) * sampleRate));
  const energies = blockEnergies(samples, from, Math.round((timeS + REFINE_S) * sampleRate), block);
  let best = 0;
  let bestBlock = -1;
  for (let k = 3; k + 3 <= energies.length; k++) {
    const after = energies[k] + energies[k + 1] + energies[k + 2];
    const before = energies[k - 1] + energies[k - 2] + energies[k - 3];
    if (after - before > best) [best, bestBlock] = [after - before, k];
  }
  return bestBlock < 0 ? timeS : (from + bestBlock * block) / sampleRate;
}

/**
 * Instants that may be strokes, in seconds, ascending: nearly all strokes are among them, and many drums.
 * `strength` may be the sum of several signals' curves; instants are placed by `samples`.
 */
export function findOnsetCandidates(
  samples: Float32Array,
  sampleRate: number,
  { frameRate, curves }: OnsetStrength,
): number[] {
  const curve = new Float32Array(curves.body.length);
  for (let n = 0; n < curve.length; n++) curve[n] = curves.body[n] + 0.5 * curves.edge[n];
  const strong = quantile(curve, 0.98) ?? 0;
  if (strong <= 0.02) return [];
  const peaks = pickPeaks(curve, {
    maxRadius: Math.round(MIN_DISTANCE_S * 0.6 * frameRate),
    meanRadius: Math.round(0.12 * frameRate),
    delta: RELATIVE_DELTA * strong,
  });
  const onsets: number[] = [];
  for (const peak of peaks) {
    const timeS = refine(samples, sampleRate, peak / frameRate);
    if (timeS - (onsets.at(-1) ?? -1) >= MIN_DISTANCE_S) onsets.push(timeS);
  }
  return onsets;
}
