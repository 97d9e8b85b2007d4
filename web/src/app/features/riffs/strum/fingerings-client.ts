/** The typed way to the worker that searches fingerings; it lives as long as the Riffs screen. */
import type { OwnShape, StringFret, Tuning, Fingering } from '@wild-needle/core/guitar';

export interface FingeringsQuestion {
  /** What each strum of the riff presses, in order of time, and which of them is asked about. */
  readonly riff: readonly (readonly StringFret[])[];
  readonly index: number;
  readonly tuning: Tuning;
  readonly ownShapes: readonly OwnShape[];
  readonly alternatives: readonly { readonly midi: readonly number[]; readonly probability: number }[];
  /** How likely each note sounds, from `firstMidi` up; null before it is known. */
  readonly heard: { readonly firstMidi: number; readonly probability: Float32Array } | null;
}

export type FingeringsTask = FingeringsQuestion & { readonly id: number };

export interface FingeringsAnswer {
  readonly id: number;
  readonly fingerings: readonly Fingering[];
}

export interface FingeringsClient {
  /** Answered by the handler; a newer question drops the older one. */
  ask(question: FingeringsQuestion): void;
  end(): void;
}

export function createFingeringsClient(
  onFingerings: (fingerings: readonly Fingering[]) => void,
): FingeringsClient {
  const worker = new Worker(new URL('./fingerings.worker', import.meta.url), { type: 'module' });
  let id = 0;
  worker.addEventListener('message', ({ data }: MessageEvent<FingeringsAnswer>) => {
    if (data.id === id) onFingerings(data.fingerings);
  });
  return {
    ask: (question) => worker.postMessage({ ...question, id: ++id } satisfies FingeringsTask),
    end: () => worker.terminate(),
  };
}
