/** From stems to a record: places, levels, room, a loud master, and the codecs it was passed around in. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { applyBiquad, lowPass, peaking } from '@wild-needle/core/dsp';
import { ANALYSIS_SAMPLE_RATE } from '@wild-needle/core/mir';
import { dbToRatio, ratioToDb } from '@wild-needle/core/units';
import type { Stereo } from './backing';
import type { Chance } from './chance';
import { ffmpeg } from './ffmpeg';
import { SAMPLE_RATE } from './rates';

/** Level of the parts that sound, so that rests do not count. */
function activeLevel([left, right]: Stereo): number {
  const block = Math.round(0.05 * SAMPLE_RATE);
  const levels: number[] = [];
  for (let from = 0; from + block <= left.length; from += block) {
    let sum = 0;
    for (let n = from; n < from + block; n++) sum += left[n] * left[n] + right[n] * right[n];
    levels.push(Math.sqrt(sum / (2 * block)));
  }
  const loudest = levels.reduce((m, v) => Math.max(m, v), 0);
  const active = levels.filter((v) => v > 0.05 * loudest);
  return Math.sqrt(active.reduce((s, v) => s + v * v, 0) / Math.max(1, active.length)) || 1;
}

export function addStem(mix: Stereo, stem: Stereo, levelDb: number): void {
  const gain = dbToRatio(levelDb) / activeLevel(stem);
  mix.forEach((channel, c) => {
    const added = stem[c];
    for (let n = 0; n < channel.length; n++) channel[n] += gain * added[n];
  });
}

/** Constant power; -1 left, 1 right. */
export function placed(mono: Float32Array, pan: number): Stereo {
  const angle = ((pan + 1) * Math.PI) / 4;
  return [scaled(mono, Math.cos(angle)), scaled(mono, Math.sin(angle))];
}

function scaled(samples: Float32Array, gain: number): Float32Array {
  const out = new Float32Array(samples.length);
  for (let n = 0; n < out.length; n++) out[n] = samples[n] * gain;
  return out;
}

/** A room from a few delay lines that feed each other (after Jot and Chaigne 1991, feedback delay networks). */
export function addRoom(stem: Stereo, wet: number, decayS: number, chance: Chance): Stereo {
  const delays = Array.from({ length: 4 }, () => Math.round(chance.uniform(0.011, 0.047) * SAMPLE_RATE));
  const lines = delays.map((d) => new Float32Array(d));
  const gains = delays.map((d) => 10 ** ((-3 * d) / SAMPLE_RATE / decayS));
  const at = [0, 0, 0, 0];
  const outs = new Float32Array(4);
  const mixed = new Float32Array(4);
  const [inLeft, inRight] = stem;
  const left = inLeft.slice();
  const right = inRight.slice();
  for (let n = 0; n < left.length; n++) {
    for (let i = 0; i < 4; i++) outs[i] += 0.6 * (lines[i][at[i]] - outs[i]);
    // Hadamard mixing keeps the energy.
    const [evens, odds] = [outs[0] + outs[2], outs[1] + outs[3]];
    const [evenGap, oddGap] = [outs[0] - outs[2], outs[1] - outs[3]];
    mixed[0] = evens + odds;
    mixed[1] = evens - odds;
    mixed[2] = evenGap + oddGap;
    mixed[3] = evenGap - oddGap;
    for (let i = 0; i < 4; i++) {
      lines[i][at[i]] = 0.5 * gains[i] * mixed[i] + (i % 2 === 0 ? inLeft[n] : inRight[n]);
      at[i] = at[i] + 1 === delays[i] ? 0 : at[i] + 1;
    }
    left[n] += wet * evens;
    right[n] += wet * odds;
  }
  return [left, right];
}

/**
 * A bus compressor, in place: level detection and gain in decibels (Giannoulis, Massberg and Reiss 2012, "Digital dynamic
 * range compressor design", J. Audio Eng. Soc. 60, feed-forward with smoothed gain).
 */
