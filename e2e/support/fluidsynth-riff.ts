/**
 * A recording that the project's own synthesizer did not make: Debian's fluidsynth with the FluidR3 soundfont plays
 * a four-bar power-chord riff with bass and drums; the clean guitars, left and right, go through an amplifier stage
 * of ffmpeg's filters (soft clipping of the summed strings).
 */
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const SOUNDFONT = '/usr/share/sounds/sf2/FluidR3_GM.sf2';
const RATE = 44100;
const TICKS_PER_QUARTER = 480;
export const BPM = 112;

/** Eighths of each bar: lowest note of a power chord (root, fifth, octave), null = it rings on. */
export const RIFF: readonly (readonly (number | null)[])[] = [
  [40, null, null, null, 43, null, 45, null],
  [40, null, null, null, 47, null, 45, null],
  [43, null, null, null, 45, null, null, null],
  [48, null, null, null, 47, null, null, null],
];
const TIMES_PLAYED = 4;

/** Notes of the power chord on this lowest note. */
export function chordOf(root: number): number[] {
  return [root, root + 7, root + 12];
}

interface Event {
  readonly tick: number;
  readonly bytes: readonly number[];
}

/** Variable-length quantity of Standard MIDI Files 1.0. */
function quantity(value: number): number[] {
  const bytes = [value & 0x7f];
  for (let rest = value >> 7; rest > 0; rest >>= 7) bytes.unshift((rest & 0x7f) | 0x80);
  return bytes;
}

function midiFile(events: readonly Event[]): Buffer {
  const sorted = [...events].sort((a, b) => a.tick - b.tick);
  const usPerQuarter = Math.round(60_000_000 / BPM);
  const track = [0, 0xff, 0x51, 3, (usPerQuarter >> 16) & 255, (usPerQuarter >> 8) & 255, usPerQuarter & 255];
  let last = 0;
  for (const { tick, bytes } of sorted) {
    track.push(...quantity(tick - last), ...bytes);
    last = tick;
  }
  track.push(...quantity(TICKS_PER_QUARTER * 2), 0xff, 0x2f, 0);
  const header = Buffer.from([
    0x4d,
    0x54,
    0x68,
    0x64,
    0,
    0,
    0,
    6,
    0,
    0,
    0,
    1,
    TICKS_PER_QUARTER >> 8,
    TICKS_PER_QUARTER & 255,
  ]);
  const length = Buffer.alloc(4);
  length.writeUInt32BE(track.length);
  return Buffer.concat([header, Buffer.from('MTrk'), length, Buffer.from(track)]);
}

function note(channel: number, key: number, velocity: number, tick: number, length: number): Event[] {
  return [
    { tick, bytes: [0x90 | channel, key, velocity] },
    { tick: tick + length, bytes: [0x80 | channel, key, 0] },
  ];
}

/** Strums of the whole recording: tick, lowest note, length. */
function strums(): { tick: number; root: number; length: number }[] {
  const eighth = TICKS_PER_QUARTER / 2;
  const all: { tick: number; root: number; length: number }[] = [];
  for (let pass = 0; pass < TIMES_PLAYED; pass++) {
    RIFF.forEach((bar, b) =>
      bar.forEach((root, e) => {
        if (root === null) return;
        let eighths = 1;
        while (e + eighths < bar.length && bar[e + eighths] === null) eighths++;
        // One bar of silence first.
        const tick = ((pass * RIFF.length + b) * 8 + e + 2) * eighth;
        all.push({ tick, root, length: eighths * eighth - 20 });
      }),
    );
  }
  return all;
}

/** `lateTicks`: two takes are never together. */
function guitar(lateTicks: number): Event[] {
  const CLEAN_GUITAR = 27;
  return [
    { tick: 0, bytes: [0xc0, CLEAN_GUITAR] },
    ...strums().flatMap(({ tick, root, length }) =>
      chordOf(root).flatMap((key, i) => note(0, key, 100, tick + lateTicks + i * 2, length)),
    ),
  ];
}

function bassAndDrums(): Event[] {
  const eighth = TICKS_PER_QUARTER / 2;
  const drums: Event[] = [];
  for (let e = 0; e < TIMES_PLAYED * RIFF.length * 8; e++) {
    const tick = (e + 2) * eighth;
    drums.push(...note(9, 42, 60, tick, 60));
    if (e % 8 === 0 || e % 8 === 5) drums.push(...note(9, 36, 105, tick, 60));
    if (e % 8 === 2 || e % 8 === 6) drums.push(...note(9, 38, 100, tick, 60));
    if (e % 32 === 0) drums.push(...note(9, 49, 105, tick, 60));
  }
  const FINGER_BASS = 33;
  return [
    { tick: 0, bytes: [0xc1, FINGER_BASS] },
    ...strums().flatMap(({ tick, root, length }) => note(1, root - 12, 90, tick, length)),
    ...drums,
  ];
}

function run(command: string, args: readonly string[]): void {
  const { status, stderr } = spawnSync(command, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} failed: ${stderr}`);
}

function play(folder: string, name: string, events: readonly Event[]): string {
  const midi = join(folder, `${name}.mid`);
  const wav = join(folder, `${name}.wav`);
  writeFileSync(midi, midiFile(events));
  run('fluidsynth', [
    '-ni',
    '-q',
    '-g',
    '0.6',
    '-R',
    '0',
    '-C',
    '0',
    '-r',
    String(RATE),
    '-F',
    wav,
    SOUNDFONT,
    midi,
  ]);
  return wav;
}

/** Writes the recording into `folder`, played by a tape so many cents fast, and answers the path of the WAV file. */
export function renderRiff(folder: string, { centsSharp = 0 } = {}): string {
  const left = play(folder, 'left', guitar(0));
  const right = play(folder, 'right', guitar(9));
  const rest = play(folder, 'rest', bassAndDrums());
  const out = join(folder, 'four-bar riff.wav');
  // Tighten, drive, clip, loudspeaker.
  const amplifier =
    'pan=mono|c0=0.5*c0+0.5*c1,highpass=f=90,volume=20dB,asoftclip=type=tanh:oversample=4,lowpass=f=5000,volume=-9dB';
  run('ffmpeg', [
    ...['-v', 'error', '-y', '-i', left, '-i', right, '-i', rest, '-filter_complex'],
    `[0:a]${amplifier}[l];[1:a]${amplifier}[r];[l][r]join=inputs=2:channel_layout=stereo[g];` +
      '[2:a]volume=0dB[b];[g][b]amix=inputs=2:duration=shortest:normalize=0,alimiter=limit=0.9,' +
      `asetrate=${Math.round(RATE * 2 ** (centsSharp / 1200))},aresample=${RATE}[o]`,
    ...['-map', '[o]', '-c:a', 'pcm_s16le', out],
  ]);
  if (readFileSync(out).length < 1_000_000) throw new Error('the rendered recording is too short');
  return out;
}
