/**
 * From the bytes of an audio file to samples, by ffmpeg as a child process: isolated from this process, streaming. What can't
 * be used becomes an {@link AudioProblem} with a sentence for the user.
 */
import { access } from 'node:fs/promises';
import * as z from 'zod';
import { MAX_CHANNELS, MAX_DURATION_S } from '@wild-needle/contract';
import { AudioProblem, cutOff, notAudio, tooLong, tooManyChannels } from './audio-problem';
import { containerOf, FORMAT_WHITELIST } from './containers';
import { findCutOff } from './cut-off';
import { runTool, type ToolLimits } from './run-tool';

/** Peaks under -60 dBFS: nothing that could be transcribed. */
const SILENCE_PEAK = 0.001;
/** 40 dB over full scale: no sound, whatever the file says; infinities and what is no number are none either. */
const LOUDEST = 100;
/** A few of such samples are a scratch; more are a damaged file. */
const BROKEN_SHARE = 0.01;
/** Headers and contents may differ by encoder padding; a file that lacks more than this was cut off. */
const CUT_OFF_S = 1;

/** What a file says of itself: ID3, Vorbis comments, atoms of MP4, as ffprobe reads them; '' where it says nothing. */
export interface FileTags {
  readonly title: string;
  readonly artist: string;
}

interface Probe {
  readonly tags: FileTags;
  readonly durationS: number | null;
  /** Of ffmpeg's demuxer, and its options. */
  readonly demuxer: string;
  readonly options: readonly string[];
  readonly codec: string;
  readonly channels: number;
  readonly sampleRate: number;
}

/** Names of tags are written as their writers like. */
const tagsSchema = z.record(z.string(), z.string()).default({});

const probeSchema = z.object({
  format: z.object({
    duration: z.coerce.number().optional(),
    format_name: z.string(),
    tags: tagsSchema,
  }),
  streams: z.tuple([
    z.object({
      tags: tagsSchema,
      codec_name: z.string(),
      channels: z.int(),
      sample_rate: z.coerce.number(),
      duration: z.coerce.number().optional(),
    }),
  ]),
});

/** Nothing is opened but the file itself, and that only as what is taken. */
export const ONLY_THIS_FILE = ['-protocol_whitelist', 'file', '-format_whitelist', FORMAT_WHITELIST];

async function probe(path: string, limits: ToolLimits): Promise<Probe> {
  let json = '';
  const entries =
    'format=duration,format_name:format_tags:stream=codec_name,channels,sample_rate,duration:stream_tags';
  const { code, stderr } = await runTool(
    'ffprobe',
    [
      '-v',
      'error',
      ...ONLY_THIS_FILE,
      '-select_streams',
      'a:0',
      '-of',
      'json',
      '-show_entries',
      entries,
    ].concat('file:' + path),
    (chunk) => (json += chunk.toString()),
    limits,
  );
  // ffprobe gives up on hundreds of channels before it tells how many.
  if (/too many channels/i.test(stderr)) throw tooManyChannels(null);
  if (code !== 0) throw notAudio();
  const parsed = probeSchema.safeParse(JSON.parse(json));
  if (!parsed.success) throw notAudio();
  const { format, streams } = parsed.data;
  const [stream] = streams;
  const container = containerOf(format.format_name, stream.codec_name);
  if (!container || stream.channels < 1) throw notAudio();
  if (stream.channels > MAX_CHANNELS) throw tooManyChannels(stream.channels);
  return {
    tags: {
      title: tagOf('title', format.tags, stream.tags),
      artist: tagOf('artist', format.tags, stream.tags),
    },
    durationS: stream.duration ?? format.duration ?? null,
    demuxer: container.demuxer,
    options: container.options,
    codec: stream.codec_name,
    channels: Math.min(2, stream.channels),
    sampleRate: stream.sample_rate,
  };
}

/** The first that has it, on one line. */
function tagOf(name: string, ...all: readonly Readonly<Record<string, string>>[]): string {
  const values = all.flatMap((tags) =>
    Object.entries(tags).flatMap(([key, value]) => (key.toLowerCase() === name ? [value] : [])),
  );
  return (values.find((value) => value.trim() !== '') ?? '').replace(/[\s\p{C}]+/gu, ' ').trim();
}

export interface AudioFacts {
  readonly tags: FileTags;
  readonly durationS: number;
  readonly codec: string;
  /** One or two. */
  readonly channels: number;
  /** Of the file itself, before resampling. */
  readonly originalSampleRate: number;
}

export interface DecodedAudio extends Omit<AudioFacts, 'channels'> {
  /** One or two channels of equal length. */
  readonly channels: readonly Float32Array[];
  readonly sampleRate: number;
}

