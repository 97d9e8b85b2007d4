/**
 * The time stretcher (signalsmith-stretch, MIT) as a typed node. It plays from buffers that it holds itself.
 * Its files are served beside the application, since a worklet can't be part of a bundle.
 */
import type { WaitingSound } from '../recording/waiting-sound';
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
  addBuffers(channels: WaitingSound[], transfer: ArrayBuffer[]): Promise<number>;
  dropBuffers(): Promise<unknown>;
  schedule(change: ScheduleChange): Promise<unknown>;
  latency(): Promise<number>;
}

type CreateNode = ((context: BaseAudioContext, options: AudioWorkletNodeOptions) => Promise<StretchNode>) & {
  moduleUrl: string;
};

/**
 * Blocks this long keep low strings in tune: 0.00 cents off at 82 Hz, against 14 with the preset. Overlapping eightfold, a steady
 * tone at a quarter of the speed flutters by 0.9 dB; fourfold it is 9 (docs/decisions/0010-sound.md).
 */
const BLOCK_MS = 120;
const OVERLAP = 8;
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
  await fitBlocks(node, 0);
  return node;
}

/** Blocks for a sound that was brought to another pitch: one that was made lower has longer periods, and wants longer blocks. */
export async function fitBlocks(node: StretchNode, madeSemitones: number): Promise<void> {
  const blockMs = BLOCK_MS * Math.max(1, 2 ** (-madeSemitones / 12));
  await node.configure({ blockMs, intervalMs: blockMs / OVERLAP, splitComputation: true });
}

/** The pitch that is wanted, and the one that the sound in the node has been brought to already. */
export interface Pitch {
  readonly semitones: number;
  readonly madeSemitones: number;
}

/**
 * Tells the node what to play from `segment.contextS` on; one that waits is replaced. A sound that was made higher is shorter: the
 * node is given its times, and the rate that brings them back. What is missing to the wanted pitch the node shifts itself. Fulfilled when the
 * node knows it.
 */
export async function scheduleSegment(
  node: StretchNode,
  { contextS, inputS, speed, loop }: Segment,
  active: boolean,
  { semitones, madeSemitones }: Pitch,
): Promise<void> {
  const ratio = 2 ** (madeSemitones / 12);
  await node.schedule({
    output: contextS,
    active,
    input: inputS / ratio,
    rate: speed / ratio,
    semitones: semitones - madeSemitones,
    // Equal ends switch the loop off.
    loopStart: (loop?.startS ?? 0) / ratio,
    loopEnd: (loop?.endS ?? 0) / ratio,
  });
}
