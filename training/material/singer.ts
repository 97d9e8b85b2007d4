/**
 * A voice, made from its parts: pulses of the vocal folds through three formants that move from vowel to vowel, notes that
 * are slid into and trembled, breath and consonants. Consonants look like strokes, gliding vowels like nothing that a fretboard
 * plays. Formants of men's vowels: Peterson and Barney 1952, rounded, from memory.
 */
import { applyBiquad, highPass, lowPass } from '@wild-needle/core/dsp';
import { midiToHz } from '@wild-needle/core/theory';
import type { Stereo, TimeAt } from './backing';
import type { Chance } from './chance';
import type { Composition } from './composition';
import { SAMPLE_RATE } from './rates';

const VOWELS_HZ = [
  [270, 2290, 3010],
  [530, 1840, 2480],
  [730, 1090, 2440],
  [570, 840, 2410],
  [300, 870, 2240],
];
/** Width of a formant, Hz. */
const WIDTHS_HZ = [70, 100, 140];
/** Formants are set anew after so many samples, while they move. */
const BLOCK = 64;

interface Manner {
  readonly vibratoCents: number;
  readonly vibratoHz: number;
  /** Notes are slid into from this many semitones. */
  readonly scoop: number;
  readonly breath: number;
  readonly consonants: number;
  /** Rough voices: how unevenly the folds close. */
  readonly rough: number;
}

/** Two-pole resonator with a peak of about 1 (common practice of formant synthesis). */
class Formant {
  private y1 = 0;
  private y2 = 0;
  private a1 = 0;
  private a2 = 0;
  private gain = 0;

  tune(freqHz: number, widthHz: number): void {
    const r = Math.exp((-Math.PI * widthHz) / SAMPLE_RATE);
    this.a1 = 2 * r * Math.cos((2 * Math.PI * freqHz) / SAMPLE_RATE);
    this.a2 = -r * r;
    this.gain = (1 - r) * Math.sqrt(1 + r * r - 2 * r * Math.cos((4 * Math.PI * freqHz) / SAMPLE_RATE));
  }

  pass(x: number): number {
    const y = this.gain * x + this.a1 * this.y1 + this.a2 * this.y2;
    this.y2 = this.y1;
    this.y1 = y;
    return y;
  }
}

function singNote(
  out: Float32Array,
  start: number,
  length: number,
  midi: number,
  offsetCents: number,
  manner: Manner,
  chance: Chance,
): void {
  const formants = WIDTHS_HZ.map(() => new Formant());
  const [from, to] = [chance.pick(VOWELS_HZ), chance.pick(VOWELS_HZ)];
  const loudness = chance.uniform(0.5, 1);
  const rise = 0.03 * SAMPLE_RATE;
  let phase = 0;
  let period = 1;
  for (let n = 0; n < length && start + n < out.length; n++) {
    if (n % BLOCK === 0) {
      const share = n / length;
      formants.forEach((formant, f) =>
        formant.tune(from[f] + share * (to[f] - from[f]), WIDTHS_HZ[f] * (1 + manner.rough)),
      );
      const s = n / SAMPLE_RATE;
      const trembling = Math.min(1, s / 0.4) * manner.vibratoCents;
      const cents =
        offsetCents +
        trembling * Math.sin(2 * Math.PI * manner.vibratoHz * s) -
        100 * manner.scoop * Math.exp(-s / 0.05);
      period = SAMPLE_RATE / (midiToHz(midi) * 2 ** (cents / 1200));
    }
    phase += 1 / (period * (1 + manner.rough * 0.1 * (chance.random() - 0.5)));
    if (phase >= 1) phase -= 1;
    // Folds open slowly and close at once.
    const pulse = phase < 0.6 ? phase / 0.6 : phase < 0.7 ? 1 - (phase - 0.6) / 0.1 : 0;
    const source = pulse - 0.35 + manner.breath * (chance.random() - 0.5);
    const fade = Math.min(1, n / rise, (length - n) / rise);
    const [first, second, third] = formants.map((formant) => formant.pass(source));
    out[start + n] += loudness * fade * (first + 0.6 * second + 0.35 * third);
  }
}

/** An s, a t or a k before the note. */
function addConsonant(out: Float32Array, at: number, level: number, chance: Chance): void {
  const isLong = chance.yes(0.4);
  const length = Math.round(
    (isLong ? chance.uniform(0.05, 0.12) : chance.uniform(0.008, 0.03)) * SAMPLE_RATE,
  );
  const noise = Float32Array.from({ length }, () => chance.random() - 0.5);
  const low = highPass(chance.logUniform(1200, 4500), SAMPLE_RATE);
  const hiss = applyBiquad(applyBiquad(noise, low), lowPass(chance.uniform(6000, 12000), SAMPLE_RATE));
  const edge = isLong ? 0.3 * length : 20;
  for (let n = 0; n < length && at + n < out.length; n++) {
    if (at + n >= 0) out[at + n] += level * Math.min(1, n / edge, (length - n) / edge) * hiss[n];
  }
}

/** Phrases over the chords, with breaths between; both channels alike. */
export function renderSinger(
  song: Composition,
  timeAt: TimeAt,
  seconds: number,
  offsetCents: number,
  chance: Chance,
): Stereo {
  const out = new Float32Array(Math.round(seconds * SAMPLE_RATE));
  const manner: Manner = {
    vibratoCents: chance.uniform(0, 45),
    vibratoHz: chance.uniform(4.5, 6.5),
    scoop: chance.yes(0.7) ? chance.uniform(0, 2.5) : 0,
    breath: chance.logUniform(0.05, 0.8),
    consonants: chance.logUniform(0.1, 1.2),
    rough: chance.yes(0.3) ? chance.uniform(1, 6) : chance.uniform(0, 0.6),
  };
  const lowest = chance.whole(45, 60);
  const pool = Array.from({ length: 18 }, (_, i) => lowest + i).filter((m) => song.scale.includes(m % 12));
  let at = Math.floor(pool.length / 2);
  const last = song.bars[song.bars.length - 1];
  const step = chance.pick([0.5, 0.5, 1]);
  for (let q = 0; q < last.atQuarter + last.quarters;) {
    const length = step * chance.pick([1, 1, 1, 2, 3, 4]);
    if (chance.yes(0.72)) {
      at = Math.max(0, Math.min(pool.length - 1, at + chance.whole(-2, 2)));
      const start = Math.round((timeAt(q) + chance.normal(0, 0.03)) * SAMPLE_RATE);
      const samples = Math.round((timeAt(q + length) - timeAt(q)) * chance.uniform(0.6, 1) * SAMPLE_RATE);
      if (start >= 0) {
        const pitched = offsetCents + chance.normal(0, 15);
        singNote(out, start, samples, pool[at], pitched, manner, chance);
        if (chance.yes(0.7))
          addConsonant(out, start - Math.round(0.03 * SAMPLE_RATE), manner.consonants, chance);
      }
    }
    q += length;
  }
  return [out, out];
}
