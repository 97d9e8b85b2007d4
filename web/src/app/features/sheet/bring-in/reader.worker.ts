/** Reads files of tab and music off the main thread, and lets out only what the schema of a document takes. */
import { songDocumentSchema, upgradeDocument } from '@wild-needle/contract';
import { bringIn, decodeText, FORMATS, kindOf, type Kind } from '@wild-needle/core/formats';
import type { ReadAnswer, ReadFile, ReadTask } from './reader-client';

const NOTHING_BESIDE = { remarks: [], tracks: [], track: 0 } as const;

async function read(kind: Kind, { bytes, tuning, track, document }: ReadTask): Promise<ReadFile> {
  switch (kind) {
    case 'song-file':
      return { kind, ...NOTHING_BESIDE, document: songFrom(decodeText(bytes)) };
    case 'label-track': {
      const format = FORMATS.find((f) => f.id === 'label-track');
      if (!format?.read) throw new RangeError('a label track can’t be read here');
      return { kind, ...NOTHING_BESIDE, document: format.read(document, decodeText(bytes)) };
    }
    default: {
      const brought = await bringIn(kind, bytes, { tuning, ...(track !== null && { track }) });
      const parsed = songDocumentSchema.safeParse(brought.document);
      if (parsed.success) return { kind, ...brought, document: parsed.data };
      const [{ path, message }] = parsed.error.issues;
      throw new RangeError(`what it says can’t be a song: ${path.join('.')}: ${message}`);
    }
  }
}

function songFrom(text: string): ReadFile['document'] {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (cause) {
    throw new RangeError(`it is no whole song file: ${(cause as Error).message}`, { cause });
  }
  try {
    return upgradeDocument(json);
  } catch (cause) {
    throw new RangeError('it is JSON, and no song file of Wild Needle', { cause });
  }
}

addEventListener('message', ({ data }: MessageEvent<ReadTask>) => {
  const answer = (message: ReadAnswer): void => postMessage(message);
  let kind: Kind | null = null;
  const work = async (): Promise<void> => {
    kind = kindOf(data.bytes);
    answer({ ok: true, read: await read(kind, data) });
  };
  work().catch((error: unknown) => {
    const words = error instanceof Error ? error.message : String(error);
    answer({ ok: false, kind, words });
  });
});
