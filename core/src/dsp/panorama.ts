/** Where in the stereo picture energy lies at one moment: what the pan window is placed by. */
import FFT from 'fft.js';
import { panPlace } from './pan';
import { hannWindow } from './window';

/** Places from -1 (left) to 1 (right) that energy is counted at. */
export const PANORAMA_PLACES = 41;

const SIZE = 4096;
/** Hz: kick and bass stand in the middle nearly always and would hide the rest. */
const FROM_HZ = 110;
const TO_HZ = 7000;

/**
 * Share of the energy at each place, adding up to 1, or all 0 in silence, of the {@link SIZE} samples around `centre`.
 * Every bin counts where its levels left and right put it (Avendano 2003, see `isolate.ts`).
 */
export function panorama(
  channels: readonly Float32Array[],
  sampleRate: number,
  centre: number,
): Float32Array {
  const [left, right] = channels;
  const shares = new Float32Array(PANORAMA_PLACES);
  const fft = new FFT(SIZE);
  const window = hannWindow(SIZE);
  const input = fft.createComplexArray() as number[];
  const spectrum = fft.createComplexArray() as number[];
  for (let i = 0; i < SIZE; i++) {
    const at = centre - SIZE / 2 + i;
    input[2 * i] = (left[at] ?? 0) * window[i];
    input[2 * i + 1] = (right[at] ?? 0) * window[i];
  }
  fft.transform(spectrum, input);
  const binHz = sampleRate / SIZE;
  let sum = 0;
  for (let k = Math.round(FROM_HZ / binHz); k <= Math.min(SIZE / 2 - 1, TO_HZ / binHz); k++) {
    // Spectra of the two real signals out of the one complex transform.
    const a = spectrum[2 * k];
    const b = spectrum[2 * k + 1];
    const c = spectrum[2 * (SIZE - k)];
    const d = spectrum[2 * (SIZE - k) + 1];
    const leftPower = (a + c) ** 2 + (b - d) ** 2;
    const rightPower = (b + d) ** 2 + (c - a) ** 2;
    const place = panPlace(leftPower, rightPower);
    if (place === null) continue;
    shares[Math.round(((place + 1) / 2) * (PANORAMA_PLACES - 1))] += leftPower + rightPower;
    sum += leftPower + rightPower;
  }
  return sum > 1e-6 ? shares.map((v) => v / sum) : new Float32Array(PANORAMA_PLACES);
}
