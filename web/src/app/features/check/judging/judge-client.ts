/** The typed way to the worker that judges a song; it holds the sound, and lives as long as the song is looked at. */
import type { SongJudgement } from '@wild-needle/core/check';
import type { HeardBefore, StereoSignal } from '@wild-needle/core/mir';
import type { SongDocument } from '@wild-needle/core/riff';
import type { PieceAddresses } from '../../../recording/band-pieces';
import type { Hearing } from '../../../recording/hearing';

export type JudgeTask =
  /** A first look, while the sound is on its way: at what was heard before. */
  | {
      readonly kind: 'recall';
      readonly id: number;
      readonly document: SongDocument;
      readonly before: HeardBefore;
    }
  | {
      readonly kind: 'listen';
      readonly id: number;
      readonly signal: StereoSignal;
      /** As the guitar that is judged plays it. */
      readonly document: SongDocument;
      /** Ears, focus and parts that it is heard with. */
      readonly hearing: Hearing;
      /** Where the pieces of its band are. */
      readonly addresses: PieceAddresses;
      /** Those of them whose guitars can be heard by themselves. */
      readonly cleanAddresses: PieceAddresses;
      /** What was heard of the whole sound before; null when that was other sound. */
      readonly before: HeardBefore | null;
      /** Strokes too are heard once more, with what the ear has settled. */
      readonly isAnew: boolean;
      /** One of two guitars, and nobody knows on which side it plays. */
      readonly isSideUnknown: boolean;
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

type Listening = Omit<Extract<JudgeTask, { kind: 'listen' }>, 'kind' | 'id'>;

export interface JudgeClient {
  recall(document: SongDocument, before: HeardBefore): void;
  /** The sound is handed over, and not there any more afterwards. */
  listen(listening: Listening): void;
  /** Only the newest question is answered. */
  judge(document: SongDocument): void;
  end(): void;
}

export function createJudgeClient({ onProgress, onJudged, onFailed }: JudgeHandlers): JudgeClient {
  const worker = new Worker(new URL('./judge.worker', import.meta.url), { type: 'module' });
  let asked: { readonly id: number; readonly document: SongDocument } | null = null;
  const ask = (document: SongDocument): { readonly id: number; readonly document: SongDocument } =>
    (asked = { id: (asked?.id ?? 0) + 1, document });
  const send = (task: JudgeTask, transfer: Transferable[] = []): void => worker.postMessage(task, transfer);
  worker.addEventListener('error', (event) => onFailed(event.message));
  worker.addEventListener('message', ({ data }: MessageEvent<JudgeAnswer>) => {
    if (data.kind === 'progress') onProgress(data.share);
    else if (data.kind === 'failed') onFailed(data.message);
    else if (asked?.id === data.id) onJudged(data.judgement, asked.document);
  });
  return {
    recall: (document, before) => send({ kind: 'recall', before, ...ask(document) }),
    listen: ({ document, signal, ...how }) =>
      send(
        { kind: 'listen', signal, ...how, ...ask(document) },
        signal.channels.map((c) => c.buffer),
      ),
    judge: (document) => send({ kind: 'judge', ...ask(document) }),
    end: () => worker.terminate(),
  };
}
