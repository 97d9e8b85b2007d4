/**
 * `tsx training/train-meter.ts`: fits the weights by which readings of pulse, meter and the one are ranked, on the
 * generated songs; prints how often the first reading is right on songs not seen, and writes
 * `core/src/mir/meter/meter.json`.
 */
import {
  computeStrengths,
  enumerateMeters,
  gridOfMeter,
  METER_FEATURES,
  splitStereo,
  type MeterStrum,
} from '@wild-needle/core/mir';
import { createRandom } from '@wild-needle/core/units';
import type { Truth } from './material/song';
import { readSong, seedsOf, writeWeights } from './songs';

/** Strums are found with faults: this share is missed, has another root, or stands a little off. */
const MISSED = 0.06;
const MISNAMED = 0.06;
const EPOCHS = 400;
const RATE = 0.05;
const DECAY = 2e-3;
const NEAR_S = 0.07;

interface SongReadings {
  readonly features: readonly Float32Array[];
  readonly isRight: readonly boolean[];
}

function f1(found: readonly number[], truth: readonly number[]): number {
  let at = 0;
  let hits = 0;
  for (const t of truth) {
    while (at < found.length && found[at] < t - NEAR_S) at++;
    if (at < found.length && found[at] <= t + NEAR_S) {
      hits++;
      at++;
    }
  }
  return (2 * hits) / Math.max(1, found.length + truth.length);
}

const random = createRandom(3);

function strumsOf(truth: Truth): MeterStrum[] {
  return truth.strums
    .filter(() => random() > MISSED)
    .map((s) => ({
      timeS: s.timeS + 0.008 * (random() - 0.5),
      rootPc: s.rootPc !== null && random() < MISNAMED ? Math.floor(12 * random()) : s.rootPc,
      probability: 0.9,
    }));
}

function read(seed: number): SongReadings {
  const { signal, truth } = readSong(seed);
  const strength = computeStrengths(splitStereo(signal), signal.sampleRate).all;
  const durationS = signal.channels[0].length / signal.sampleRate;
  const readings = enumerateMeters(strength, strumsOf(truth), durationS);
  const [first, last] = [truth.barsS[0] - 0.3, truth.barsS[truth.barsS.length - 1] + 0.3];
  const isRight = readings.map((reading) => {
    const { downbeatsS, meter, tempoBpm } = gridOfMeter(reading);
    const inside = downbeatsS.filter((t) => t > first && t < last);
    const sameMeter = meter.beats === truth.meter.beats && meter.unit === truth.meter.unit;
    const bpm = truth.meter.unit === 8 && truth.meter.beats === 6 ? truth.bpm / 1.5 : truth.bpm;
    return sameMeter && Math.abs(tempoBpm / bpm - 1) < 0.06 && f1(inside, truth.barsS) > 0.9;
  });
  return { features: readings.map((r) => r.features), isRight };
}

const weights = new Float64Array(METER_FEATURES);

function probabilities({ features }: SongReadings): Float64Array {
  const scores = Float64Array.from(features, (f) => f.reduce((s, v, i) => s + v * weights[i], 0));
  const top = scores.reduce((m, v) => Math.max(m, v), -Infinity);
  const p = scores.map((s) => Math.exp(s - top));
  const sum = p.reduce((s, v) => s + v, 0);
  return p.map((v) => v / sum);
}

/** It is fitted on fewer songs than strokes and chords: its weights are few, and it reads each song in hundreds of ways. */
const PLAIN_SONGS = 300;
const ROUGH_SONGS = 150;

function firstRight(songs: readonly SongReadings[]): string {
  const right = songs.filter((song) => {
    const p = probabilities(song);
    return song.isRight[p.indexOf(p.reduce((m, v) => Math.max(m, v), 0))];
  }).length;
  const possible = songs.filter((song) => song.isRight.includes(true)).length;
  return `${right} of ${songs.length} right, ${possible} have a right reading`;
}

const validation = seedsOf('plain validation').map(read);
const roughValidation = seedsOf('rough validation').map(read);
const training = [...seedsOf('plain').slice(0, PLAIN_SONGS), ...seedsOf('rough').slice(0, ROUGH_SONGS)].map(
  read,
);
const usable = training.filter((song) => song.isRight.includes(true));
const mean = new Float64Array(METER_FEATURES);
const square = new Float64Array(METER_FEATURES);
for (let epoch = 1; epoch <= EPOCHS; epoch++) {
  const gradient = new Float64Array(METER_FEATURES);
  for (const song of usable) {
    const p = probabilities(song);
    const rightMass = p.reduce((s, v, i) => s + (song.isRight[i] ? v : 0), 1e-12);
    p.forEach((v, i) => {
      const pull = (song.isRight[i] ? v / rightMass : 0) - v;
      if (pull !== 0) song.features[i].forEach((f, k) => (gradient[k] += (pull * f) / usable.length));
    });
  }
  for (let k = 0; k < METER_FEATURES; k++) {
    const g = gradient[k] - DECAY * weights[k];
    mean[k] = 0.9 * mean[k] + 0.1 * g;
    square[k] = 0.99 * square[k] + 0.01 * g * g;
    weights[k] += (RATE * mean[k]) / (Math.sqrt(square[k]) + 1e-6);
  }
}
process.stdout.write(
  `training songs: ${firstRight(training)}\nunseen plain songs: ${firstRight(validation)}\n` +
    `unseen rough songs: ${firstRight(roughValidation)}\n`,
);
const rounded = Array.from(weights, (w) => Number(w.toFixed(4)));
writeWeights('meter', { weights: rounded });
process.stdout.write(`${rounded.join(' ')}\n`);
