/**
 * Pairs of performances of invented songs, with the truth of which moment is which: the same parts played by fluidsynth with another
 * soundfont, at another tempo, drifting, in another key, with a verse more, before an audience; each strum a little early or late.
 */
import { join } from 'node:path';
import { createRandom, gaussian, type Random } from '@wild-needle/core/units';
import { DRUMS, FINGER_BASS, midiOf, OVERDRIVEN_GUITAR, playMidi, runTool, type Note } from './play-midi';

const SOUNDFONTS = {
  first: '/usr/share/sounds/sf2/FluidR3_GM.sf2',
  second: '/usr/share/sounds/sf2/sf_GMbank.sf2',
};
const BEATS = 4;
/** Standard deviation of a player against the beat. */
const JITTER_S = 0.008;

export type Difference = 'same' | 'tempo' | 'drift' | 'key' | 'verse' | 'audience' | 'all';
export const DIFFERENCES: readonly Difference[] = [
  'same',
  'tempo',
  'drift',
  'key',
  'verse',
  'audience',
  'all',
];

export interface Pair {
  readonly referencePath: string;
  readonly otherPath: string;
  /** Beats that both have: seconds in the reference and in the other. */
  readonly moments: readonly (readonly [number, number])[];
  readonly semitones: number;
  /** Part that only the other one has, seconds there; null without. */
  readonly onlyInOther: { readonly startS: number; readonly endS: number } | null;
}

/** Eighths of a bar: semitones over the key, or nothing new. */
type Bar = readonly (number | null)[];
interface Song {
  readonly key: number;
  readonly bpm: number;
  readonly parts: readonly (readonly Bar[])[];
  /** Part of each four bars. */
  readonly form: readonly number[];
}

const ROOTS = [0, 3, 5, 7, 8, 10, -2];

function composed(random: Random): Song {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)];
  const bar = (density: number): Bar => {
    let root = pick(ROOTS);
    return Array.from({ length: 8 }, (_, e) => {
      if (e % 2 === 0 && random() < 0.4) root = pick(ROOTS);
      return e === 0 || random() < density ? root : null;
    });
  };
  const parts = [0.8, 0.35, 0.6].map((density) => Array.from({ length: 4 }, () => bar(density)));
  return {
    key: 40 + Math.floor(random() * 5),
    bpm: 90 + Math.floor(random() * 70),
    parts,
    form: [0, 0, 1, 0, 0, 1, 2, 1, 1],
  };
}

interface Performance {
  readonly soundfont: string;
  readonly form: readonly number[];
  readonly tempo: number;
  /** Share that the tempo swings by, once in forty seconds. */
  readonly drift: number;
  readonly semitones: number;
  readonly startS: number;
  readonly audience: boolean;
}

/** Beats of a performance, seconds. */
function beatsOf({ bpm }: Song, { form, tempo, drift, startS }: Performance): number[] {
  const beats = [startS];
  // One beat more than the last bar line: the halves of a beat are told from the next one.
  while (beats.length <= form.length * 4 * BEATS + 1) {
    const last = beats[beats.length - 1];
    const swing = 1 + drift * Math.sin((2 * Math.PI * last) / 40);
    beats.push(last + 60 / (bpm * tempo * swing));
  }
  return beats;
}

