/**
 * A recording that the project's own synthesizer did not make: Debian's fluidsynth with the FluidR3 soundfont plays
 * a four-bar power-chord riff with bass and drums; the clean guitars, left and right, go through an amplifier stage
 * of ffmpeg's filters (soft clipping of the summed strings).
 */
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const SOUNDFONT = '/usr/share/sounds/sf2/FluidR3_GM.sf2';
const RATE = 44100;
const TICKS_PER_QUARTER = 480;
export const BPM = 112;

/** Lowest note of a power chord (root, fifth, octave), palm-muted or not; null = what was struck rings on. */
export type Step = number | { readonly muted: number } | null;
/** The steps of a bar of four beats, all of one length: eight or sixteen of them. */
export type Bar = readonly Step[];

/** Eighths of each bar. */
export const RIFF: readonly (readonly (number | null)[])[] = [
  [40, null, null, null, 43, null, 45, null],
  [40, null, null, null, 47, null, 45, null],
  [43, null, null, null, 45, null, null, null],
  [48, null, null, null, 47, null, null, null],
];
const TIMES_PLAYED = 4;

/** What a band plays: all its bars, one after the other, behind a quarter of silence. */
export interface Arrangement {
  /** The file is called so, and the song after it. */
  readonly name: string;
  readonly bpm: number;
  readonly bars: readonly Bar[];
  /** What the right guitar plays, where that is something else. */
  readonly rightBars?: readonly Bar[];
  /** How loud the guitars are against the band, dB. */
  readonly guitarsDb?: number;
  /** Notes of a voice over the band, in halves, over and over; it covers what the guitars play. */
  readonly voice?: readonly number[];
}
const FOUR_BARS: Arrangement = {
  name: 'four-bar riff',
  bpm: BPM,
  bars: Array.from({ length: TIMES_PLAYED }, () => RIFF).flat(),
};

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

function midiFile(events: readonly Event[], bpm: number): Buffer {
  const sorted = [...events].sort((a, b) => a.tick - b.tick);
  const usPerQuarter = Math.round(60_000_000 / bpm);
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

export interface Struck {
  /** Beats from the first bar on. */
  readonly beat: number;
  readonly beats: number;
  readonly root: number;
  readonly muted: boolean;
}

/** Everything that is struck, in order. */
export function strumsOf(bars: readonly Bar[]): Struck[] {
  return bars.flatMap((bar, b) =>
    bar.flatMap((step, i): Struck[] => {
      if (step === null) return [];
      let steps = 1;
      while (i + steps < bar.length && bar[i + steps] === null) steps++;
      const [root, muted] = typeof step === 'number' ? [step, false] : [step.muted, true];
      return [{ beat: 4 * b + (4 * i) / bar.length, beats: (4 * steps) / bar.length, root, muted }];
    }),
  );
}

/** A quarter of silence comes first; a note ends a little before the next. */
const tickOf = (beat: number): number => Math.round((beat + 1) * TICKS_PER_QUARTER);
const lengthOf = (beats: number): number => Math.round(beats * TICKS_PER_QUARTER) - 20;

/** `lateTicks`: two takes are never together. Open and muted strings are two instruments of General MIDI. */
function guitar(bars: readonly Bar[], lateTicks: number): Event[] {
  const CLEAN_GUITAR = 27;
  const MUTED_GUITAR = 28;
  return [
    { tick: 0, bytes: [0xc0, CLEAN_GUITAR] },
    { tick: 0, bytes: [0xc2, MUTED_GUITAR] },
    ...strumsOf(bars).flatMap(({ beat, beats, root, muted }) =>
      chordOf(root).flatMap((key, i) =>
        note(muted ? 2 : 0, key, 100, tickOf(beat) + lateTicks + i * 2, lengthOf(beats)),
      ),
    ),
  ];
}

function bassDrumsAndVoice({ bars, voice = [] }: Arrangement): Event[] {
  const drums: Event[] = [];
  for (let e = 0; e < bars.length * 8; e++) {
    const tick = tickOf(e / 2);
    drums.push(...note(9, 42, 60, tick, 60));
    if (e % 8 === 0 || e % 8 === 5) drums.push(...note(9, 36, 105, tick, 60));
    if (e % 8 === 2 || e % 8 === 6) drums.push(...note(9, 38, 100, tick, 60));
    if (e % 32 === 0) drums.push(...note(9, 49, 105, tick, 60));
  }
  const FINGER_BASS = 33;
  const CHOIR = 52;
  const sung = Array.from({ length: voice.length > 0 ? 2 * bars.length : 0 }, (_, half) =>
    note(3, voice[half % voice.length], 100, tickOf(2 * half), lengthOf(2)),
  );
  return [
    { tick: 0, bytes: [0xc1, FINGER_BASS] },
    { tick: 0, bytes: [0xc3, CHOIR] },
    ...sung.flat(),
    ...strumsOf(bars).flatMap(({ beat, beats, root }) =>
      note(1, root - 12, 90, tickOf(beat), lengthOf(beats)),
    ),
    ...drums,
  ];
}

function run(command: string, args: readonly string[]): void {
  const { status, stderr } = spawnSync(command, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} failed: ${stderr}`);
}

function play(folder: string, name: string, bpm: number, events: readonly Event[]): string {
  const midi = join(folder, `${name}.mid`);
  const wav = join(folder, `${name}.wav`);
  writeFileSync(midi, midiFile(events, bpm));
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

/** Writes a recording into `folder`, played by a tape so many cents fast, and answers the path of the WAV file. */
export function renderRiff(
  folder: string,
  {
    centsSharp = 0,
    arrangement = FOUR_BARS,
  }: { readonly centsSharp?: number; readonly arrangement?: Arrangement } = {},
): string {
  mkdirSync(folder, { recursive: true });
  const left = play(folder, 'left', arrangement.bpm, guitar(arrangement.bars, 0));
  const right = play(folder, 'right', arrangement.bpm, guitar(arrangement.rightBars ?? arrangement.bars, 9));
  const rest = play(folder, 'rest', arrangement.bpm, bassDrumsAndVoice(arrangement));
  const out = join(folder, `${arrangement.name}.wav`);
  // Tighten, drive, clip, loudspeaker.
  const amplifier =
    'pan=mono|c0=0.5*c0+0.5*c1,highpass=f=90,volume=20dB,asoftclip=type=tanh:oversample=4,lowpass=f=5000,volume=-9dB';
  const guitars = `volume=${arrangement.guitarsDb ?? 0}dB`;
  run('ffmpeg', [
    ...['-v', 'error', '-y', '-i', left, '-i', right, '-i', rest, '-filter_complex'],
    `[0:a]${amplifier}[l];[1:a]${amplifier}[r];[l][r]join=inputs=2:channel_layout=stereo,${guitars}[g];` +
      '[2:a]volume=0dB[b];[g][b]amix=inputs=2:duration=shortest:normalize=0,alimiter=limit=0.9,' +
      `asetrate=${Math.round(RATE * 2 ** (centsSharp / 1200))},aresample=${RATE}[o]`,
    ...['-map', '[o]', '-c:a', 'pcm_s16le', out],
  ]);
  if (readFileSync(out).length < 1_000_000) throw new Error('the rendered recording is too short');
  return out;
}
