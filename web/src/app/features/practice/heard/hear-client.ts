/** The typed way to the worker that judges a player while playing. */
import type { JudgedRound, LiveAnswer, LiveRound } from '@wild-needle/core/live';

export interface NumberedRound extends LiveRound {
  readonly number: number;
}

export type HearTask =
  | {
      readonly kind: 'open';
      readonly sampleRate: number;
      readonly delayS: number | null;
      readonly referenceCents: number;
      /** Nobody plays: the worker plays the rounds itself, mistakes and all. */
      readonly isSimulated: boolean;
    }
  | { readonly kind: 'hear'; readonly startS: number; readonly samples: Float32Array }
  /** The clock of the device, while nobody plays. */
  | { readonly kind: 'tick'; readonly nowS: number }
  | { readonly kind: 'round'; readonly round: NumberedRound }
  /** The music has stopped: what was begun is no round. */
  | { readonly kind: 'stop' };

export type HearAnswer =
  | { readonly kind: 'strums'; readonly number: number; readonly answers: readonly LiveAnswer[] }
  | {
      readonly kind: 'round';
      readonly number: number;
      readonly judged: JudgedRound;
      readonly delayS: number | null;
    }
  | { readonly kind: 'failed'; readonly message: string };

export interface HearClient {
  send(task: HearTask, transfer?: Transferable[]): void;
  end(): void;
}

export function createHearClient(onAnswer: (answer: HearAnswer) => void): HearClient {
  const worker = new Worker(new URL('./hear.worker', import.meta.url), { type: 'module' });
  worker.addEventListener('message', ({ data }: MessageEvent<HearAnswer>) => onAnswer(data));
  worker.addEventListener('error', (event) => onAnswer({ kind: 'failed', message: event.message }));
  return {
    send: (task, transfer = []) => worker.postMessage(task, transfer),
    end: () => worker.terminate(),
  };
}
