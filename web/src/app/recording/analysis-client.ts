/** The typed way to the analysis worker: one worker per task, ended when it is done or no longer wanted. */
import type { Analysis } from '@wild-needle/core/analysis';
import type { StereoSignal } from '@wild-needle/core/mir';
import type { SongDocument } from '@wild-needle/core/riff';
import { ANALYSIS_SAMPLE_RATE } from '@wild-needle/core/units';
import type { PieceAddresses } from './band-pieces';
import type { Hearing } from './hearing';

export interface AnalysisTask {
  readonly signal: StereoSignal;
  /** Where the signal starts in the recording, s. */
  readonly fromS: number;
  /** Its tuning is used, and what is checked in it counts as certain. */
  readonly document: SongDocument;
  /** Ears, focus and parts that it is heard with. */
  readonly hearing: Hearing;
  /** Where the pieces of its band are. */
  readonly addresses: PieceAddresses;
  /** Those of them whose guitars can be heard by themselves. */
  readonly cleanAddresses: PieceAddresses;
}

export type AnalysisAnswer =
  | { readonly kind: 'progress'; readonly share: number; readonly doing: string }
  | { readonly kind: 'done'; readonly analysis: Analysis }
  | { readonly kind: 'failed'; readonly message: string };

/** Decodes a sound file at the rate of the analysis; more than two channels are cut to the first two. */
export async function decodeForAnalysis(bytes: ArrayBuffer): Promise<StereoSignal> {
  const context = new OfflineAudioContext(2, 1, ANALYSIS_SAMPLE_RATE);
  const decoded = await context.decodeAudioData(bytes);
  const count = Math.min(2, decoded.numberOfChannels);
  return {
    channels: Array.from({ length: count }, (_, c) => decoded.getChannelData(c)),
    sampleRate: ANALYSIS_SAMPLE_RATE,
  };
}

/** Rejects when the analysis fails, or with the signal's reason when it is aborted. */
export function analyseInWorker(
  task: AnalysisTask,
  onProgress: (share: number, doing: string) => void,
  abort: AbortSignal,
): Promise<Analysis> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./analysis.worker', import.meta.url), { type: 'module' });
    const end = (settle: () => void): void => {
      worker.terminate();
      settle();
    };
    abort.addEventListener('abort', () => end(() => reject(abort.reason as Error)));
    worker.addEventListener('error', (event) => end(() => reject(new Error(event.message))));
    worker.addEventListener('message', ({ data }: MessageEvent<AnalysisAnswer>) => {
      if (data.kind === 'progress') onProgress(data.share, data.doing);
      else if (data.kind === 'done') end(() => resolve(data.analysis));
      else end(() => reject(new Error(data.message)));
    });
    worker.postMessage(
      task,
      task.signal.channels.map((c) => c.buffer),
    );
  });
}
