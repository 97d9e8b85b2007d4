/** One generated song: the sound at the rate of the analysis, and what is true of it. Deterministic by its seed. */
import { createRandom, dbToRatio } from '@wild-needle/core/units';
import { drawAmplifier, drive, type Amplifier } from './amplifier-chain';
import { drawKit, renderBass, renderDrums, renderMelody, type Stereo } from './backing';
import { createChance, type Chance } from './chance';
import { compose } from './composition';
import { chorus, echo, throughMicrophones, wow } from './effects';
import { drawStyle, renderTake, withHands, type TimedStrum } from './guitar-take';
import { addRoom, addStem, master, placed, publish } from './mixing';
import { SAMPLE_RATE } from './rates';
import { composeSecondGuitar } from './second-guitar';
import { renderSinger } from './singer';
import { FONTS, soundBank } from './sound-bank';

export interface TrueStrum {
  readonly timeS: number;
  readonly endS: number;
  readonly midi: readonly number[];
  readonly rootPc: number | null;
  readonly palmMuted: boolean;
  readonly dead: boolean;
}

export interface Truth {
  readonly offsetCents: number;
  readonly bpm: number;
  readonly meter: { readonly beats: number; readonly unit: number };
  readonly barsS: readonly number[];
  readonly sections: readonly {
    readonly startS: number;
    readonly riff: number;
    readonly transpose: number;
  }[];
  readonly strums: readonly TrueStrum[];
}

export interface GeneratedSong {
  readonly truth: Truth;
  readonly channels: 1 | 2;
  /** Interleaved, 16 bits, at ANALYSIS_SAMPLE_RATE. */
  readonly samples: Buffer;
}

/** Long enough that riffs return. */
const SONG_S = 22;
/** Songs of seeds from here on are rougher: nearer to records in all that `effects.ts` names. */
export const ROUGH_SONGS_FROM = 3000;
/** And from here on as people count, for the meter; rough ones among them. Some in bars of three quarters or six eighths. */
export const COUNTED_SONGS_FROM = 5000;
const COUNTED_IN_THREE = { from: 5360, to: 5480 };
const COUNTED_ROUGH = 0.4;
/** Bars come round oftener. */
const COUNTED_SONG_S = 32;
const TAIL_S = 1.5;
/** Sounds are switched in this time. */
const TONE_FADE_S = 0.005;
/** Jazz, clean, muted and steel guitars, and amplified ones whose samples are single notes. */
const GUITAR_PROGRAMS = [25, 26, 27, 27, 28, 24];

const GUITAR_SPAN = { isDrums: false, lowest: 30, highest: 92, seconds: 3.5 };
const MUTED_GUITAR = 28;

function drawMuteBank(chance: Chance): ReturnType<typeof soundBank> | null {
  if (chance.yes(0.45) || FONTS.length === 0) return null;
  return soundBank({ font: chance.pick(FONTS), program: MUTED_GUITAR, ...GUITAR_SPAN });
}

function drawBank(chance: Chance): ReturnType<typeof soundBank> | null {
  if (chance.yes(0.25) || FONTS.length === 0) return null;
  const program = chance.pick(GUITAR_PROGRAMS);
  return soundBank({ font: chance.pick(FONTS), program, ...GUITAR_SPAN });
}

/** A second sound of the same guitar, often softer, for some sections. */
interface OtherTone {
  readonly amplifier: Amplifier;
  readonly gain: number;
  /** Per section. */
  readonly isOn: readonly boolean[];
}

function drawOtherTone(chance: Chance, sections: number): OtherTone | null {
  if (sections < 2 || chance.yes(0.7)) return null;
  return {
    amplifier: drawAmplifier(chance),
    gain: dbToRatio(chance.uniform(-15, 0)),
    isOn: Array.from({ length: sections }, () => chance.yes(0.5)),
  };
}

