/** The finished tab as text, to the clipboard or as a file. */
import { writeTextTab } from '@wild-needle/core/formats';
import type { SongDocument } from '@wild-needle/core/riff';
import { saveFile } from '../../../shared/save-file';

export function downloadTab(document: SongDocument, page: Document): void {
  saveFile(page, document.title, 'txt', writeTextTab(document));
}

/** Rejects where the browser forbids the clipboard. */
export function copyTab(document: SongDocument): Promise<void> {
  return navigator.clipboard.writeText(writeTextTab(document));
}
