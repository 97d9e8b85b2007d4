/** Notes in seconds as sound: a MIDI file of them, played by Debian's fluidsynth. */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeMidi, type MidiEvent } from 'midi-file';

/** A MIDI file of 500 ticks a quarter at its default of 120 bpm: one tick is a millisecond. */
const TICKS_PER_QUARTER = 500;
/** Programs of General MIDI level 1, counted from 0, and its channel of drums. */
export const CLEAN_GUITAR = 27;
export const MUTED_GUITAR = 28;
export const OVERDRIVEN_GUITAR = 29;
export const FINGER_BASS = 33;
export const DRUMS = 9;

export interface Note {
  readonly channel: number;
  readonly key: number;
  readonly velocity: number;
  readonly fromS: number;
  readonly toS: number;
}

export function midiOf(notes: readonly Note[], programs: readonly number[], offsetCents: number): Buffer {
  const ms = (s: number): number => Math.round(1000 * s);
  const events = notes.flatMap(({ channel, key, velocity, fromS, toS }) => [
    { at: ms(fromS), event: { type: 'noteOn', channel, noteNumber: key, velocity } as const },
    { at: ms(toS), event: { type: 'noteOff', channel, noteNumber: key, velocity: 0 } as const },
  ]);
  events.sort((a, b) => a.at - b.at || (a.event.type === 'noteOff' ? -1 : 1));
  const track: MidiEvent[] = programs.flatMap((programNumber, channel) => [
    { deltaTime: 0, type: 'programChange', channel, programNumber },
    // The range of the wheel is two semitones (General MIDI level 1).
    { deltaTime: 0, type: 'pitchBend', channel, value: Math.round((offsetCents / 200) * 8192) },
  ]);
  let last = 0;
  for (const { at, event } of events) {
    track.push({ deltaTime: at - last, ...event });
    last = at;
  }
  track.push({ deltaTime: 1500, type: 'endOfTrack', meta: true });
  const header = { format: 0, numTracks: 1, ticksPerBeat: TICKS_PER_QUARTER } as const;
  return Buffer.from(writeMidi({ header, tracks: [track] }));
}

export function runTool(command: string, args: readonly string[]): void {
  const { status, stderr } = spawnSync(command, args, { timeout: 60000, encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} failed: ${stderr}`);
}

export function playMidi(soundfont: string, folder: string, name: string, midi: Buffer): string {
  const [file, wav] = [join(folder, `${name}.mid`), join(folder, `${name}.wav`)];
  writeFileSync(file, midi);
  runTool('fluidsynth', [
    '-ni',
    '-q',
    '-g',
    '0.6',
    '-R',
    '0',
    '-C',
    '0',
    '-r',
    '44100',
    '-F',
    wav,
    soundfont,
    file,
  ]);
  return wav;
}
