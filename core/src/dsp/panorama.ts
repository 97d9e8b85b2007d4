/** Where in the stereo picture energy lies at one moment: what the pan window is placed by. */
import { panPlace } from './pan';
import { spectrumAnalyserOf } from './spectrum';

/** Places from -1 (left) to 1 (right) that energy is counted at. */
export const PANORAMA_PLACES = 41;

const SIZE = 4096;
/** Hz: kick and bass stand in the middle nearly always and would hide the rest. */
const FROM_HZ = 110;
const TO_HZ = 7000;
/** Power of what counts as silence: 120 dB under a full-scale sine. */
const SILENCE = 1e-12;

/**
 * Share of the energy at each place, adding up to 1, or all 0 in silence, of the {@link SIZE} samples around `centre`.
 * Every bin counts where its levels left and right put it (Avendano 2003, see `isolate.ts`).
 */
export function panorama(
  channels: readonly Float32Array[],
  sampleRate: number,
  centre: number,
): Float32Array {
  const analyser = spectrumAnalyserOf(SIZE);
  const [left, right] = channels.map((samples) => {
    const magnitudes = new Float32Array(analyser.bins);
    analyser.magnitudes(samples, centre - SIZE / 2, magnitudes);
    return magnitudes;
  });
  const shares = new Float32Array(PANORAMA_PLACES);
  const binHz = sampleRate / SIZE;
  let sum = 0;
  for (let k = Math.round(FROM_HZ / binHz); k <= Math.min(SIZE / 2 - 1, TO_HZ / binHz); k++) {
    const leftPower = left[k] ** 2;
    const rightPower = right[k] ** 2;
    const place = panPlace(leftPower, rightPower);
    if (place === null) continue;
    shares[Math.round(((place + 1) / 2) * (PANORAMA_PLACES - 1))] += leftPower + rightPower;
    sum += leftPower + rightPower;
  }
  return sum > SILENCE ? shares.map((v) => v / sum) : new Float32Array(PANORAMA_PLACES);
}
