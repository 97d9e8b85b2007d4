/**
 * Triangular filters on a logarithmic frequency axis: turns FFT bins into bands of equal musical width.
 * After Böck and Widmer, "Maximum filter vibrato suppression for onset detection" (DAFx 2013), section 2.
 */
export interface LogFilterbank {
  readonly bands: number;
  /** Centre frequency of each band, Hz. */
  readonly centresHz: readonly number[];
  /** Writes the band energies of `magnitudes` into `out` (`bands` long). */
  apply(magnitudes: Float32Array, out: Float32Array): void;
}

export interface LogFilterbankOptions {
  readonly minHz: number;
  readonly maxHz: number;
  readonly bandsPerOctave: number;
}

export function createLogFilterbank(
  fftSize: number,
  sampleRate: number,
  { minHz, maxHz, bandsPerOctave }: LogFilterbankOptions,
): LogFilterbank {
  const binHz = sampleRate / fftSize;
  const lastBin = fftSize / 2;
  const edges: number[] = [];
  for (let k = 0; ; k++) {
    const hz = minHz * 2 ** (k / bandsPerOctave);
    const bin = Math.round(hz / binHz);
    // Low bands narrower than a bin fall on the same bin: keep one.
    if (edges.at(-1) !== bin) edges.push(bin);
    if (hz >= maxHz || bin >= lastBin) break;
  }
  const bands = Math.max(0, edges.length - 2);
  const weights: { first: number; values: number[] }[] = [];
  for (let b = 0; b < bands; b++) {
    const [left, centre, right] = [edges[b], edges[b + 1], edges[b + 2]];
    const values: number[] = [];
    for (let k = left + 1; k < right; k++) {
      values.push(k <= centre ? (k - left) / (centre - left) : (right - k) / (right - centre));
    }
    weights.push({ first: left + 1, values });
  }
  return {
    bands,
    centresHz: edges.slice(1, -1).map((bin) => bin * binHz),
    apply(magnitudes, out) {
      for (let b = 0; b < bands; b++) {
        const { first, values } = weights[b];
        let sum = 0;
        for (let i = 0; i < values.length; i++) sum += values[i] * (magnitudes[first + i] ?? 0);
        out[b] = sum;
      }
    },
  };
}
