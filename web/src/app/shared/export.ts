/** A song taken away in one of its formats. */
import type { Format } from '@wild-needle/core/formats';
import type { SongDocument } from '@wild-needle/core/riff';
import { saveFile } from './save-file';

export function exportAs(page: Document, { ending, mime, write }: Format, document: SongDocument): void {
  saveFile(page, document.title, ending, mime, write(document));
}

/** To the clipboard. Rejects where the browser forbids it, and for a format that is no text. */
export function copyAs({ write, label }: Format, document: SongDocument): Promise<void> {
  const written = write(document);
  if (typeof written !== 'string') return Promise.reject(new TypeError(`${label} is no text`));
  return navigator.clipboard.writeText(written);
}