/** The other tone is brought to its level against the first, and put in its place section by section. */
function switchTone(
  main: Float32Array,
  other: Float32Array,
  sectionsS: readonly number[],
  { gain, isOn }: OtherTone,
): Float32Array {
  const level = gain * Math.sqrt(power(main) / power(other));
  const fade = Math.exp(-1 / (TONE_FADE_S * SAMPLE_RATE));
  let section = 0;
  let share = isOn[0] ? 1 : 0;
  const out = new Float32Array(main.length);
  for (let n = 0; n < out.length; n++) {
    while (sectionsS[section + 1] <= n / SAMPLE_RATE) section++;
    share = fade * share + (1 - fade) * (isOn[section] ? 1 : 0);
    out[n] = (1 - share) * main[n] + share * level * other[n];
  }
  return out;
}

function power(samples: Float32Array): number {
  let sum = 1e-12;
  for (const v of samples) sum += v * v;
  return sum;
}

/** Beats of people: a slow wave and a drift around the tempo. */
function drawClock(chance: Chance, bpm: number): (quarter: number) => number {
  const startS = chance.uniform(0.05, 1.5);
  const drift = chance.yes(0.35) ? chance.normal(0, 0.015) : 0;
  const wave = chance.yes(0.4) ? chance.uniform(0, 0.02) : 0;
  const [phase, period] = [chance.uniform(0, 6.28), chance.uniform(16, 64)];
  const quarterS = 60 / bpm;
  return (q) =>
    startS +
    quarterS *
      (q +
        (drift * q * q) / 100 +
        wave * Math.sin((2 * Math.PI * q) / period + phase) -
        wave * Math.sin(phase));
}

function throughEffects(samples: Float32Array, beatS: number, chance: Chance): Float32Array {
  const wavering = chance.yes(0.15) ? chorus(samples, chance) : samples;
  const heard = chance.yes(0.85) ? throughMicrophones(wavering, chance) : wavering;
  return chance.yes(0.25) ? echo(heard, beatS, chance) : heard;
}

/** One machine for both channels. */
function wowBoth([left, right]: Stereo, chance: Chance): Stereo {
  const seed = chance.whole(1, 1e9);
  const same = (): Chance => createChance(createRandom(seed));
  return [wow(left, same()), wow(right, same())];
}

