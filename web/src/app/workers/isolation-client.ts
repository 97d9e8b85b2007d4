/** The typed way to the worker that makes what is heard; it lives as long as a recording is open. */
import type { SongDocument } from '@wild-needle/core/riff';
import type { Hearing } from '../audio/ears';

export type IsolationTask =
  | {
      readonly kind: 'load';
      /** 16 bits: half the memory, and as fine as most recordings are. */
      readonly channels: readonly [Int16Array, Int16Array];
      readonly sampleRate: number;
    }
  /** What the written tab is from now on. */
  | { readonly kind: 'write'; readonly document: SongDocument }
  | { readonly kind: 'hear'; readonly id: number; readonly hearing: Hearing; readonly fromS: number }
  | { readonly kind: 'look'; readonly atS: number };

export type IsolationAnswer =
  | { readonly kind: 'progress'; readonly id: number; readonly share: number }
  | {
      readonly kind: 'heard';
      readonly id: number;
      readonly channels: readonly Float32Array[];
      /** False while only the part from the needle on is as it was wanted. */
      readonly isWhole: boolean;
    }
  /** Shares of the energy from left to right, see `panorama` of core. */
  | { readonly kind: 'stage'; readonly shares: Float32Array };

export interface IsolationClient {
  /** Answers come to the handlers; those of an older wish are dropped. */
  hear(hearing: Hearing, fromS: number): void;
  /** Hands over the written tab; a hearing that plays it has to be asked for again. */
  write(document: SongDocument): void;
  /** Asks where energy lies at this moment. */
  look(atS: number): void;
  end(): void;
}

export interface IsolationHandlers {
  readonly onHeard: (channels: readonly Float32Array[], isWhole: boolean) => void;
  readonly onProgress: (share: number) => void;
  readonly onStage: (shares: Float32Array) => void;
}

const FULL_SCALE = 32767;

function toInt16(samples: Float32Array): Int16Array {
  const out = new Int16Array(samples.length);
  for (let n = 0; n < out.length; n++) {
    out[n] = Math.round(FULL_SCALE * Math.max(-1, Math.min(1, samples[n])));
  }
  return out;
}

/** `channels`: one or two; they are copied. */
export function createIsolationClient(
  channels: readonly Float32Array[],
  sampleRate: number,
  { onHeard, onProgress, onStage }: IsolationHandlers,
): IsolationClient {
  const worker = new Worker(new URL('./isolation.worker', import.meta.url), { type: 'module' });
  const send = (task: IsolationTask, transfer: Transferable[] = []): void =>
    worker.postMessage(task, transfer);
  let id = 0;
  const left = toInt16(channels[0]);
  const right = channels[1] ? toInt16(channels[1]) : left.slice();
  send({ kind: 'load', channels: [left, right], sampleRate }, [left.buffer, right.buffer]);
  worker.addEventListener('message', ({ data }: MessageEvent<IsolationAnswer>) => {
    if (data.kind === 'stage') onStage(data.shares);
    else if (data.id !== id) return;
    else if (data.kind === 'progress') onProgress(data.share);
    else onHeard(data.channels, data.isWhole);
  });
  return {
    hear(hearing, fromS) {
      send({ kind: 'hear', id: ++id, hearing, fromS });
    },
    write: (document) => send({ kind: 'write', document }),
    look: (atS) => send({ kind: 'look', atS }),
    end: () => worker.terminate(),
  };
}
