/**
 * A whole recording of a written song: two guitar takes left and right, bass, drums. Deterministic with a seed;
 * used for demo songs and tests.
 */
import { createRandom, gaussian, type Random } from '../units';
import { applyBiquad, lowPass } from '../dsp';
import { midiToHz } from '../theory';
import { barTimesS, performDocument, type PlayedStrum, type SongDocument } from '../riff';
import { amplify } from './amplifier';
import { renderDrum, type DrumSound } from './drums';
import { addDeadStroke, addPluck } from './plucked-string';

export interface BandOptions {
  readonly sampleRate: number;
  readonly seed: number;
  /** Gain of the guitar amplifiers, see `amplifier.ts`. */
  readonly drive: number;
  readonly drums: boolean;
  readonly bass: boolean;
  /** Two takes hard left and right, or one in the centre. */
  readonly guitars: 1 | 2;
}

/** Hands are this exact, in seconds (standard deviation); studio takes lie at 5 to 10 ms. */
const TIMING_SCATTER_S = 0.005;
/** The pick takes this long from one string to the next. */
const STRING_SPREAD_S = 0.003;

interface GuitarOptions extends Pick<BandOptions, 'sampleRate' | 'drive'> {
  /** Standard deviation of the strokes around their time. */
  readonly scatterS: number;
}

/** One guitar take after its amplifier. */
export function renderGuitar(
  strums: readonly PlayedStrum[],
  a4Hz: number,
  length: number,
  { sampleRate, drive, scatterS }: GuitarOptions,
  randomOf: (strum: PlayedStrum) => Random,
): Float32Array {
  const strings = new Float32Array(length);
  for (const strum of strums) {
    const { timeS, notes, palmMute, dead, level } = strum;
    const random = randomOf(strum);
    const struckS = Math.max(0, timeS + scatterS * gaussian(random));
    const start = Math.round(struckS * sampleRate);
    if (dead) {
      addDeadStroke(strings, start, sampleRate, 0.8 * level, random);
      continue;
    }
    notes.forEach(({ midi, endS, moves }, i) => {
      const stringStart = start + Math.round(i * STRING_SPREAD_S * sampleRate);
      if (stringStart >= length) return;
      addPluck(
        strings,
        stringStart,
        sampleRate,
        // The hand chokes the strings just before the next stroke.
        {
          freqHz: midiToHz(midi, a4Hz),
          durationS: Math.max(0.04, endS - timeS - 0.012),
          level: 0.35 * level,
          palmMute,
          moves,
        },
        random,
      );
    });
  }
  return amplify(strings, sampleRate, { drive });
}

function renderBass(
  strums: readonly PlayedStrum[],
  a4Hz: number,
  length: number,
  sampleRate: number,
  random: Random,
): Float32Array {
  const out = new Float32Array(length);
  for (const { timeS, endS, notes, dead } of strums) {
    if (dead || notes.length === 0) continue;
    let low = Math.min(...notes.map((n) => n.midi)) - 12;
    while (low < 28) low += 12;
    addPluck(
      out,
      Math.round(timeS * sampleRate),
      sampleRate,
      { freqHz: midiToHz(low, a4Hz), durationS: endS - timeS, level: 0.8, palmMute: false },
      random,
    );
  }
  return applyBiquad(out, lowPass(500, sampleRate), lowPass(900, sampleRate));
}

/** Kick on one and three, snare on two and four, hats in eighths, a crash where a section begins. */
function renderDrums(
  document: SongDocument,
  length: number,
  sampleRate: number,
  random: Random,
): Float32Array {
  const out = new Float32Array(length);
  const hits = new Map<DrumSound, Float32Array>();
  const hit = (sound: DrumSound, timeS: number, level: number): void => {
    let samples = hits.get(sound);
    if (!samples) hits.set(sound, (samples = renderDrum(sound, sampleRate, random)));
    const start = Math.round((timeS + 0.003 * gaussian(random)) * sampleRate);
    for (let n = 0; n < samples.length; n++) {
      if (start + n >= 0 && start + n < length) out[start + n] += level * samples[n];
    }
  };
  const starts = barTimesS(document.grid);
  const sectionBars = new Set(document.sections.map((s) => s.startBar));
  document.grid.bars.forEach(({ beats }, b) => {
    const beatS = (starts[b + 1] - starts[b]) / beats;
    if (sectionBars.has(b)) hit('crash', starts[b], 0.35);
    for (let beat = 0; beat < beats; beat++) {
      const t = starts[b] + beat * beatS;
      hit(beat % 2 === 0 ? 'kick' : 'snare', t, beat % 2 === 0 ? 0.9 : 0.7);
      hit('hat', t, 0.25);
      hit('hat', t + beatS / 2, 0.18);
      if (beat === 2) hit('kick', t + beatS / 2, 0.7);
    }
  });
  return out;
}

/** Left and right channel, peak 0.9. `a4Hz` is the pitch the band is tuned to. */
export function renderBand(
  document: SongDocument,
  a4Hz: number,
  options: BandOptions,
): [Float32Array, Float32Array] {
  const { sampleRate, seed, guitars } = options;
  const random = createRandom(seed);
  const strums = performDocument(document);
  const endS = (barTimesS(document.grid).at(-1) ?? 0) + 1;
  const length = Math.ceil(endS * sampleRate);
  const take = (): Float32Array =>
    renderGuitar(strums, a4Hz, length, { ...options, scatterS: TIMING_SCATTER_S }, () => random);
  const first = take();
  const second = guitars === 2 ? take() : first;
  const bass = options.bass ? renderBass(strums, a4Hz, length, sampleRate, random) : null;
  const drums = options.drums ? renderDrums(document, length, sampleRate, random) : null;

  // Two takes are panned almost hard, one stands in the centre.
  const spread = guitars === 2 ? 0.85 : 0;
  const left = new Float32Array(length);
  const right = new Float32Array(length);
  let peak = 0;
  for (let n = 0; n < length; n++) {
    const centre = 0.5 * (bass?.[n] ?? 0) + 0.55 * (drums?.[n] ?? 0);
    left[n] = 0.45 * ((1 + spread) * first[n] + (1 - spread) * second[n]) + centre;
    right[n] = 0.45 * ((1 - spread) * first[n] + (1 + spread) * second[n]) + centre;
    peak = Math.max(peak, Math.abs(left[n]), Math.abs(right[n]));
  }
  const gain = peak > 0 ? 0.9 / peak : 0;
  return [left.map((v) => v * gain), right.map((v) => v * gain)];
}
