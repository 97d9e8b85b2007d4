/** The typed way to the worker that judges a song; it holds the sound, and lives as long as the song is looked at. */
import type { SongJudgement } from '@wild-needle/core/check';
import type { HeardBefore, StereoSignal } from '@wild-needle/core/mir';
import type { SongDocument } from '@wild-needle/core/riff';
import type { Hearing } from '../../../recording/hearing';

export type JudgeTask =
  | {
      readonly kind: 'listen';
      readonly id: number;
      readonly signal: StereoSignal;
      /** As the guitar that is judged plays it. */
      readonly document: SongDocument;
      /** Ears and focus that it is heard with. */
      readonly hearing: Hearing;
      /** What was heard of the whole sound before; null to listen anew. */
      readonly before: HeardBefore | null;
    }
  | { readonly kind: 'judge'; readonly id: number; readonly document: SongDocument };

export type JudgeAnswer =
  | { readonly kind: 'progress'; readonly share: number }
  | { readonly kind: 'judged'; readonly id: number; readonly judgement: SongJudgement }
  | { readonly kind: 'failed'; readonly message: string };

export interface JudgeHandlers {
  readonly onProgress: (share: number) => void;
  readonly onJudged: (judgement: SongJudgement, document: SongDocument) => void;
  readonly onFailed: (message: string) => void;
}

export interface JudgeClient {
  /** Only the newest question is answered. */
  judge(document: SongDocument): void;
  end(): void;
}

/** The sound is handed over, and not there any more afterwards. */
export function createJudgeClient(
  { signal, document, hearing, before }: Omit<Extract<JudgeTask, { kind: 'listen' }>, 'kind' | 'id'>,
  { onProgress, onJudged, onFailed }: JudgeHandlers,
): JudgeClient {
  const worker = new Worker(new URL('./judge.worker', import.meta.url), { type: 'module' });
  let asked = { id: 0, document };
  const send = (task: JudgeTask, transfer: Transferable[] = []): void => worker.postMessage(task, transfer);
  worker.addEventListener('error', (event) => onFailed(event.message));
  worker.addEventListener('message', ({ data }: MessageEvent<JudgeAnswer>) => {
    if (data.kind === 'progress') onProgress(data.share);
    else if (data.kind === 'failed') onFailed(data.message);
    else if (data.id === asked.id) onJudged(data.judgement, asked.document);
  });
  send(
    { kind: 'listen', id: asked.id, signal, document, hearing, before },
    signal.channels.map((c) => c.buffer),
  );
  return {
    judge(changed) {
      asked = { id: asked.id + 1, document: changed };
      send({ kind: 'judge', ...asked });
    },
    end: () => worker.terminate(),
  };
}
