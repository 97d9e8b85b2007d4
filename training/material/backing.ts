/** What covers the guitar: drums, a bass that follows it or not, and a melody, a keyboard or a second lead. */
import { applyBiquad, lowPass } from '@wild-needle/core/dsp';
import { dbToRatio } from '@wild-needle/core/units';
import type { Chance } from './chance';
import type { Composition } from './composition';
import { drawCountedBeat, drawFeel, drawPartFeel, everySixteenth, type Beat } from './counting';
import { SAMPLE_RATE } from './rates';
import { FONTS, soundBank, type BankSpec, type SoundBank } from './sound-bank';

/** Time of a place in the song. */
export type TimeAt = (quarter: number) => number;
export type Stereo = readonly [Float32Array, Float32Array];

function silence(seconds: number): Stereo {
  const length = Math.round(seconds * SAMPLE_RATE);
  return [new Float32Array(length), new Float32Array(length)];
}

/** Constant power; -1 left, 1 right. */
function addPanned(
  out: Stereo,
  start: number,
  sample: Float32Array,
  level: number,
  pan: number,
  seconds = 9,
): void {
  const angle = ((pan + 1) * Math.PI) / 4;
  const [l, r] = [level * Math.cos(angle), level * Math.sin(angle)];
  const release = 400;
  const length = Math.min(sample.length, out[0].length - start, Math.round(seconds * SAMPLE_RATE) + release);
  for (let n = Math.max(0, -start); n < length; n++) {
    const value = sample[n] * Math.min(1, (length - n) / release);
    out[0][start + n] += l * value;
    out[1][start + n] += r * value;
  }
}

const KICK = 36;
const SNARE = 38;
const CRASH = 49;
const TOMS = [50, 47, 45, 43];
/** Closed and open hi-hat, ride, crash, floor tom. */
const TIME_KEEPERS = [42, 42, 46, 51, 49, 43];

/** Sixteenths of a bar that kick and snare fall on. */
function drawBeat(chance: Chance, sixteenths: number): Beat {
  const feel = chance.weighted([
    ['back', 6],
    ['half', 2],
    ['double', 2],
    ['four', 1.5],
    ['free', 1],
  ] as const);
  const all = Array.from({ length: sixteenths }, (_, i) => i);
  const quarters = all.filter((i) => i % 4 === 0);
  const extra = (p: number): number[] => all.filter((i) => i % 2 === 0 && chance.yes(p));
  switch (feel) {
    case 'back':
      return {
        kicks: [...new Set([0, ...(sixteenths > 8 ? [8] : []), ...extra(0.2)])],
        snares: quarters.filter((i) => i % 8 === 4),
      };
    case 'half':
      return { kicks: [...new Set([0, ...extra(0.15)])], snares: [Math.min(8, sixteenths - 4)] };
    case 'double':
      return { kicks: quarters, snares: all.filter((i) => i % 4 === 2) };
    case 'four':
      return { kicks: chance.yes(0.3) ? all : quarters, snares: quarters.filter((i) => i % 8 === 4) };
    case 'free':
      return { kicks: [0, ...extra(0.3)], snares: extra(0.25) };
  }
}

/** How one kit is tuned, balanced and played. */
export interface KitCharacter {
  /** Speed of the sample and level, by note. */
  readonly ratios: ReadonlyMap<number, number>;
  readonly levels: ReadonlyMap<number, number>;
  /** Share of the sixteenths between that the snare is touched on. */
  readonly ghosts: number;
}

export function drawKit(chance: Chance): KitCharacter {
  const notes = Array.from({ length: 23 }, (_, i) => 35 + i);
  return {
    ratios: new Map(notes.map((note) => [note, 2 ** (chance.normal(0, 2) / 12)])),
    levels: new Map(notes.map((note) => [note, dbToRatio(chance.normal(0, 4))])),
    ghosts: chance.yes(0.4) ? chance.uniform(0.05, 0.3) : 0,
  };
}

