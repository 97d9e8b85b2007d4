/**
 * Holds the recording and answers it as it is wanted: the part from the needle on first, so that it can be heard at once,
 * then the whole. A newer wish ends the older one.
 */
import { isolate } from '@wild-needle/core/dsp';
import { forEars, isolationOf } from '../audio/ears';
import type { IsolationAnswer, IsolationTask } from './isolation-client';

/** Heard first: as much as is processed in a moment; then pieces of this length between looks at the messages. */
const FIRST_S = 4;
const PIECE_S = 8;
const FULL_SCALE = 32767;

let source: { readonly channels: readonly [Int16Array, Int16Array]; readonly sampleRate: number } | null =
  null;
let wanted = 0;

const answer = (message: IsolationAnswer, transfer: Transferable[] = []): void => {
  postMessage(message, { transfer });
};

function toFloat(samples: Int16Array): Float32Array {
  const out = new Float32Array(samples.length);
  for (let n = 0; n < out.length; n++) out[n] = samples[n] / FULL_SCALE;
  return out;
}

/** Lets messages in that came meanwhile. */
function pause(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve));
}

async function hear({ id, hearing, fromS }: Extract<IsolationTask, { kind: 'hear' }>): Promise<void> {
  if (!source) return;
  const { sampleRate } = source;
  const plain: readonly [Float32Array, Float32Array] = [
    toFloat(source.channels[0]),
    toFloat(source.channels[1]),
  ];
  const send = (pair: readonly [Float32Array, Float32Array], isWhole: boolean): void => {
    const [left, right] = forEars(hearing.ears, pair);
    // Memory can be handed over only once.
    const channels = left === right ? [left, left.slice()] : [left, right];
    answer(
      { kind: 'heard', id, channels, isWhole },
      channels.map((c) => c.buffer),
    );
  };
  const isolation = isolationOf(hearing);
  if (!isolation) {
    send(plain, true);
    return;
  }
  const length = plain[0].length;
  const done: readonly [Float32Array, Float32Array] = [plain[0].slice(), plain[1].slice()];
  const process = (from: number, to: number): void => {
    isolate(plain, sampleRate, isolation, from, to).forEach((part, c) => done[c].set(part, from));
  };
  const first = Math.min(length, Math.max(0, Math.round(fromS * sampleRate)));
  const firstEnd = Math.min(length, first + FIRST_S * sampleRate);
  process(first, firstEnd);
  send([done[0].slice(), done[1].slice()], firstEnd - first === length);
  const piece = PIECE_S * sampleRate;
  let processed = firstEnd - first;
  // Onwards from the needle, then from the start up to it.
  for (const [from, to] of [
    [firstEnd, length],
    [0, first],
  ]) {
    for (let at = from; at < to; at += piece) {
      await pause();
      if (wanted !== id) return;
      process(at, Math.min(to, at + piece));
      processed += Math.min(to, at + piece) - at;
      answer({ kind: 'progress', id, share: processed / length });
    }
  }
  send(done, true);
}

addEventListener('message', ({ data }: MessageEvent<IsolationTask>) => {
  if (data.kind === 'load') source = { channels: data.channels, sampleRate: data.sampleRate };
  else {
    wanted = data.id;
    void hear(data);
  }
});
