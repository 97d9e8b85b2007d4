/** Runs an analysis or an alignment in a worker thread, so that requests are answered meanwhile. */
import { Worker } from 'node:worker_threads';
import type {
  AnalysisRequest,
  AudioProblemCode,
  HeardSoFar,
  RecordingAlignment,
} from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';
import { AudioProblem } from './audio-problem';
import { ToolFailure } from './run-tool';

export type ThreadData =
  | { readonly kind: 'analyse'; readonly path: string; readonly given: AnalysisRequest }
  | { readonly kind: 'align'; readonly reference: string; readonly other: string };

export type ThreadMessage =
  | { readonly kind: 'progress'; readonly share: number; readonly doing: string }
  | { readonly kind: 'part'; readonly soFar: HeardSoFar }
  | { readonly kind: 'problem'; readonly code: AudioProblemCode; readonly message: string }
  | { readonly kind: 'failure'; readonly message: string }
  | { readonly kind: 'done'; readonly result: Analysis | RecordingAlignment };

export interface ThreadOptions {
  readonly onProgress: (share: number, doing: string) => void;
  readonly onPart: (soFar: HeardSoFar) => void;
  /** Ends the thread at once; the promise is then rejected with the signal's reason. */
  readonly signal: AbortSignal;
}

/** Rejects with an AudioProblem for bad input, with a ToolFailure when ffmpeg failed. */
export function analyseInThread(
  path: string,
  given: AnalysisRequest,
  options: ThreadOptions,
): Promise<Analysis> {
  return runInThread<Analysis>({ kind: 'analyse', path, given }, options);
}

const NOBODY_ASKS: ThreadOptions = {
  onProgress: () => undefined,
  onPart: () => undefined,
  signal: new AbortController().signal,
};

/** Rejects like {@link analyseInThread}. */
export function alignInThread(reference: string, other: string): Promise<RecordingAlignment> {
  return runInThread<RecordingAlignment>({ kind: 'align', reference, other }, NOBODY_ASKS);
}

/** `Result` is what the thread answers to this kind of work. */
function runInThread<Result extends Analysis | RecordingAlignment>(
  data: ThreadData,
  { onProgress, onPart, signal }: ThreadOptions,
): Promise<Result> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./audio-thread.mjs', import.meta.url), { workerData: data });
    const abort = (): void => {
      void worker.terminate();
      reject(signal.reason as Error);
    };
    signal.addEventListener('abort', abort);
    worker.on('message', (message: ThreadMessage) => {
      if (message.kind === 'progress') onProgress(message.share, message.doing);
      else if (message.kind === 'part') onPart(message.soFar);
      else if (message.kind === 'problem') reject(new AudioProblem(message.code, message.message));
      else if (message.kind === 'failure') reject(new ToolFailure(message.message));
      else resolve(message.result as Result);
    });
    worker.on('error', reject);
    worker.on('exit', (code) => {
      signal.removeEventListener('abort', abort);
      // Confirmed already in every ordinary case; then this does nothing.
      reject(new Error(`the audio thread ended early with code ${code}`));
    });
  });
}
