/**
 * `tsx training/train-chords.ts`: trains the network that names the notes of a strum on the generated songs, prints
 * its scores on songs it has not seen, and writes `core/src/mir/weights/chords.json`.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  CHORD_FORMS,
  CHORD_INPUTS,
  createChordSpectrum,
  FORMS,
  HIGHEST_BASS,
  LOWEST_BASS,
  PRESENCES,
  SPECTRUM_SIZE,
  splitStereo,
  writeChordInput,
} from '@wild-needle/core/mir';
import { createRandom, gaussian } from '@wild-needle/core/units';
import { maskRectified, shuffled, TrainableLayer } from './nets/dense';
import { FIRST_TRAINING_SEED, isForSounds, readSong, seedsOnDisk } from './songs';

const HIDDEN = 64;
const BATCH = 16;
/** With the dropout below; eleven without it heard unseen songs worse than four. */
const EPOCHS = 7;
const RATE = 1.5e-3;
const DECAY = 3e-3;
/** Share of hidden units left out in each step (Srivastava et al. 2014), so that none relies on one amplifier. */
const DROPOUT = 0.2;
const BASS_NOTES = HIGHEST_BASS - LOWEST_BASS + 1;
/** Other lowest notes that a strum is compared with in a step: those that are mistaken most, and some by chance. */
const RELATED = [-12, -7, -5, 5, 7, 12];
const BY_CHANCE = 5;
const PLACES = 1 + RELATED.length + BY_CHANCE;
/** Presence of single notes counts this much against the form. */
const PRESENCE_WEIGHT = 0.15;
/** Strums are found this exactly, and the pitch of the recording, when the network is used. */
const ONSET_SCATTER_S = 0.008;
const OFFSET_SCATTER_CENTS = 4;
const AFTER_ONSET_S = 0.012;
const BEFORE_NEXT_S = 0.005;

const OTHER = CHORD_FORMS.findIndex((form) => form.notes === null);

interface Examples {
  readonly count: number;
  readonly mid: Float32Array;
  readonly side: Float32Array;
  readonly hasSide: Uint8Array;
  readonly bass: Uint8Array;
  readonly form: Uint8Array;
  /** PRESENCES flags each. */
  readonly presence: Uint8Array;
}

function formOf(midi: readonly number[]): number {
  const above = midi.map((m) => m - midi[0]).join();
  const found = CHORD_FORMS.findIndex((form) => form.notes?.join() === above);
  return found < 0 ? OTHER : found;
}

const random = createRandom(9);

function collect(seeds: readonly number[]): Examples {
  const mids: Float32Array[] = [];
  const sides: Float32Array[] = [];
  const hasSide: number[] = [];
  const basses: number[] = [];
  const forms: number[] = [];
  const presence: number[] = [];
  for (const seed of seeds) {
    const { signal, truth } = readSong(seed);
    const { mid, side } = splitStereo(signal);
    const extract = createChordSpectrum(signal.sampleRate);
    truth.strums.forEach((strum, k) => {
      if (strum.dead || strum.midi[0] > HIGHEST_BASS || strum.midi[0] < LOWEST_BASS) return;
      const timeS = strum.timeS + ONSET_SCATTER_S * gaussian(random);
      const untilS = Math.min(truth.strums[k + 1]?.timeS ?? Infinity, strum.endS);
      const from = Math.round((timeS + AFTER_ONSET_S) * signal.sampleRate);
      const to = Math.max(from + 1000, Math.round((untilS - BEFORE_NEXT_S) * signal.sampleRate));
      const cents = truth.offsetCents + OFFSET_SCATTER_CENTS * gaussian(random);
      const spectra = [mid, side].map((samples) => {
        const spectrum = new Float32Array(SPECTRUM_SIZE);
        if (samples) extract(samples, from, to, cents, spectrum);
        return spectrum;
      });
      mids.push(spectra[0]);
      sides.push(spectra[1]);
      hasSide.push(side ? 1 : 0);
      basses.push(strum.midi[0]);
      forms.push(formOf(strum.midi));
      for (let i = 0; i < PRESENCES; i++) presence.push(strum.midi.includes(strum.midi[0] + i) ? 1 : 0);
    });
  }
  const join = (parts: readonly Float32Array[]): Float32Array => {
    const all = new Float32Array(parts.length * SPECTRUM_SIZE);
    parts.forEach((part, i) => all.set(part, i * SPECTRUM_SIZE));
    return all;
  };
  return {
    count: basses.length,
    mid: join(mids),
    side: join(sides),
    hasSide: Uint8Array.from(hasSide),
    bass: Uint8Array.from(basses),
    form: Uint8Array.from(forms),
    presence: Uint8Array.from(presence),
  };
}

