/**
 * Notes of a General MIDI soundfont as samples: fluidsynth plays a scale once, the notes are cut out, aligned to
 * their attack and kept in a cache folder. Songs are then put together from them in any tuning and at any speed.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeMidi, type MidiEvent } from 'midi-file';
import { SAMPLE_RATE } from './rates';

/** Soundfonts of Debian's packages fluid-soundfont-gm, timgm6mb-soundfont and musescore-general-soundfont. */
const SOUNDFONTS: Readonly<Record<string, string>> = {
  fluid: '/usr/share/sounds/sf2/FluidR3_GM.sf2',
  tim: '/usr/share/sounds/sf2/TimGM6mb.sf2',
  muse: '/usr/share/sounds/sf3/MuseScore_General_Full.sf3',
};
/** Those of them that this machine has. */
export const FONTS = Object.keys(SOUNDFONTS).filter((name) => existsSync(SOUNDFONTS[name]));

const CACHE = join(import.meta.dirname, '../../.cache/training/banks');
/** A MIDI file of 500 ticks a quarter at its default of 120 bpm: one tick is a millisecond. */
const TICKS_PER_QUARTER = 500;
/** Before each note, so that the tail of the one before is over. */
const GAP_S = 0.6;
/** Kept before the attack. */
const PRE_ROLL = Math.round(0.002 * SAMPLE_RATE);
const DRUM_CHANNEL = 9;

export interface BankSpec {
  readonly font: string;
  /** General MIDI program, 0 = acoustic grand; the kit on the drum channel. */
  readonly program: number;
  readonly isDrums: boolean;
  readonly lowest: number;
  readonly highest: number;
  readonly seconds: number;
}

export interface SoundBank {
  /** The note from its attack on; notes outside of the bank are an error of the caller. */
  sample(note: number): Float32Array;
}

function render({ font, program, isDrums, lowest, highest, seconds }: BankSpec, stem: string): Float32Array {
  const channel = isDrums ? DRUM_CHANNEL : 0;
  const track: MidiEvent[] = [{ deltaTime: 0, type: 'programChange', channel, programNumber: program }];
  const ms = (s: number): number => Math.round(1000 * s);
  for (let noteNumber = lowest; noteNumber <= highest; noteNumber++) {
    track.push(
      { deltaTime: ms(GAP_S), type: 'noteOn', channel, noteNumber, velocity: 100 },
      { deltaTime: ms(seconds), type: 'noteOff', channel, noteNumber, velocity: 0 },
    );
  }
  track.push({ deltaTime: ms(GAP_S), type: 'endOfTrack', meta: true });
  const header = { format: 0, numTracks: 1, ticksPerBeat: TICKS_PER_QUARTER } as const;
  writeFileSync(`${stem}.mid`, Buffer.from(writeMidi({ header, tracks: [track] })));
  const quality = ['-R', '0', '-C', '0', '-g', '0.5', '-r', String(SAMPLE_RATE)];
  run('fluidsynth', ['-ni', '-q', ...quality, '-F', `${stem}.wav`, SOUNDFONTS[font], `${stem}.mid`]);
  const raw = run('ffmpeg', ['-v', 'error', '-i', `${stem}.wav`, '-ac', '1', '-f', 'f32le', '-']);
  rmSync(`${stem}.wav`);
  rmSync(`${stem}.mid`);
  return new Float32Array(raw.buffer, raw.byteOffset, raw.length / 4).slice();
}

function run(command: string, args: readonly string[]): Buffer {
  const { status, stdout, stderr } = spawnSync(command, args, { maxBuffer: 1 << 30 });
  if (status !== 0) throw new Error(`${command} failed: ${stderr.toString()}`);
  return stdout;
}

/** First sample above a quarter of the attack's peak: where a listener puts the note. */
function attackIn(samples: Float32Array, from: number): number {
  const end = from + Math.round(0.08 * SAMPLE_RATE);
  let peak = 0;
  for (let i = from; i < end; i++) peak = Math.max(peak, Math.abs(samples[i]));
  let at = from;
  while (at < end && Math.abs(samples[at]) < 0.25 * peak) at++;
  return Math.max(from, at - PRE_ROLL);
}

const banks = new Map<string, SoundBank>();

/** Rendered on first use, then read from the cache folder. */
export function soundBank(spec: BankSpec): SoundBank {
  const { font, program, isDrums, lowest, highest, seconds } = spec;
  const name = [font, isDrums ? 'kit' : 'program', program, lowest, highest, seconds].join('-');
  const known = banks.get(name);
  if (known) return known;
  mkdirSync(CACHE, { recursive: true });
  const stem = join(CACHE, name);
  if (!existsSync(`${stem}.f32`)) {
    writeFileSync(`${stem}.f32`, Buffer.from(render(spec, `${stem}-${process.pid}`).buffer));
  }
  const file = readFileSync(`${stem}.f32`);
  const all = new Float32Array(file.buffer, file.byteOffset, file.length / 4);
  const step = GAP_S + seconds;
  const samples = Array.from({ length: highest - lowest + 1 }, (_, i) => {
    const start = attackIn(all, Math.round((GAP_S + i * step) * SAMPLE_RATE));
    return all.subarray(start, start + Math.round(seconds * SAMPLE_RATE));
  });
  const bank: SoundBank = {
    sample(note) {
      const found = samples[note - lowest];
      if (!found) throw new RangeError(`note must be from ${lowest} to ${highest}, but was ${note}`);
      return found;
    },
  };
  banks.set(name, bank);
  return bank;
}
