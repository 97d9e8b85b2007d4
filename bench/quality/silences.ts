/**
 * `npm run bench:silences -- FOLDER`: rendered songs of the corpus (FOLDER/rendered, as `bench:corpus` leaves them) with a silence put in
 * at a bar line, of no whole number of beats: beats and downbeats of the whole analysis on both sides of it. Prints the means that stand in
 * `docs/experiments.md`.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as z from 'zod';
import { analyse } from '@wild-needle/core/analysis';
import { matchTimes } from './metrics';
import { readSound } from './read-sound';

/** Where the silence comes in, as a share of the song, and how long it lasts, s. */
const SILENCES = [
  [0.35, 5.3],
  [0.5, 11.37],
  [0.65, 4.41],
] as const;
/** The band stops this long before the bar line, and dies away over the last part of it, s. */
const BEFORE_S = 0.02;
const FADE_S = 0.18;
const SAME_BEAT_S = 0.07;
const SAME_TEMPO = 0.04;

const truthSchema = z.object({
  durationS: z.number(),
  tempoBpm: z.number(),
  beatsS: z.array(z.number()),
  downbeatsS: z.array(z.number()),
});

function f1(found: readonly number[], truth: readonly number[]): number {
  return (2 * matchTimes(found, truth, SAME_BEAT_S).length) / Math.max(1, found.length + truth.length);
}

function withSilence(
  channels: readonly Float32Array[],
  sampleRate: number,
  atS: number,
  lengthS: number,
): Float32Array[] {
  const [at, length, fade] = [atS, lengthS, FADE_S].map((s) => Math.round(s * sampleRate));
  return channels.map((samples) => {
    const out = new Float32Array(samples.length + length);
    out.set(samples.subarray(0, at));
    for (let n = 0; n < fade; n++) out[at - 1 - n] *= n / fade;
    out.set(samples.subarray(at), at + length);
    return out;
  });
}

const folder = join(process.argv[2] ?? '', 'rendered');
for (const [share, lengthS] of SILENCES) {
  const sums = { beats: 0, downbeats: 0, tempo: 0, free: 0 };
  const truths = readdirSync(folder).filter((name) => name.endsWith('.truth.json'));
  for (const file of truths) {
    const name = file.replace('.truth.json', '');
    const truth = truthSchema.parse(JSON.parse(readFileSync(join(folder, file), 'utf8')));
    const audio = readdirSync(folder).find((other) => other.startsWith(`${name}.`) && other !== file) ?? '';
    const { channels, sampleRate } = readSound(join(folder, audio));
    const wanted = share * truth.durationS;
    const bar = truth.downbeatsS.reduce((near, t) =>
      Math.abs(t - wanted) < Math.abs(near - wanted) ? t : near,
    );
    const atS = bar - BEFORE_S;
    const analysis = analyse({ channels: withSilence(channels, sampleRate, atS, lengthS), sampleRate });
    const moved = (timesS: readonly number[]): number[] => timesS.map((t) => (t < atS ? t : t + lengthS));
    const sounding = (timesS: readonly number[]): number[] =>
      timesS.filter((t) => t < atS || t > atS + lengthS - 0.1);
    sums.beats += f1(sounding(analysis.beatsS), moved(truth.beatsS));
    sums.downbeats += f1(sounding(analysis.downbeatsS), moved(truth.downbeatsS));
    sums.tempo += Math.abs((analysis.tempoBpm ?? 0) / truth.tempoBpm - 1) < SAME_TEMPO ? 1 : 0;
    sums.free += analysis.freeTime.length > 0 ? 1 : 0;
  }
  const mean = (sum: number): string => (sum / truths.length).toFixed(3);
  process.stdout.write(
    `${lengthS} s of silence at ${share}: beats ${mean(sums.beats)}, downbeats ${mean(sums.downbeats)}, tempo right ${sums.tempo} of ${truths.length}, free time in ${sums.free}\n`,
  );
}
