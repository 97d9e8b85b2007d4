/**
 * `npm run bench:separation -- STEMS REAL [NETWORK]`: how well each engine takes a band apart, as scale-invariant signal-to-distortion
 * ratio in dB, beside that of the mix itself, which is what nothing done would reach. STEMS: what `bench/separation/render-stems.py` writes;
 * REAL: real songs with the guitar on a track of its own; NETWORK: the folder that `npm run get:instruments` fills. Three pieces (18 s)
 * from the middle of each song.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  keptOf,
  KEPT_SAMPLES,
  PARTS,
  PIECE_S,
  SEPARATION_RATE,
  WINDOW_SAMPLES,
  windowStart,
  type BandParts,
  type Part,
} from '@wild-needle/core/parts';
import { separateRoughly, siSdrDb } from '@wild-needle/core/separation';
import { loadNetwork } from '../../server/src/audio/network-engine';
import { timesRealTime } from './whole-job';

type Samples = Float32Array<ArrayBuffer>;
type Pair = readonly [Samples, Samples];
type Separate = (window: Pair) => Promise<BandParts>;

const PIECES = 3;
const MARGIN = windowStart(0) + KEPT_SAMPLES.from;
const LENGTH = PIECES * PIECE_S * SEPARATION_RATE;

function read(path: string): Pair {
  const format = ['-f', 'f32le', '-ac', '2', '-ar', String(SEPARATION_RATE), '-'];
  const { status, stdout, stderr } = spawnSync('ffmpeg', ['-v', 'error', '-i', path, ...format], {
    maxBuffer: 2 ** 31,
  });
  if (status !== 0) throw new Error(`ffmpeg failed: ${stderr.toString()}`);
  const all = new Float32Array(new Uint8Array(stdout).buffer);
  const [left, right] = [0, 1].map((c) =>
    Float32Array.from({ length: all.length >> 1 }, (_, n) => all[2 * n + c]),
  );
  return [left, right];
}

function cut(pair: Pair, from: number, length: number): Pair {
  const [left, right] = pair.map((channel) => {
    const samples = new Float32Array(length);
    const start = Math.max(0, -from);
    samples.set(channel.subarray(Math.max(0, from), Math.max(0, from + length)), start);
    return samples;
  });
  return [left, right];
}

/** The pieces from `first` on, put together without their margins. */
async function takeApart(mix: Pair, first: number, separate: Separate): Promise<Record<Part, Pair>> {
  const whole = (): Pair => [new Float32Array(LENGTH), new Float32Array(LENGTH)];
  const parts = { drums: whole(), bass: whole(), voice: whole(), guitars: whole() };
  const piece = PIECE_S * SEPARATION_RATE;
  for (let i = 0; i < PIECES; i++) {
    const made = await separate(cut(mix, windowStart(first + i), WINDOW_SAMPLES));
    for (const part of PARTS) {
      parts[part].forEach((channel, c) => {
        channel.set(made[part][c].subarray(-MARGIN, piece - MARGIN), i * piece);
      });
    }
  }
  return parts;
}

const rough: Separate = (window) =>
  Promise.resolve(separateRoughly(window, SEPARATION_RATE, KEPT_SAMPLES.from, KEPT_SAMPLES.to));

async function networkOf(folder: string): Promise<Separate> {
  const network = await loadNetwork(folder);
  return async (window) => keptOf(await network(window));
}

interface Song {
  readonly name: string;
  readonly mix: string;
  readonly parts: Partial<Record<Part, string>>;
}

function songsOf(stems: string, real: string): Song[] {
  const rendered = readdirSync(stems)
    .filter((file) => file.endsWith('.mix.wav'))
    .map((file) => {
      const name = file.replace('.mix.wav', '');
      const parts = PARTS.flatMap((part) => {
        const path = join(stems, `${name}.${part}.wav`);
        return existsSync(path) ? [[part, path] as const] : [];
      });
      return { name, mix: join(stems, file), parts: Object.fromEntries(parts) };
    })
    // A guitar that plays alone is apart already.
    .filter(({ parts }) => Object.keys(parts).length > 1);
  const recorded = readdirSync(real)
    .filter((file) => file.endsWith('.mix.flac'))
    .map((file) => {
      const name = file.replace('.mix.flac', '');
      return { name, mix: join(real, file), parts: { guitars: join(real, `${name}.guitar.flac`) } };
    });
  return [...rendered, ...recorded];
}

async function main([stems, real, networkDir]: readonly string[]): Promise<void> {
  const engines: [string, Separate][] = [['rough', rough]];
  if (networkDir) engines.push(['network', await networkOf(networkDir)]);
  const sums = new Map<string, number[]>();
  const note = (kind: string, engine: string, db: number | null): void => {
    if (db !== null) sums.set(`${kind} ${engine}`, [...(sums.get(`${kind} ${engine}`) ?? []), db]);
  };
  const seconds = new Map<string, number>();
  const wholeJobs: number[] = [];
  for (const { name, mix, parts } of songsOf(stems, real)) {
    const sound = read(mix);
    const first = Math.floor(sound[0].length / SEPARATION_RATE / PIECE_S / 2) - 1;
    const from = first * PIECE_S * SEPARATION_RATE;
    const references = Object.entries(parts).map(
      ([part, path]) => [part as Part, cut(read(path), from, LENGTH)] as const,
    );
    const kindOf = (part: Part): string => (name.startsWith('real') ? `real ${part}` : part);
    for (const [part, reference] of references) {
      note(kindOf(part), 'mix', siSdrDb(reference, cut(sound, from, LENGTH)));
    }
    if (name.startsWith('real')) {
      wholeJobs.push(await timesRealTime(mix, sound[0].length / SEPARATION_RATE));
    }
    for (const [engine, separate] of engines) {
      const startMs = performance.now();
      const made = await takeApart(sound, first, separate);
      seconds.set(
        engine,
        (seconds.get(engine) ?? 0) + (performance.now() - startMs) / 1000 / (PIECES * PIECE_S),
      );
      for (const [part, reference] of references) {
        note(kindOf(part), engine, siSdrDb(reference, made[part]));
      }
    }
    process.stdout.write(`${name} done\n`);
  }
  for (const [key, values] of sums) {
    const mean = values.reduce((sum, v) => sum + v, 0) / values.length;
    process.stdout.write(`${key}: ${mean.toFixed(1)} dB (${values.map((v) => v.toFixed(1)).join(', ')})\n`);
  }
  const songs = songsOf(stems, real).length;
  const paces = [...seconds].map(([engine, sum]) => [engine, Number((sum / songs).toFixed(2))] as const);
  const result = {
    command: 'npm run bench:separation',
    workForASecondOfSound: Object.fromEntries(paces),
    wholeJobTimesRealTime: wholeJobs.map((times) => Number(times.toFixed(1))),
    // Of this process, songs and all; KB by getrusage(2).
    mostMemoryGb: Number((process.resourceUsage().maxRSS / 1e6).toFixed(1)),
  };
  writeFileSync(join(import.meta.dirname, 'results.json'), `${JSON.stringify(result, null, 2)}\n`);
  process.stdout.write(`${JSON.stringify(result)}\n`);
}

await main(process.argv.slice(2));
