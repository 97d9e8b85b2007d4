/** The finished tab as text, to the clipboard or as a file. */
import { writeTextTab } from '@wild-needle/core/formats';
import type { SongDocument } from '@wild-needle/core/riff';

export function fileNameOf({ title }: SongDocument): string {
  const plain = title
    .normalize('NFKD')
    .replace(/[^\w\s-]/g, '')
    .trim()
    .replace(/\s+/g, '-')
    .toLowerCase();
  return `${plain === '' ? 'tab' : plain}.txt`;
}

export function downloadTab(document: SongDocument, page: Document): void {
  const url = URL.createObjectURL(new Blob([writeTextTab(document)], { type: 'text/plain;charset=utf-8' }));
  const link = page.createElement('a');
  link.href = url;
  link.download = fileNameOf(document);
  link.click();
  URL.revokeObjectURL(url);
}

/** Rejects where the browser forbids the clipboard. */
export function copyTab(document: SongDocument): Promise<void> {
  return navigator.clipboard.writeText(writeTextTab(document));
}