export function renderDrums(
  song: Composition,
  timeAt: TimeAt,
  seconds: number,
  chance: Chance,
  character: KitCharacter | null = null,
  isCounted = false,
): Stereo {
  const kit = soundBank({
    font: chance.pick(FONTS),
    program: chance.pick([0, 8, 16, 24, 25, 32]),
    isDrums: true,
    lowest: 35,
    highest: 57,
    seconds: 1.6,
  });
  const out = silence(seconds);
  const width = chance.uniform(0, 0.8);
  const panOf = new Map(Array.from({ length: 23 }, (_, i) => [35 + i, width * chance.uniform(-1, 1)]));
  panOf.set(KICK, 0).set(SNARE, 0);
  const scatterS = chance.uniform(0.001, 0.01);
  const drum = retuned(kit, (note) => character?.ratios.get(note) ?? 1);
  const hit = (quarter: number, note: number, level: number): void => {
    const start = Math.round((timeAt(quarter) + chance.normal(0, scatterS)) * SAMPLE_RATE);
    if (start >= 0 && start < out[0].length) {
      const played = level * chance.uniform(0.8, 1.1) * (character?.levels.get(note) ?? 1);
      addPanned(out, start, drum(note), played, panOf.get(note) ?? 0);
    }
  };
  const crashEach = chance.yes(0.8);
  const feel = isCounted ? drawFeel(chance, song.bpm) : null;
  let beat: Beat = drawBeat(chance, 16);
  let keeper = 42;
  let step = 2;
  let playing = true;
  for (const bar of song.bars) {
    const sixteenths = Math.round(bar.quarters * 4);
    if (bar.startsSection) {
      beat = feel
        ? drawCountedBeat(chance, song.meter, drawPartFeel(chance, feel), song.grid === 3)
        : drawBeat(chance, sixteenths);
      keeper = chance.pick(TIME_KEEPERS);
      step = chance.weighted([
        [2, 6],
        [4, 4],
        [1, 1],
      ]);
      playing = chance.yes(isCounted && bar.atQuarter === 0 ? 0.6 : 0.92);
      if (crashEach && playing) hit(bar.atQuarter, CRASH, 1);
    }
    if (!playing) continue;
    const fillFrom = bar.endsSection && chance.yes(0.6) ? sixteenths - 4 : sixteenths;
    for (const k of beat.kicks) if (k < fillFrom) hit(bar.atQuarter + k / 4, KICK, 1);
    for (const s of beat.snares) if (s < fillFrom) hit(bar.atQuarter + s / 4, SNARE, 1);
    if (character && character.ghosts > 0) {
      for (let i = 1; i < fillFrom; i += 2) {
        if (chance.yes(character.ghosts)) hit(bar.atQuarter + i / 4, SNARE, chance.uniform(0.05, 0.25));
      }
    }
    const keeps = beat.keeps ?? everySixteenth(step, sixteenths);
    for (const i of keeps) if (i < fillFrom) hit(bar.atQuarter + i / 4, keeper, i % 4 === 0 ? 0.8 : 0.6);
    for (let i = fillFrom; i < sixteenths; i++) {
      if (chance.yes(0.8)) hit(bar.atQuarter + i / 4, chance.pick([SNARE, ...TOMS]), 0.9);
    }
  }
  return out;
}

type VoiceSpan = Pick<BankSpec, 'lowest' | 'highest' | 'seconds'>;

function drawVoice(chance: Chance, programs: readonly number[], span: VoiceSpan): SoundBank {
  return soundBank({ font: chance.pick(FONTS), program: chance.pick(programs), isDrums: false, ...span });
}

/** Acoustic, fingered, picked, fretless, slapped and synthetic basses. */
const BASS_PROGRAMS = [32, 33, 33, 34, 34, 35, 36, 38, 39];

