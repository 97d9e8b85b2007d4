/** The process that takes bands apart, see `separator.ts`: reads windows of a raw file, answers pieces. */
import { open, type FileHandle } from 'node:fs/promises';
import {
  interleaveParts,
  keptOf,
  KEPT_SAMPLES,
  SEPARATION_RATE,
  WINDOW_SAMPLES,
  windowStart,
  type BandParts,
} from '@wild-needle/core/parts';
import { separateRoughly } from '@wild-needle/core/separation';
import { FULL_SCALE } from '@wild-needle/core/units';
import { loadNetwork } from './network-engine';
import type { SeparatorAnswer, SeparatorStart, SeparatorTask } from './separator';

type Samples = Float32Array<ArrayBuffer>;
/** Takes the kept stretch of a window apart. */
type Separate = (window: readonly [Samples, Samples]) => Promise<BandParts>;

const FRAME_BYTES = 4;

async function separateBy({ engine, networkDir }: SeparatorStart): Promise<Separate> {
  const { from, to } = KEPT_SAMPLES;
  if (engine === 'rough') {
    return (window) => Promise.resolve(separateRoughly(window, SEPARATION_RATE, from, to));
  }
  const network = await loadNetwork(networkDir);
  return async (window) => keptOf(await network(window));
}

/** A window of the recording, silent before its start and after its end. */
async function readWindow(file: FileHandle, index: number): Promise<readonly [Samples, Samples]> {
  const start = windowStart(index);
  const before = Math.max(0, -start);
  const bytes = new Uint8Array(FRAME_BYTES * (WINDOW_SAMPLES - before));
  const { bytesRead } = await file.read(bytes, 0, bytes.length, FRAME_BYTES * Math.max(0, start));
  const read = new Int16Array(bytes.buffer, 0, 2 * Math.floor(bytesRead / FRAME_BYTES));
  const [left, right] = [new Float32Array(WINDOW_SAMPLES), new Float32Array(WINDOW_SAMPLES)];
  for (let n = 0; 2 * n < read.length; n++) {
    left[before + n] = read[2 * n] / FULL_SCALE;
    right[before + n] = read[2 * n + 1] / FULL_SCALE;
  }
  return [left, right];
}

let ready: Promise<{ readonly file: FileHandle; readonly separate: Separate }> | null = null;
let leavesMuchBehind = false;

async function answer(task: SeparatorTask): Promise<void> {
  if (task.kind === 'start') {
    leavesMuchBehind = task.engine === 'network';
    ready = Promise.all([open(task.rawPath, 'r'), separateBy(task)]).then(([file, separate]) => ({
      file,
      separate,
    }));
    // Told with the first piece that is wanted.
    ready.catch(() => undefined);
    return;
  }
  if (!ready) throw new Error('a piece was wanted before the start');
  const { file, separate } = await ready;
  const samples = interleaveParts(await separate(await readWindow(file, task.index)));
  tell({ kind: 'piece', index: task.index, samples: new Uint8Array(samples.buffer) });
  // A window of the network leaves a gigabyte behind, and the collector waits until it is pressed.
  if (leavesMuchBehind) globalThis.gc?.();
}

function tell(message: SeparatorAnswer): void {
  process.send?.(message);
}

process.on('message', (task: SeparatorTask) => {
  answer(task).catch((error: unknown) => {
    tell({ kind: 'failure', message: error instanceof Error ? error.message : String(error) });
  });
});
process.on('disconnect', () => process.exit(0));
