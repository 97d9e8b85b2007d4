/** The typed way to the worker that searches fingerings; it lives as long as the Riffs screen. */
import type { OwnShape, StringFret, Tuning, Way } from '@wild-needle/core/guitar';

export interface WaysQuestion {
  /** What each strum of the riff presses, in order of time, and which of them is asked about. */
  readonly riff: readonly (readonly StringFret[])[];
  readonly index: number;
  readonly tuning: Tuning;
  readonly ownShapes: readonly OwnShape[];
  readonly alternatives: readonly { readonly midi: readonly number[]; readonly probability: number }[];
  /** How likely each note sounds, from `firstMidi` up; null before it is known. */
  readonly heard: { readonly firstMidi: number; readonly probability: Float32Array } | null;
}

export type WaysTask = WaysQuestion & { readonly id: number };

export interface WaysAnswer {
  readonly id: number;
  readonly ways: readonly Way[];
}

export interface WaysClient {
  /** Answered by the handler; a newer question drops the older one. */
  ask(question: WaysQuestion): void;
  end(): void;
}

export function createWaysClient(onWays: (ways: readonly Way[]) => void): WaysClient {
  const worker = new Worker(new URL('./ways.worker', import.meta.url), { type: 'module' });
  let id = 0;
  worker.addEventListener('message', ({ data }: MessageEvent<WaysAnswer>) => {
    if (data.id === id) onWays(data.ways);
  });
  return {
    ask: (question) => worker.postMessage({ ...question, id: ++id } satisfies WaysTask),
    end: () => worker.terminate(),
  };
}
