/** The typed way to the worker that reads files of tab and music; a newer wish ends the older one. */
import type { Kind, Remark, Track } from '@wild-needle/core/formats';
import type { Tuning } from '@wild-needle/core/guitar';
import type { SongDocument } from '@wild-needle/core/riff';

export interface ReadTask {
  readonly bytes: Uint8Array;
  /** Notes without strings are fingered in it. */
  readonly tuning: Tuning;
  /** Of several voices the one that is the guitar; null for the likeliest. */
  readonly track: number | null;
  /** A label track is laid on its bars. */
  readonly document: SongDocument;
}

export interface ReadFile {
  readonly kind: Kind;
  /** A song of its own; of a label track the open song with its sections. */
  readonly document: SongDocument;
  readonly remarks: readonly Remark[];
  readonly tracks: readonly Track[];
  readonly track: number;
}

export type ReadAnswer =
  | { readonly ok: true; readonly read: ReadFile }
  /** `kind`: null where it is not even known what kind of file it is. */
  | { readonly ok: false; readonly kind: Kind | null; readonly words: string };

export interface ReaderClient {
  /** Only the newest task is answered. */
  read(task: ReadTask): Promise<ReadAnswer>;
  end(): void;
}

export function createReaderClient(): ReaderClient {
  let worker: Worker | null = null;
  const end = (): void => {
    worker?.terminate();
    worker = null;
  };
  return {
    end,
    read(task) {
      // Whatever is being read is not wanted any more.
      end();
      const own = new Worker(new URL('./reader.worker', import.meta.url), { type: 'module' });
      worker = own;
      return new Promise((resolve) => {
        own.addEventListener('message', ({ data }: MessageEvent<ReadAnswer>) => resolve(data));
        own.addEventListener('error', ({ message }) => resolve({ ok: false, kind: null, words: message }));
        own.postMessage(task);
      });
    },
  };
}
