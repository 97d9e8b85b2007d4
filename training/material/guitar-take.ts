/**
 * One guitar take before its amplifier: strings from a soundfont bank or from the plucked string of `core/synth`,
 * with everything a hand does differently each time. Palm mutes range from dark and long to loud and short, strums
 * from choked apart to an unbroken wall, as measured on real records.
 */
import { addPluck } from '@wild-needle/core/synth';
import { applyBiquad, highPass, lowPass, median } from '@wild-needle/core/dsp';
import { midiToHz } from '@wild-needle/core/theory';
import type { Chance } from './chance';
import { SAMPLE_RATE } from './rates';
import type { SoundBank } from './sound-bank';

export interface TimedStrum {
  readonly timeS: number;
  readonly endS: number;
  readonly midi: readonly number[];
  readonly palmMute: boolean;
  readonly dead: boolean;
  /** Hammered on or pulled off: no pick. */
  readonly legato: boolean;
}

/** What one player on one guitar keeps for a whole song. */
export interface PlayerStyle {
  /** Null: the plucked string of core/synth. */
  readonly bank: SoundBank | null;
  /** Samples of muted strings; null: those of ringing ones, damped. */
  readonly muteBank: SoundBank | null;
  readonly offsetCents: number;
  /** Of each string, cents. */
  readonly detuneCents: readonly number[];
  /** Sharpness of the attack, cents above, falling within a tenth of a second. */
  readonly attackCents: number;
  readonly scatterS: number;
  /** From the first string to the last. */
  readonly spreadS: number;
  /** Silence that the hand makes before the next stroke; 0 = the strings are struck while they ring. */
  readonly chokeS: number;
  readonly muteDecayS: number;
  readonly muteCutHz: number;
  readonly muteGain: number;
  readonly deadDecayS: number;
  readonly deadGain: number;
  readonly pickGain: number;
  readonly dynamics: number;
  /** Share of the strums that are slid into. */
  readonly slideShare: number;
  /** Trembling of notes that are held, cents to either side. */
  readonly vibratoCents: number;
  /** Fingers on wound strings when the hand moves, against the pick. */
  readonly squeakGain: number;
}

export function drawStyle(
  chance: Chance,
  bank: SoundBank | null,
  muteBank: SoundBank | null,
  offsetCents: number,
): PlayerStyle {
  const loudMutes = chance.yes(0.5);
  const scatter = chance.logUniform(0.8, 6);
  return {
    bank,
    muteBank,
    offsetCents,
    detuneCents: Array.from({ length: 6 }, () => chance.normal(0, scatter)),
    attackCents: chance.yes(0.5) ? chance.uniform(0, 18) : 0,
    scatterS: chance.uniform(0.001, 0.009),
    spreadS: chance.uniform(0.001, 0.018),
    chokeS: chance.yes(0.65) ? 0 : chance.uniform(0.002, 0.03),
    muteDecayS: chance.logUniform(0.03, 0.17),
    muteCutHz: loudMutes ? chance.logUniform(1200, 5000) : chance.logUniform(350, 1600),
    muteGain: loudMutes ? chance.uniform(0.8, 1.6) : chance.uniform(0.5, 1.2),
    deadDecayS: chance.logUniform(0.005, 0.022),
    deadGain: chance.logUniform(0.25, 1.1),
    pickGain: chance.logUniform(0.02, 0.45),
    dynamics: chance.uniform(0.03, 0.22),
    slideShare: 0,
    vibratoCents: 0,
    squeakGain: 0,
  };
}

/** The same player with slides, trembling and squeaks, which the songs before ROUGH_SONGS_FROM lack. */
export function withHands(style: PlayerStyle, chance: Chance): PlayerStyle {
  return {
    ...style,
    slideShare: chance.yes(0.4) ? chance.uniform(0.02, 0.15) : 0,
    vibratoCents: chance.yes(0.5) ? chance.uniform(5, 35) : 0,
    squeakGain: chance.yes(0.4) ? chance.logUniform(0.1, 1.5) : 0,
  };
}