const hiddenLayer = new TrainableLayer(CHORD_INPUTS, HIDDEN, random);
const formLayer = new TrainableLayer(HIDDEN, FORMS, random);
const presenceLayer = new TrainableLayer(HIDDEN, PRESENCES, random);

function spectrumOf(all: Float32Array, index: number): Float32Array {
  return all.subarray(index * SPECTRUM_SIZE, (index + 1) * SPECTRUM_SIZE);
}

function writeRow(e: Examples, index: number, bass: number, input: Float32Array, row: number): void {
  const side = e.hasSide[index] ? spectrumOf(e.side, index) : null;
  const out = input.subarray(row * CHORD_INPUTS, (row + 1) * CHORD_INPUTS);
  writeChordInput(spectrumOf(e.mid, index), side, bass, out);
}

function softmaxRow(values: Float32Array): void {
  const top = values.reduce((m, v) => Math.max(m, v), -Infinity);
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] = Math.exp(values[i] - top);
  for (let i = 0; i < values.length; i++) values[i] /= sum;
}

function score(name: string, e: Examples): void {
  const input = new Float32Array(BASS_NOTES * CHORD_INPUTS);
  const h = new Float32Array(BASS_NOTES * HIDDEN);
  const logits = new Float32Array(BASS_NOTES * FORMS);
  const right = { bass: 0, root: 0, form: 0 };
  const byForm = CHORD_FORMS.map(() => [0, 0]);
  const step = Math.max(1, Math.floor(e.count / 3000));
  let tried = 0;
  for (let i = 0; i < e.count; i += step, tried++) {
    for (let b = 0; b < BASS_NOTES; b++) writeRow(e, i, LOWEST_BASS + b, input, b);
    hiddenLayer.forward(input, BASS_NOTES, h, true);
    formLayer.forward(h, BASS_NOTES, logits, false);
    let best = 0;
    for (let c = 1; c < logits.length; c++) if (logits[c] > logits[best]) best = c;
    const bass = LOWEST_BASS + Math.floor(best / FORMS);
    const form = best % FORMS;
    const root = (b: number, f: number): number => (b + CHORD_FORMS[f].rootAbove) % 12;
    if (bass === e.bass[i]) right.bass++;
    if (root(bass, form) === root(e.bass[i], e.form[i])) right.root++;
    const isRight = bass === e.bass[i] && form === e.form[i];
    if (isRight) right.form++;
    byForm[e.form[i]][0]++;
    if (isRight) byForm[e.form[i]][1]++;
  }
  const share = (n: number): string => (n / tried).toFixed(3);
  process.stdout.write(
    `${name}: root ${share(right.root)} bass ${share(right.bass)} notes ${share(right.form)} of ${tried}\n  ` +
      byForm.map(([n, ok], f) => `${CHORD_FORMS[f].notes?.join('.') ?? 'other'} ${ok}/${n}`).join('  ') +
      '\n',
  );
}

const seeds = seedsOnDisk();
const training = collect(seeds.filter(isForSounds));
const validation = collect(seeds.filter((s) => s < FIRST_TRAINING_SEED));
process.stdout.write(`${training.count} strums to learn from, ${validation.count} to try on\n`);

