/** A song taken away in one of its formats. */
import type { Format } from '@wild-needle/core/formats';
import type { SongDocument } from '@wild-needle/core/riff';
import { saveFile } from './save-file';

export async function exportAs(
  page: Document,
  { ending, mime, write }: Format,
  document: SongDocument,
): Promise<void> {
  saveFile(page, document.title, ending, mime, await write(document));
}

/** To the clipboard. Rejects where the browser forbids it, and for a format that is no text. */
export async function copyAs({ write, label }: Format, document: SongDocument): Promise<void> {
  const written = await write(document);
  if (typeof written !== 'string') throw new TypeError(`${label} is no text`);
  return navigator.clipboard.writeText(written);
}