/** Strings stop within this time without a click. */
const RELEASE_S = 0.006;
/** A slurred note starts this far into its sample, where the pick is over. */
const AFTER_PICK_S = 0.07;
const SLUR_RISE_S = 0.004;
/** Held notes begin to tremble after about this time, at this rate. */
const VIBRATO_AFTER_S = 0.25;
const VIBRATO_HZ = 5.2;
/** A hand moves, and strings squeak, this long before the chord that it moves to. */
const SQUEAK_BEFORE_S = [0.02, 0.07] as const;

interface PlayedNote {
  readonly seconds: number;
  readonly level: number;
  readonly ratio: number;
  /** Times `ratio` at the start, gone within a tenth of a second. */
  readonly attackRatio: number;
  readonly vibratoCents: number;
  readonly legato: boolean;
}

/** Adds a note of the bank at another pitch, by linear interpolation. */
function addSample(
  out: Float32Array,
  start: number,
  sample: Float32Array,
  { seconds, level, ratio, attackRatio, vibratoCents, legato }: PlayedNote,
): void {
  const release = Math.round(RELEASE_S * SAMPLE_RATE);
  const length = Math.min(Math.round(seconds * SAMPLE_RATE) + release, out.length - start);
  const settle = Math.exp(-1 / (0.05 * SAMPLE_RATE));
  const rise = legato ? Math.round(SLUR_RISE_S * SAMPLE_RATE) : 1;
  const vibrato = (vibratoCents * Math.LN2) / 1200;
  const trembles = VIBRATO_AFTER_S * SAMPLE_RATE;
  const turn = (2 * Math.PI * VIBRATO_HZ) / SAMPLE_RATE;
  let sharp = attackRatio - 1;
  let at = legato ? AFTER_PICK_S * SAMPLE_RATE : 0;
  for (let n = 0; n < length; n++) {
    const i = Math.floor(at);
    if (i + 1 >= sample.length) break;
    const value = sample[i] + (at - i) * (sample[i + 1] - sample[i]);
    const fade = Math.min(1, (n + 1) / rise, (length - n) / release);
    out[start + n] += level * fade * value;
    at += ratio * (1 + sharp);
    if (vibrato > 0 && n > trembles) at += ratio * vibrato * Math.sin(turn * (n - trembles));
    sharp *= settle;
  }
}

function addNoise(
  out: Float32Array,
  start: number,
  seconds: number,
  decayS: number,
  level: number,
  chance: Chance,
): void {
  const length = Math.min(Math.round(seconds * SAMPLE_RATE), out.length - start);
  const fall = Math.exp(-1 / (decayS * SAMPLE_RATE));
  let gain = level;
  for (let n = 0; n < length; n++, gain *= fall) {
    out[start + n] += gain * Math.min(1, n / 25) * (2 * chance.random() - 1);
  }
}

/** Typical level in the first 80 ms of these strums; 0 without any. */
function attackLevel(samples: Float32Array, strums: readonly TimedStrum[], lateS: number): number {
  const levels = strums.map(({ timeS }) => {
    const from = Math.max(0, Math.round((timeS + lateS) * SAMPLE_RATE));
    const to = Math.min(samples.length, from + Math.round(0.08 * SAMPLE_RATE));
    let sum = 0;
    for (let n = from; n < to; n++) sum += samples[n] * samples[n];
    return Math.sqrt(sum / Math.max(1, to - from));
  });
  return median(levels) ?? 0;
}