export function renderBass(
  song: Composition,
  timeAt: TimeAt,
  seconds: number,
  offsetCents: number,
  chance: Chance,
): Stereo {
  const bank = drawVoice(chance, BASS_PROGRAMS, { lowest: 20, highest: 55, seconds: 3 });
  const out = silence(seconds);
  const role = chance.weighted([
    ['root', 7],
    ['eighths', 3],
    ['moving', 3],
  ] as const);
  const note = retuned(bank, () => 2 ** (offsetCents / 1200));
  // Most lines keep to the lowest octave; few lie where the guitar has its own low notes.
  const lowest = chance.weighted([
    [26, 8],
    [28, 8],
    [31, 3],
    [35, 1],
  ]);
  const low = (pc: number): number => lowest + ((pc - lowest + 120) % 12);
  const play = (quarter: number, untilQuarter: number, midi: number): void => {
    const start = Math.round((timeAt(quarter) + chance.normal(0, 0.006)) * SAMPLE_RATE);
    if (start < 0 || start >= out[0].length) return;
    addPanned(out, start, note(midi), 1, 0, timeAt(untilQuarter) - timeAt(quarter));
  };
  song.strums.forEach((strum, k) => {
    const until = song.strums[k + 1]?.atQuarter ?? strum.endQuarter;
    const pc = strum.rootPc;
    if (pc === null) return;
    if (role === 'root') play(strum.atQuarter, until, low(pc));
    else {
      const step = role === 'eighths' ? 0.5 : 1;
      for (let q = Math.ceil(strum.atQuarter / step) * step; q < until - 0.01; q += step) {
        const away = role === 'moving' && chance.yes(0.5);
        play(q, Math.min(until, q + step), low(away ? chance.pick(song.scale) : pc));
      }
    }
  });
  const gain = chance.logUniform(0.5, 12);
  const [dirty] = out;
  for (let n = 0; n < dirty.length; n++) dirty[n] = Math.tanh(gain * dirty[n]) / Math.max(1, gain / 2);
  const dull = applyBiquad(dirty, lowPass(chance.logUniform(600, 5000), SAMPLE_RATE));
  return [dull, dull];
}

/** The notes of a bank so many times as high, each computed once. */
function retuned(bank: SoundBank, ratioOf: (note: number) => number): (note: number) => Float32Array {
  const known = new Map<number, Float32Array>();
  return (note) => {
    const ratio = ratioOf(note);
    const sample = known.get(note) ?? (ratio === 1 ? bank.sample(note) : repitch(bank.sample(note), ratio));
    known.set(note, sample);
    return sample;
  };
}

function repitch(sample: Float32Array, ratio: number): Float32Array {
  const out = new Float32Array(Math.floor((sample.length - 2) / ratio));
  for (let n = 0; n < out.length; n++) {
    const at = n * ratio;
    const i = Math.floor(at);
    out[n] = sample[i] + (at - i) * (sample[i + 1] - sample[i]);
  }
  return out;
}

/** Voices, leads, organs, strings, piano, and a distorted lead guitar. */
const MELODY_PROGRAMS = [53, 52, 54, 80, 81, 65, 40, 18, 16, 48, 0, 4, 30, 29];

export function renderMelody(
  song: Composition,
  timeAt: TimeAt,
  seconds: number,
  offsetCents: number,
  chance: Chance,
): Stereo {
  const bank = drawVoice(chance, MELODY_PROGRAMS, { lowest: 50, highest: 86, seconds: 2.5 });
  const out = silence(seconds);
  const pan = chance.yes(0.7) ? 0 : chance.uniform(-0.8, 0.8);
  const note = retuned(bank, () => 2 ** (offsetCents / 1200));
  const pool = Array.from({ length: 25 }, (_, i) => 54 + i).filter((m) => song.scale.includes(m % 12));
  let at = Math.floor(pool.length / 2);
  const last = song.bars[song.bars.length - 1];
  for (let q = 0; q < last.atQuarter + last.quarters;) {
    const length = chance.pick([0.5, 0.5, 1, 1, 1.5, 2, 3]);
    if (chance.yes(0.75)) {
      at = Math.max(0, Math.min(pool.length - 1, at + chance.whole(-2, 2)));
      const start = Math.round((timeAt(q) + chance.normal(0, 0.015)) * SAMPLE_RATE);
      if (start >= 0 && start < out[0].length) {
        addPanned(out, start, note(pool[at]), 1, pan, timeAt(q + length) - timeAt(q));
      }
    }
    q += length;
  }
  return out;
}
