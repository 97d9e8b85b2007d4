/** The log-linear model among what ranks readings of the meter, fitted to songs whose tempi and drums are drawn at random. */
import { METER_FEATURES } from '@wild-needle/core/mir';
import { hasRight, type SongReadings } from './meter-readings';

const EPOCHS = 400;
const RATE = 0.05;
const DECAY = 2e-3;

function probabilities({ readings }: SongReadings, weights: Float64Array): Float64Array {
  const scores = Float64Array.from(readings, ({ features }) =>
    features.reduce((s, v, i) => s + v * weights[i], 0),
  );
  const top = scores.reduce((m, v) => Math.max(m, v), -Infinity);
  const p = scores.map((s) => Math.exp(s - top));
  const sum = p.reduce((s, v) => s + v, 0);
  return p.map((v) => v / sum);
}

/** One weight for each of the METER_FEATURES. */
export function fitLogLinear(songs: readonly SongReadings[]): number[] {
  const usable = songs.filter(hasRight);
  const weights = new Float64Array(METER_FEATURES);
  const mean = new Float64Array(METER_FEATURES);
  const square = new Float64Array(METER_FEATURES);
  for (let epoch = 1; epoch <= EPOCHS; epoch++) {
    const gradient = new Float64Array(METER_FEATURES);
    for (const song of usable) {
      const p = probabilities(song, weights);
      const rightMass = p.reduce((s, v, i) => s + (song.isRight[i] ? v : 0), 1e-12);
      p.forEach((v, i) => {
        const pull = (song.isRight[i] ? v / rightMass : 0) - v;
        if (pull !== 0)
          song.readings[i].features.forEach((f, k) => (gradient[k] += (pull * f) / usable.length));
      });
    }
    for (let k = 0; k < METER_FEATURES; k++) {
      const g = gradient[k] - DECAY * weights[k];
      mean[k] = 0.9 * mean[k] + 0.1 * g;
      square[k] = 0.99 * square[k] + 0.01 * g * g;
      weights[k] += (RATE * mean[k]) / (Math.sqrt(square[k]) + 1e-6);
    }
  }
  return Array.from(weights, (w) => Number(w.toFixed(4)));
}
