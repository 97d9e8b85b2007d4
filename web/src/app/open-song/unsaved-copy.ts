/**
 * The last unsaved document of a song, kept on this computer until the server has it: nothing is lost when the
 * window closes, the program ends or the connection breaks.
 */
import * as z from 'zod';
import { songDocumentSchema } from '@wild-needle/contract';
import type { SongDocument } from '@wild-needle/core/riff';

export interface UnsavedCopy {
  /** The revision that the changes were made on. */
  readonly baseRevision: number;
  readonly document: SongDocument;
}

const copySchema = z.object({ baseRevision: z.int(), document: songDocumentSchema });

function keyOf(songId: string): string {
  return `wild-needle.unsaved.${songId}`;
}

export function keepUnsaved(songId: string, copy: UnsavedCopy): void {
  try {
    localStorage.setItem(keyOf(songId), JSON.stringify(copy));
  } catch {
    // Storage is full or forbidden: saving to the server goes on without the second net.
  }
}

export function readUnsaved(songId: string): UnsavedCopy | null {
  const stored = localStorage.getItem(keyOf(songId));
  if (stored === null) return null;
  try {
    return copySchema.parse(JSON.parse(stored));
  } catch {
    // Damaged, or from another version of the program: there is nothing that could be shown of it.
    return null;
  }
}

export function dropUnsaved(songId: string): void {
  localStorage.removeItem(keyOf(songId));
}