/** `lateS` is where this take stands against the others as a whole. */
export function renderTake(
  strums: readonly TimedStrum[],
  seconds: number,
  style: PlayerStyle,
  lateS: number,
  chance: Chance,
): Float32Array {
  const length = Math.round(seconds * SAMPLE_RATE);
  const ringing = new Float32Array(length);
  const muted = new Float32Array(length);
  const dead = new Float32Array(length);
  const pick = new Float32Array(length);
  strums.forEach((strum, k) => {
    const timeS = Math.max(0, strum.timeS + lateS + chance.normal(0, style.scatterS));
    const next = strums[k + 1];
    const endS = Math.min(strum.endS, next ? next.timeS - style.chokeS : strum.endS) + lateS;
    const level = 1 + chance.normal(0, style.dynamics);
    const notes = chance.yes(0.5) ? strum.midi : [...strum.midi].reverse();
    const startOf = (i: number, count: number): number =>
      Math.round((timeS + (style.spreadS * i) / Math.max(1, count - 1)) * SAMPLE_RATE);
    if (strum.dead) {
      const strings = chance.whole(3, 6);
      for (let i = 0; i < strings; i++) {
        const start = startOf(i, strings);
        if (start < length) addNoise(dead, start, 0.09, style.deadDecayS, chance.uniform(0.7, 1.1), chance);
      }
      return;
    }
    const isSlid = style.slideShare > 0 && chance.yes(style.slideShare);
    const slide = isSlid ? 2 ** (chance.pick([-3, -2, -1, 1, 2]) / 12) : 1;
    if (style.squeakGain > 0 && k > 0 && strums[k - 1].midi[0] !== strum.midi[0] && chance.yes(0.3)) {
      const at = Math.round((timeS - chance.uniform(...SQUEAK_BEFORE_S)) * SAMPLE_RATE);
      if (at >= 0) addNoise(pick, at, 0.06, 0.02, style.squeakGain, chance);
    }
    notes.forEach((note, i) => {
      const start = startOf(i, notes.length);
      if (start >= length) return;
      const string = strum.midi.indexOf(note);
      const cents = style.offsetCents + style.detuneCents[string % 6];
      const noteS = Math.max(0.03, endS - start / SAMPLE_RATE);
      const target = strum.palmMute ? muted : ringing;
      const bank = strum.palmMute ? (style.muteBank ?? style.bank) : style.bank;
      if (bank) {
        const ratio = 2 ** (cents / 1200);
        const attackRatio = slide * 2 ** ((style.attackCents * chance.uniform(0.6, 1.2)) / 1200);
        const { vibratoCents } = style;
        const played = { seconds: noteS, level, ratio, attackRatio, vibratoCents, legato: strum.legato };
        addSample(target, start, bank.sample(note), played);
      } else {
        const freqHz = midiToHz(note) * 2 ** (cents / 1200);
        const pluck = { freqHz, durationS: noteS, level: 0.4 * level, palmMute: false };
        addPluck(target, start, SAMPLE_RATE, pluck, chance.random);
      }
      if (!strum.legato) addNoise(pick, start, 0.02, 0.0022, (strum.palmMute ? 0.8 : 1) * level, chance);
    });
    if (strum.palmMute) damp(muted, timeS, next ? next.timeS + lateS : endS + 0.3, style);
  });
  const filtered = (samples: Float32Array, low: number, high: number): Float32Array =>
    applyBiquad(samples, highPass(low, SAMPLE_RATE), lowPass(high, SAMPLE_RATE));
  const mutes = strums.filter((s) => s.palmMute);
  const deads = strums.filter((s) => s.dead);
  const rings = strums.filter((s) => !s.palmMute && !s.dead);
  const layers = [
    { samples: ringing, of: rings, gain: 1 },
    { samples: applyBiquad(muted, lowPass(style.muteCutHz, SAMPLE_RATE)), of: mutes, gain: style.muteGain },
    {
      samples: filtered(dead, chance.uniform(120, 300), chance.uniform(1500, 3500)),
      of: deads,
      gain: style.deadGain,
    },
    { samples: filtered(pick, 900, 6500), of: strums.filter((s) => !s.dead), gain: style.pickGain },
  ];
  const out = new Float32Array(length);
  for (const { samples, of, gain } of layers) {
    const level = attackLevel(samples, of, lateS);
    if (level === 0) continue;
    for (let n = 0; n < length; n++) out[n] += ((0.1 * gain) / level) * samples[n];
  }
  return out;
}

/** The palm takes the sound away from `fromS` on. */
function damp(samples: Float32Array, fromS: number, toS: number, { muteDecayS }: PlayerStyle): void {
  const from = Math.round(fromS * SAMPLE_RATE);
  const to = Math.min(samples.length, Math.round(toS * SAMPLE_RATE));
  const fall = Math.exp(-1 / (muteDecayS * SAMPLE_RATE));
  let gain = 1;
  for (let n = from; n < to; n++, gain *= fall) samples[n] *= gain;
}