/** Samples as they come, interleaved: whole frames of as many samples as there are channels. */
export type OnSamples = (interleaved: Float32Array, channels: number) => void;

const FLOAT_BYTES = 4;

/** Whole frames out of pieces of any length. */
class Frames {
  private rest = Buffer.alloc(0);

  constructor(private readonly frameBytes: number) {}

  take(chunk: Buffer): Float32Array {
    const all = this.rest.length > 0 ? Buffer.concat([this.rest, chunk]) : chunk;
    const length = all.length - (all.length % this.frameBytes);
    this.rest = Buffer.from(all.subarray(length));
    // Copied, since samples must lie at a multiple of their size.
    return new Float32Array(new Uint8Array(all.subarray(0, length)).buffer);
  }
}

/**
 * Reads a whole file at `sampleRate`, handing over its samples as they come. Throws an {@link AudioProblem} for what is not audio,
 * empty, cut off, longer than 30 minutes, silent, damaged, or takes too long to read; a ToolFailure when ffmpeg itself fails.
 */
export async function readAudio(
  path: string,
  sampleRate: number,
  onSamples: OnSamples,
  limits: ToolLimits = {},
): Promise<AudioFacts> {
  await access(path).catch(() => {
    throw new AudioProblem('no-file', `There is no file ${path} that can be read.`);
  });
  const cut = await findCutOff(path);
  if (cut) throw cutOff(cut.share === null ? 'its end is missing' : `${percent(cut.share)} of it is there`);
  const facts = await probe(path, limits);
  if (facts.durationS !== null && facts.durationS > MAX_DURATION_S) throw tooLong(facts.durationS);

  const { channels } = facts;
  const frameBytes = FLOAT_BYTES * channels;
  const frames = new Frames(frameBytes);
  let samples = 0;
  let broken = 0;
  let peak = 0;
  const { code, stderr } = await runTool(
    'ffmpeg',
    [
      '-v',
      'error',
      '-nostdin',
      ...ONLY_THIS_FILE,
      '-f',
      facts.demuxer,
      ...facts.options,
      '-i',
      'file:' + path,
    ]
      .concat(['-map', '0:a:0', '-vn', '-t', String(MAX_DURATION_S + 1)])
      .concat(['-ac', String(channels), '-ar', String(sampleRate), '-f', 'f32le', '-']),
    (chunk) => {
      const part = frames.take(chunk);
      samples += part.length;
      for (let i = 0; i < part.length; i++) {
        const level = Math.abs(part[i]);
        if (!(level <= LOUDEST)) {
          broken++;
          part[i] = 0;
        } else if (level > peak) peak = level;
      }
      onSamples(part, channels);
    },
    { ...limits, maxBytes: (MAX_DURATION_S + 1) * sampleRate * frameBytes },
  );
  const durationS = samples / channels / sampleRate;
  if (samples === 0) {
    throw code === 0
      ? new AudioProblem('empty', 'This recording has no sound in it: it is 0 seconds long.')
      : notAudio();
  }
  if (durationS > MAX_DURATION_S) throw tooLong(durationS);
  const missing = facts.durationS === null ? 0 : facts.durationS - durationS;
  if (missing > CUT_OFF_S || /truncat|partial file|premature/i.test(stderr)) {
    throw cutOff(`${seconds(durationS)} of ${seconds(facts.durationS ?? durationS)} can be read`);
  }
  if (broken > BROKEN_SHARE * samples) {
    throw new AudioProblem(
      'broken-samples',
      'The samples of this recording are no sound: they are infinite or far over full scale. Export it again.',
    );
  }
  if (peak < SILENCE_PEAK) {
    throw new AudioProblem(
      'silent',
      'This recording is silent. Check the track that was exported, or the input level.',
    );
  }
  const { codec, tags, sampleRate: originalSampleRate } = facts;
  return { durationS, codec, channels, originalSampleRate, tags };
}

/** The whole file in memory, as {@link readAudio} reads it. */
export async function decodeAudio(path: string, sampleRate: number): Promise<DecodedAudio> {
  const parts: Float32Array[] = [];
  const { channels: count, ...facts } = await readAudio(path, sampleRate, (part) => parts.push(part));
  const frames = parts.reduce((sum, part) => sum + part.length, 0) / count;
  const channels = Array.from({ length: count }, () => new Float32Array(frames));
  let frame = 0;
  for (const part of parts) {
    for (let i = 0; i < part.length; i += count, frame++) {
      for (let c = 0; c < count; c++) channels[c][frame] = part[i + c];
    }
  }
  return { ...facts, channels, sampleRate };
}

function percent(share: number): string {
  return `${Math.floor(100 * share)} %`;
}

function seconds(s: number): string {
  return `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`;
}