function notesOf(
  song: Song,
  { form, semitones }: Performance,
  beats: readonly number[],
  random: Random,
): Note[] {
  const notes: Note[] = [];
  const at = (bar: number, eighth: number): number => {
    const beat = bar * BEATS + Math.floor(eighth / 2);
    return beats[beat] + ((eighth % 2) * (beats[beat + 1] - beats[beat])) / 2;
  };
  const play = (channel: number, key: number, velocity: number, fromS: number, toS: number): void => {
    notes.push({ channel, key, velocity, fromS, toS });
  };
  form.forEach((part, n) => {
    song.parts[part].forEach((steps, k) => {
      const bar = 4 * n + k;
      steps.forEach((root, e) => {
        const playedS = Math.max(0, at(bar, e) + JITTER_S * gaussian(random));
        const loud = 84 + Math.round(20 * random());
        if (root !== null) {
          let next = e + 1;
          while (next < 8 && steps[next] === null) next++;
          const endS = next < 8 ? at(bar, next) : at(bar + 1, 0) - 0.02;
          const low = song.key + root + semitones;
          for (const up of [0, 7, 12]) play(0, low + up, loud, playedS + 0.0004 * up, endS - 0.01);
          play(1, low - 12, loud, Math.max(0, playedS + 0.004 * gaussian(random)), endS - 0.01);
        }
        const drumS = Math.max(0, at(bar, e) + 0.004 * gaussian(random));
        play(DRUMS, 42, 60, drumS, drumS + 0.1);
        if (e === 0 || (e === 5 && part !== 1)) play(DRUMS, 36, 110, drumS, drumS + 0.1);
        if (e % 4 === 2) play(DRUMS, 38, 105, drumS, drumS + 0.1);
      });
    });
  });
  return notes;
}

/** Band-passed noise that swells, before, during and after. */
const audienceOf = (lengthS: number): string =>
  `anoisesrc=d=${lengthS}:c=pink:a=0.5:seed=3,highpass=f=300,lowpass=f=3500,tremolo=f=0.3:d=0.6,volume=-16dB`;

function perform(
  folder: string,
  name: string,
  song: Song,
  how: Performance,
  random: Random,
): { path: string; beats: number[] } {
  const beats = beatsOf(song, how);
  const notes = notesOf(song, how, beats, random);
  const wav = playMidi(how.soundfont, folder, name, midiOf(notes, [OVERDRIVEN_GUITAR, FINGER_BASS], 0));
  if (!how.audience) return { path: wav, beats };
  const path = join(folder, `${name} audience.wav`);
  const lengthS = beats[beats.length - 1] + 12;
  const graph = `[0:a]apad=whole_dur=${lengthS}[band];${audienceOf(lengthS)}[crowd];[band][crowd]amix=inputs=2:normalize=0`;
  runTool('ffmpeg', ['-v', 'error', '-y', '-i', wav, '-filter_complex', graph, path]);
  return { path, beats };
}

/** The same song and difference for the same seed. */
export function renderPair(folder: string, seed: number, difference: Difference): Pair {
  const random = createRandom(seed);
  const song = composed(random);
  const is = (...of: Difference[]): boolean => difference === 'all' || of.includes(difference);
  const extraAt = 5;
  const reference: Performance = {
    soundfont: SOUNDFONTS.first,
    form: song.form,
    tempo: 1,
    drift: 0,
    semitones: 0,
    startS: 0.6,
    audience: false,
  };
  const other: Performance = {
    soundfont: SOUNDFONTS.second,
    form: is('verse') ? [...song.form.slice(0, extraAt), 2, 2, ...song.form.slice(extraAt)] : song.form,
    tempo: is('tempo') ? 1 + (0.04 + 0.08 * random()) * (random() < 0.5 ? -1 : 1) : 1,
    drift: is('drift') ? 0.03 : 0,
    semitones: is('key') ? [-2, -1, 1, 2][Math.floor(random() * 4)] : 0,
    startS: is('audience') ? 14 : 0.9,
    audience: is('audience'),
  };
  const name = `${seed} ${difference}`;
  const one = perform(folder, `${name} reference`, song, reference, random);
  const two = perform(folder, `${name} other`, song, other, random);
  const extra = is('verse') ? { from: extraAt * 4 * BEATS, count: 2 * 4 * BEATS } : null;
  return {
    referencePath: one.path,
    otherPath: two.path,
    moments: one.beats.map(
      (beatS, beat) => [beatS, two.beats[extra && beat >= extra.from ? beat + extra.count : beat]] as const,
    ),
    semitones: other.semitones,
    onlyInOther: extra && { startS: two.beats[extra.from], endS: two.beats[extra.from + extra.count] },
  };
}
