/**
 * The separation network on twelve seconds that Debian's fluidsynth plays, by the process that the server runs: `npm run test:instruments`.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeMidi, type MidiEvent } from 'midi-file';
import { afterAll, describe, expect, it } from 'vitest';
import {
  KEPT_SAMPLES,
  PARTS,
  PIECE_CHANNELS,
  SEPARATION_RATE,
  windowStart,
  type Part,
} from '@wild-needle/core/parts';
import { siSdrDb } from '@wild-needle/core/separation';
import { toInt16 } from '@wild-needle/core/units';
import { isNetworkHere } from './network-engine';
import { startSeparator } from './separator';

const SOUNDFONT = '/usr/share/sounds/sf2/FluidR3_GM.sf2';
const folder = mkdtempSync(join(tmpdir(), 'network-trial-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const SECONDS = 12;
const EIGHTH_TICKS = 240;
/** Half a second for two eighths: 120 beats a minute. */
const EIGHTHS = 4 * SECONDS;

interface Note {
  readonly eighth: number;
  readonly lasts: number;
  readonly midi: number;
}

/** Plays notes on one channel (General MIDI: programs and the drums of channel 10). */
function play(name: string, channel: number, program: number, notes: readonly Note[]): Float32Array {
  const events = notes.flatMap(({ eighth, lasts, midi }) => [
    { at: eighth * EIGHTH_TICKS, type: 'noteOn' as const, midi },
    { at: (eighth + lasts) * EIGHTH_TICKS - 1, type: 'noteOff' as const, midi },
  ]);
  events.sort((a, b) => a.at - b.at);
  let last = 0;
  const track: MidiEvent[] = [{ deltaTime: 0, type: 'programChange', channel, programNumber: program }];
  for (const { at, type, midi } of events) {
    track.push({ deltaTime: at - last, type, channel, noteNumber: midi, velocity: 100 });
    last = at;
  }
  track.push({ deltaTime: 4 * EIGHTH_TICKS, meta: true, type: 'endOfTrack' });
  const [midiPath, rawPath] = [join(folder, `${name}.mid`), join(folder, `${name}.raw`)];
  writeFileSync(
    midiPath,
    Uint8Array.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 480 }, tracks: [track] })),
  );
  const options = ['-ni', '-g', '0.5', '-R', '0', '-C', '0', '-r', String(SEPARATION_RATE), '-T', 'raw'];
  const { status } = spawnSync('fluidsynth', [...options, '-O', 's16', '-F', rawPath, SOUNDFONT, midiPath]);
  expect(status).toBe(0);
  const raw = new Int16Array(new Uint8Array(readFileSync(rawPath)).buffer);
  return Float32Array.from({ length: 2 * SECONDS * SEPARATION_RATE }, (_, n) => (raw[n] ?? 0) / 32768);
}

const every = (step: number, note: (eighth: number) => readonly Note[]): Note[] =>
  Array.from({ length: EIGHTHS / step }, (_, i) => note(i * step)).flat();
const ROOTS = [40, 43, 45, 47];
const rootAt = (eighth: number): number => ROOTS[Math.floor(eighth / 8) % ROOTS.length];
const STEMS: Partial<Record<Part, Float32Array>> = {
  drums: play('drums', 9, 0, [
    ...every(1, (eighth) => [{ eighth, lasts: 1, midi: 42 }]),
    ...every(4, (eighth) => [
      { eighth, lasts: 1, midi: 36 },
      { eighth: eighth + 2, lasts: 1, midi: 38 },
    ]),
  ]),
  bass: play(
    'bass',
    1,
    33,
    every(2, (eighth) => [{ eighth, lasts: 2, midi: rootAt(eighth) - 12 }]),
  ),
  guitars: play(
    'guitars',
    0,
    30,
    every(2, (eighth) => [0, 7, 12].map((up) => ({ eighth, lasts: 2, midi: rootAt(eighth) + up }))),
  ),
};

describe('the separation network', () => {
  const networkDir = process.env['WN_INSTRUMENTS'] ?? '';

  it('takes a band apart that fluidsynth plays', { timeout: 300_000 }, async () => {
    expect(isNetworkHere(networkDir)).toBe(true);
    const mix = STEMS.drums!.map((v, n) => 0.5 * (v + STEMS.bass![n] + STEMS.guitars![n]));
    const rawPath = join(folder, 'mix.raw');
    writeFileSync(rawPath, new Uint8Array(toInt16(mix).buffer));
    const separator = startSeparator(
      { engine: 'network', rawPath, networkDir },
      new AbortController().signal,
    );
    const startMs = performance.now();
    const samples = await separator.piece(0);
    const loadedMs = performance.now();
    await separator.piece(1);
    const seconds = (performance.now() - loadedMs) / 1000;
    separator.end();
    const lines = [
      `first piece after ${((loadedMs - startMs) / 1000).toFixed(1)} s, the next after ${seconds.toFixed(1)} s`,
    ];

    const frames = samples.length / PIECE_CHANNELS;
    const start = windowStart(0) + KEPT_SAMPLES.from;
    for (const [part, stem] of Object.entries(STEMS)) {
      const channels = (of: (n: number, c: number) => number): Float32Array[] =>
        [0, 1].map((c) => Float32Array.from({ length: frames }, (_, n) => of(n, c)));
      const reference = channels((n, c) => stem[2 * (start + n) + c] ?? 0);
      const index = 2 * PARTS.indexOf(part as Part);
      const made = siSdrDb(
        reference,
        channels((n, c) => samples[n * PIECE_CHANNELS + index + c]),
      );
      const floor = siSdrDb(
        reference,
        channels((n, c) => mix[2 * (start + n) + c] ?? 0),
      );
      lines.push(`${part}: ${made!.toFixed(1)} dB, the mix itself ${floor!.toFixed(1)} dB`);
      expect(made! - floor!).toBeGreaterThan(2);
    }
    process.stdout.write(`${lines.join('\n')}\n`);
  });
});
