/**
 * From the bytes of an audio file to samples, by ffmpeg as a child process: every usual format, isolated from
 * this process, streaming. What can't be used becomes an {@link AudioProblem} with a sentence for the user.
 */
import { spawn } from 'node:child_process';
import { access } from 'node:fs/promises';
import type { AudioProblemCode } from '@wild-needle/contract';
import { findCutOff } from './cut-off';

export const MAX_DURATION_S = 30 * 60;
/** Peaks under -60 dBFS: nothing that could be transcribed. */
const SILENCE_PEAK = 0.001;
/** Headers and contents may differ by encoder padding; a file that lacks more than this was cut off. */
const CUT_OFF_S = 1;

export class AudioProblem extends Error {
  constructor(
    readonly code: AudioProblemCode,
    message: string,
  ) {
    super(message);
    this.name = 'AudioProblem';
  }
}

interface Probe {
  readonly durationS: number | null;
  readonly format: string;
  readonly codec: string;
  readonly channels: number;
  readonly sampleRate: number;
}

/** Runs a program and collects its output; rejects only when it can't be started. */
function run(
  command: string,
  args: readonly string[],
  onData: (chunk: Buffer) => void,
): Promise<{ code: number | null; stderr: string }> {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    let stderr = '';
    child.stdout.on('data', onData);
    child.stderr.on('data', (chunk: Buffer) => {
      if (stderr.length < 10_000) stderr += chunk.toString();
    });
    child.on('error', (error) =>
      reject(new Error(`${command} could not be started (${error.message}); npm start installs it`)),
    );
    child.on('close', (code) => resolve({ code, stderr }));
  });
}

const NOT_AUDIO = 'This file is not audio we can read. WAV, FLAC, OGG Vorbis, Opus, MP3 and M4A (AAC) work.';

async function probe(path: string): Promise<Probe> {
  let json = '';
  const { code } = await run(
    'ffprobe',
    ['-v', 'error', '-protocol_whitelist', 'file', '-select_streams', 'a:0', '-of', 'json']
      .concat([
        '-show_entries',
        'format=duration,format_name:stream=codec_name,channels,sample_rate,duration',
      ])
      .concat(['file:' + path]),
    (chunk) => (json += chunk.toString()),
  );
  const parsed = JSON.parse(json || '{}') as {
    format?: { duration?: string; format_name?: string };
    streams?: { codec_name?: string; channels?: number; sample_rate?: string; duration?: string }[];
  };
  const stream = parsed.streams?.[0];
  if (code !== 0 || !stream) throw new AudioProblem('not-audio', NOT_AUDIO);
  const duration = Number(stream.duration ?? parsed.format?.duration);
  return {
    durationS: Number.isFinite(duration) ? duration : null,
    format: parsed.format?.format_name ?? '',
    codec: stream.codec_name ?? '',
    channels: Math.min(2, stream.channels ?? 1),
    sampleRate: Number(stream.sample_rate ?? 0),
  };
}

/** Containers and codecs that are promised to work; others are refused even where ffmpeg could read them. */
const CODECS = /^(pcm_.*|flac|vorbis|opus|mp3(float)?|aac)$/;

export interface DecodedAudio {
  /** One or two channels of equal length. */
  readonly channels: readonly Float32Array[];
  readonly sampleRate: number;
  readonly codec: string;
  /** Of the file itself, before resampling. */
  readonly originalSampleRate: number;
}

/**
 * Decodes a whole file at `sampleRate`. Throws an {@link AudioProblem} for what is not audio, empty, cut off,
 * longer than 30 minutes or silent.
 */
export async function decodeAudio(path: string, sampleRate: number): Promise<DecodedAudio> {
  await access(path).catch(() => {
    throw new AudioProblem('no-file', `There is no file ${path} that can be read.`);
  });
  const cut = await findCutOff(path);
  if (cut) throw cutOff(cut.share === null ? 'its end is missing' : `${percent(cut.share)} of it is there`);
  const facts = await probe(path);
  if (!CODECS.test(facts.codec)) throw new AudioProblem('not-audio', NOT_AUDIO);
  if (facts.durationS !== null && facts.durationS > MAX_DURATION_S) throw tooLong(facts.durationS);

  const chunks: Buffer[] = [];
  let bytes = 0;
  const maxBytes = (MAX_DURATION_S + 1) * sampleRate * facts.channels * 4;
  const { code, stderr } = await run(
    'ffmpeg',
    ['-v', 'error', '-nostdin', '-protocol_whitelist', 'file', '-i', 'file:' + path, '-map', '0:a:0', '-vn']
      .concat(['-t', String(MAX_DURATION_S + 1), '-ac', String(facts.channels), '-ar', String(sampleRate)])
      .concat(['-f', 'f32le', '-']),
    (chunk) => {
      bytes += chunk.length;
      if (bytes <= maxBytes) chunks.push(chunk);
    },
  );
  const interleaved = joinFloats(chunks);
  const frames = Math.floor(interleaved.length / facts.channels);
  const durationS = frames / sampleRate;
  if (frames === 0) {
    throw code === 0
      ? new AudioProblem('empty', 'This recording has no sound in it: it is 0 seconds long.')
      : new AudioProblem('not-audio', NOT_AUDIO);
  }
  if (durationS > MAX_DURATION_S) throw tooLong(durationS);
  const missing = facts.durationS === null ? 0 : facts.durationS - durationS;
  if (missing > CUT_OFF_S || /truncat|partial file|premature/i.test(stderr)) {
    throw cutOff(`${seconds(durationS)} of ${seconds(facts.durationS ?? durationS)} can be read`);
  }

  const channels = Array.from({ length: facts.channels }, () => new Float32Array(frames));
  let peak = 0;
  for (let i = 0; i < frames; i++) {
    for (let c = 0; c < facts.channels; c++) {
      const v = interleaved[i * facts.channels + c];
      channels[c][i] = v;
      if (Math.abs(v) > peak) peak = Math.abs(v);
    }
  }
  if (peak < SILENCE_PEAK) {
    throw new AudioProblem(
      'silent',
      'This recording is silent. Check the track that was exported, or the input level.',
    );
  }
  return { channels, sampleRate, codec: facts.codec, originalSampleRate: facts.sampleRate };
}

function joinFloats(chunks: readonly Buffer[]): Float32Array {
  const all = Buffer.concat(chunks);
  return new Float32Array(all.buffer, all.byteOffset, Math.floor(all.length / 4));
}

function cutOff(what: string): AudioProblem {
  return new AudioProblem('cut-off', `This file is cut off: ${what}. Copy or download it again.`);
}

function percent(share: number): string {
  return `${Math.floor(100 * share)} %`;
}

function tooLong(durationS: number): AudioProblem {
  return new AudioProblem(
    'too-long',
    `This recording is ${Math.round(durationS / 60)} minutes long; up to 30 minutes work. Cut out the song and try again.`,
  );
}

function seconds(s: number): string {
  return `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`;
}