export function generateSong(seed: number): GeneratedSong {
  const chance = createChance(createRandom(seed));
  const isCounted = seed >= COUNTED_SONGS_FROM;
  const isRough = isCounted ? chance.yes(COUNTED_ROUGH) : seed >= ROUGH_SONGS_FROM;
  const isInThree = seed >= COUNTED_IN_THREE.from && seed < COUNTED_IN_THREE.to;
  const counting = isInThree ? 'three or six' : 'any';
  const song = isCounted ? compose(chance, COUNTED_SONG_S, counting) : compose(chance, SONG_S);
  const timeAt = drawClock(chance, song.bpm);
  const seconds = timeAt(song.bars[song.bars.length - 1].atQuarter + song.bars[0].quarters) + TAIL_S;
  const offsetCents = chance.yes(0.5) ? chance.uniform(-50, 50) : chance.normal(0, 6);
  const timed = song.strums.map((s): TimedStrum => ({
    timeS: timeAt(s.atQuarter),
    endS: timeAt(s.endQuarter),
    midi: s.midi,
    palmMute: s.palmMute,
    dead: s.dead,
    legato: s.legato,
  }));

  const isDoubled = chance.yes(0.6);
  const sectionsS = song.sections.map((s) => timeAt(s.startQuarter));
  const amplifier = drawAmplifier(chance);
  const otherTone = drawOtherTone(chance, sectionsS.length);
  const bank = drawBank(chance);
  const muteBank = drawMuteBank(chance);
  const take = (lateS: number): Float32Array => {
    // Two takes by one player: the same guitar and amplifier as often as not.
    const drawn = drawStyle(chance, chance.yes(0.6) ? bank : drawBank(chance), muteBank, offsetCents);
    const style = isRough ? withHands(drawn, chance) : drawn;
    const own = chance.yes(0.6) ? amplifier : drawAmplifier(chance);
    const strings = renderTake(timed, seconds, style, lateS, chance);
    const driven = drive(strings, own, chance);
    const main = isRough ? throughEffects(driven, 60 / song.bpm, chance) : driven;
    if (!otherTone) return main;
    return switchTone(main, drive(strings, otherTone.amplifier, chance), sectionsS, otherTone);
  };
  const length = Math.round(seconds * SAMPLE_RATE);
  const mix: Stereo = [new Float32Array(length), new Float32Array(length)];
  let guitars: Stereo = [new Float32Array(length), new Float32Array(length)];
  if (isDoubled) {
    const width = chance.yes(0.5) ? 1 : chance.uniform(0.35, 1);
    const apartS = chance.yes(0.5) ? chance.uniform(0, 0.02) : 0;
    addStem(guitars, placed(take(-apartS / 2), -width), 0);
    addStem(guitars, placed(take(apartS / 2), width * chance.uniform(0.8, 1)), chance.normal(0, 1.5));
  } else {
    addStem(guitars, placed(take(0), chance.yes(0.7) ? 0 : chance.uniform(-0.8, 0.8)), 0);
  }
  if (chance.yes(0.6))
    guitars = addRoom(guitars, chance.uniform(0.03, 0.3), chance.uniform(0.1, 0.7), chance);
  addStem(mix, guitars, 0);
  const isSolo = chance.yes(isRough ? 0.12 : 0.22);
  if (!isSolo) {
    const under = chance.uniform(-9, 6);
    if (chance.yes(0.92)) {
      const drums = renderDrums(song, timeAt, seconds, chance, isRough ? drawKit(chance) : null, isCounted);
      const inRoom = isRough && chance.yes(0.6);
      const heard = inRoom
        ? addRoom(drums, chance.uniform(0.05, 0.5), chance.uniform(0.2, 1), chance)
        : drums;
      addStem(mix, heard, under + chance.normal(0, 2));
    }
    if (chance.yes(0.82)) {
      addStem(mix, renderBass(song, timeAt, seconds, offsetCents, chance), under + chance.normal(-1, 2));
    }
    const melodies = chance.weighted([
      [0, 4],
      [1, 4],
      [2, 2],
    ]);
    for (let m = 0; m < melodies; m++) {
      addStem(mix, renderMelody(song, timeAt, seconds, offsetCents, chance), under + chance.normal(-2, 3));
    }
  }
  if (isRough && !isSolo) {
    if (chance.yes(0.55)) {
      const singer = renderSinger(song, timeAt, seconds, offsetCents, chance);
      const heard = addRoom(singer, chance.uniform(0.02, 0.3), chance.uniform(0.3, 1.5), chance);
      addStem(mix, heard, chance.uniform(-8, 4));
    }
    if (chance.yes(0.4)) {
      const strums = composeSecondGuitar(song, timeAt, chance);
      const style = withHands(drawStyle(chance, drawBank(chance), null, offsetCents), chance);
      const driven = drive(renderTake(strums, seconds, style, 0, chance), drawAmplifier(chance), chance);
      const heard = throughEffects(driven, 60 / song.bpm, chance);
      addStem(mix, placed(heard, chance.uniform(-1, 1)), chance.uniform(-14, -3));
    }
  }
  const channels = chance.yes(0.12) ? 1 : 2;
  const mastered = master(mix, chance);
  const kept: Stereo = isRough && chance.yes(0.3) ? wowBoth(mastered, chance) : mastered;
  const samples = publish(kept, channels, chance.yes(isRough ? 0.6 : 0.4), chance);
  return {
    channels,
    samples,
    truth: {
      offsetCents,
      bpm: song.bpm,
      meter: song.meter,
      barsS: song.bars.map((b) => timeAt(b.atQuarter)),
      sections: song.sections.map((s) => ({
        startS: timeAt(s.startQuarter),
        riff: s.riff,
        transpose: s.transpose,
      })),
      strums: timed.map((s, k) => ({
        timeS: s.timeS,
        endS: s.endS,
        midi: s.midi,
        rootPc: song.strums[k].rootPc,
        palmMuted: s.palmMute,
        dead: s.dead,
      })),
    },
  };
}