function compress(mix: Stereo, chance: Chance): void {
  const thresholdDb = ratioToDb(activeLevel(mix)) + chance.uniform(-12, 2);
  const ratio = chance.uniform(1.5, 8);
  const attack = Math.exp(-1 / (chance.logUniform(0.002, 0.04) * SAMPLE_RATE));
  const release = Math.exp(-1 / (chance.logUniform(0.04, 0.4) * SAMPLE_RATE));
  const [left, right] = mix;
  let reductionDb = 0;
  for (let n = 0; n < left.length; n++) {
    const levelDb = ratioToDb(Math.max(Math.abs(left[n]), Math.abs(right[n]), 1e-6));
    const wantedDb = Math.max(0, levelDb - thresholdDb) * (1 - 1 / ratio);
    const keep = wantedDb > reductionDb ? attack : release;
    reductionDb = keep * reductionDb + (1 - keep) * wantedDb;
    const gain = dbToRatio(-reductionDb);
    left[n] *= gain;
    right[n] *= gain;
  }
}

export function master(mix: Stereo, chance: Chance): Stereo {
  const tilt = [
    peaking(90, SAMPLE_RATE, 0.5, chance.normal(0, 2)),
    peaking(6000, SAMPLE_RATE, 0.5, chance.normal(0, 2)),
  ];
  const cut = chance.yes(0.15) ? [lowPass(chance.uniform(5000, 12000), SAMPLE_RATE)] : [];
  const [left, right] = mix.map((channel) => applyBiquad(channel, ...tilt, ...cut));
  if (chance.yes(0.5)) compress([left, right], chance);
  let peak = 1e-9;
  for (let n = 0; n < left.length; n++) peak = Math.max(peak, Math.abs(left[n]), Math.abs(right[n]));
  const loud = chance.yes(0.6) ? chance.logUniform(1.2, 5) : 1;
  const gain = chance.uniform(0.5, 0.98);
  for (const channel of [left, right]) {
    for (let n = 0; n < channel.length; n++) {
      const v = channel[n];
      channel[n] = gain * (loud === 1 ? v / peak : Math.tanh((loud * v) / peak));
    }
  }
  return [left, right];
}

const CODECS = [
  ['mp3', ['-c:a', 'libmp3lame', '-b:a', '96k']],
  ['mp3', ['-c:a', 'libmp3lame', '-b:a', '128k']],
  ['mp3', ['-c:a', 'libmp3lame', '-b:a', '192k']],
  ['ogg', ['-c:a', 'libvorbis', '-q:a', '2']],
  ['opus', ['-c:a', 'libopus', '-b:a', '64k']],
  ['m4a', ['-c:a', 'aac', '-b:a', '128k']],
] as const;

/** Through a lossy codec or none, to the rate of the analysis; one channel or two as interleaved 16-bit samples. */
export function publish([left, right]: Stereo, channels: 1 | 2, isLossy: boolean, chance: Chance): Buffer {
  const interleaved = new Float32Array(2 * left.length);
  for (let n = 0; n < left.length; n++) [interleaved[2 * n], interleaved[2 * n + 1]] = [left[n], right[n]];
  const raw = Buffer.from(interleaved.buffer);
  const source = ['-f', 'f32le', '-ar', String(SAMPLE_RATE), '-ac', '2', '-i', '-'];
  const target = ['-ac', String(channels), '-ar', String(ANALYSIS_SAMPLE_RATE), '-f', 's16le', '-'];
  if (!isLossy) return ffmpeg([...source, ...target], raw);
  const [ending, options] = chance.pick(CODECS);
  const folder = mkdtempSync(join(tmpdir(), 'wn-training-'));
  const file = join(folder, `song.${ending}`);
  ffmpeg([...source, ...options, file], raw);
  const decoded = ffmpeg(['-i', file, ...target]);
  rmSync(folder, { recursive: true });
  return decoded;
}