const rows = BATCH * PLACES;
const input = new Float32Array(rows * CHORD_INPUTS);
const h = new Float32Array(rows * HIDDEN);
const logits = new Float32Array(rows * FORMS);
const dh = new Float32Array(rows * HIDDEN);
const trueH = new Float32Array(BATCH * HIDDEN);
const trueDh = new Float32Array(BATCH * HIDDEN);
const present = new Float32Array(BATCH * PRESENCES);
for (let epoch = 0; epoch < EPOCHS; epoch++) {
  const order = shuffled(training.count, random);
  const rate = RATE * 0.5 * (1 + Math.cos((Math.PI * epoch) / EPOCHS));
  let loss = 0;
  for (let from = 0; from + BATCH <= training.count; from += BATCH) {
    for (let s = 0; s < BATCH; s++) {
      const index = order[from + s];
      const bass = training.bass[index];
      const places = [bass, ...RELATED.map((r) => bass + r)];
      while (places.length < PLACES) places.push(LOWEST_BASS + Math.floor(random() * BASS_NOTES));
      places.forEach((place, p) => {
        // Outside of the range, or twice the same: another by chance instead.
        const isUsable = (b: number): boolean =>
          b >= LOWEST_BASS && b <= HIGHEST_BASS && (p === 0 || b !== bass);
        let note = place;
        while (!isUsable(note)) note = LOWEST_BASS + Math.floor(random() * BASS_NOTES);
        writeRow(training, index, note, input, s * PLACES + p);
      });
    }
    hiddenLayer.forward(input, rows, h, true);
    for (let i = 0; i < h.length; i++) h[i] = random() < DROPOUT ? 0 : h[i] / (1 - DROPOUT);
    formLayer.forward(h, rows, logits, false);
    for (let s = 0; s < BATCH; s++) {
      const index = order[from + s];
      const all = logits.subarray(s * PLACES * FORMS, (s + 1) * PLACES * FORMS);
      softmaxRow(all);
      loss -= Math.log(all[training.form[index]] + 1e-9);
      all[training.form[index]] -= 1;
      trueH.set(h.subarray(s * PLACES * HIDDEN, s * PLACES * HIDDEN + HIDDEN), s * HIDDEN);
    }
    presenceLayer.forward(trueH, BATCH, present, false);
    for (let s = 0; s < BATCH; s++) {
      for (let k = 0; k < PRESENCES; k++) {
        const i = s * PRESENCES + k;
        const p = 1 / (1 + Math.exp(-present[i]));
        present[i] = (PRESENCE_WEIGHT * (p - training.presence[order[from + s] * PRESENCES + k])) / BATCH;
      }
    }
    for (let i = 0; i < logits.length; i++) logits[i] /= BATCH;
    formLayer.backward(h, rows, logits, dh);
    presenceLayer.backward(trueH, BATCH, present, trueDh);
    for (let s = 0; s < BATCH; s++) {
      for (let k = 0; k < HIDDEN; k++) dh[s * PLACES * HIDDEN + k] += trueDh[s * HIDDEN + k];
    }
    maskRectified(dh, h, h.length);
    for (let i = 0; i < dh.length; i++) dh[i] /= 1 - DROPOUT;
    hiddenLayer.backward(input, rows, dh, null);
    hiddenLayer.step(rate, DECAY);
    formLayer.step(rate, DECAY);
    presenceLayer.step(rate, DECAY);
  }
  process.stdout.write(`epoch ${epoch + 1}, loss ${(loss / training.count).toFixed(4)}\n`);
  if (epoch % 4 === 3 || epoch === EPOCHS - 1) score('unseen songs', validation);
}
const folder = join(import.meta.dirname, '../core/src/mir/weights');
mkdirSync(folder, { recursive: true });
writeFileSync(
  join(folder, 'chords.json'),
  `${JSON.stringify({
    hidden: hiddenLayer.quantise(),
    forms: formLayer.quantise(),
    presence: presenceLayer.quantise(),
  })}\n`,
);
