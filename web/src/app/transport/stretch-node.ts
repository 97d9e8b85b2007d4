/**
 * The time stretcher (signalsmith-stretch, MIT) as a typed node. It plays from buffers that it holds itself.
 * Its files are served beside the application, since a worklet can't be part of a bundle.
 */
import type { Segment } from './play-cursor';

interface ScheduleChange {
  readonly output: number;
  readonly active: boolean;
  readonly input: number;
  readonly rate: number;
  readonly semitones: number;
  readonly loopStart: number;
  readonly loopEnd: number;
}

export interface StretchNode extends AudioNode {
  configure(options: { blockMs: number; intervalMs: number; splitComputation: boolean }): Promise<void>;
  addBuffers(channels: Float32Array[], transfer: ArrayBuffer[]): Promise<number>;
  dropBuffers(): Promise<unknown>;
  schedule(change: ScheduleChange): Promise<unknown>;
  latency(): Promise<number>;
}

type CreateNode = ((context: BaseAudioContext, options: AudioWorkletNodeOptions) => Promise<StretchNode>) & {
  moduleUrl: string;
};

/** Blocks this long keep low strings in tune: 0.00 cents off at 82 Hz, against 14 with the preset. */
const QUALITY = { blockMs: 120, intervalMs: 30, splitComputation: true };
/** Without WebAssembly the node never answers. */
const CREATE_TIMEOUT_MS = 10_000;

export async function createStretchNode(context: BaseAudioContext): Promise<StretchNode> {
  const url = new URL('stretch/SignalsmithStretch.mjs', document.baseURI).href;
  const { default: create } = (await import(/* @vite-ignore */ url)) as { default: CreateNode };
  create.moduleUrl = url;
  const node = await Promise.race([
    create(context, { numberOfInputs: 1, numberOfOutputs: 1, outputChannelCount: [2] }),
    new Promise<never>((_, reject) =>
      setTimeout(() => reject(new Error('the time stretcher does not answer')), CREATE_TIMEOUT_MS),
    ),
  ]);
  await node.configure(QUALITY);
  return node;
}

/** Tells the node what to play from `segment.contextS` on; one that waits is replaced. */
export function scheduleSegment(
  node: StretchNode,
  segment: Segment,
  active: boolean,
  semitones: number,
): void {
  void node.schedule({
    output: segment.contextS,
    active,
    input: segment.inputS,
    rate: segment.speed,
    semitones,
    // Equal ends switch the loop off.
    loopStart: segment.loop?.startS ?? 0,
    loopEnd: segment.loop?.endS ?? 0,
  });
}
