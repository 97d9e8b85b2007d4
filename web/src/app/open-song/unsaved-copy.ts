/**
 * Unsaved documents, kept on this computer until the server has them: nothing is lost when the window closes, the program ends,
 * the connection breaks, or the server refuses what it is given. Each opened page keeps a copy of its own, so that no window
 * drops what another one has not saved; a page that finds the copy of one that is gone takes it over.
 */
import * as z from 'zod';
import { upgradeDocument } from '@wild-needle/contract';
import type { SongDocument } from '@wild-needle/core/riff';

export interface UnsavedCopy {
  /** The revision that the changes were made on. */
  readonly baseRevision: number;
  readonly document: SongDocument;
}

/** A copy that can't be shown: damaged, or refused by the rules for documents. It is kept until the user lets go of it. */
export interface UnreadableCopy {
  readonly key: string;
  /** As it is stored: JSON. */
  readonly text: string;
}

export interface KeptCopies {
  /** Of those that can be shown the one that was kept last; null without any. */
  readonly newest: UnsavedCopy | null;
  readonly unreadable: readonly UnreadableCopy[];
}

const copySchema = z.object({
  baseRevision: z.int(),
  /** Milliseconds since 1970; copies of older programs lack it. */
  keptAt: z.number().default(0),
  document: z.unknown().transform(upgradeDocument),
});

/** Another one for every page that is opened. */
const PAGE = crypto.randomUUID();

function prefixOf(songId: string): string {
  return `wild-needle.unsaved.${songId}`;
}

function keyOf(songId: string): string {
  return `${prefixOf(songId)}.${PAGE}`;
}

export function keepUnsaved(songId: string, { baseRevision, document }: UnsavedCopy): void {
  try {
    localStorage.setItem(keyOf(songId), JSON.stringify({ baseRevision, keptAt: Date.now(), document }));
  } catch {
    // Storage is full or forbidden: saving to the server goes on without the second net.
  }
}

function parse(text: string): z.infer<typeof copySchema> | null {
  try {
    return copySchema.parse(JSON.parse(text));
  } catch {
    return null;
  }
}

/** What pages of before have left of a song. The newest copy is this page's own from now on; older ones wait for their turn. */
export function takeOverUnsaved(songId: string): KeptCopies {
  const keys = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '');
  const kept = keys
    .filter((key) => key === prefixOf(songId) || key.startsWith(`${prefixOf(songId)}.`))
    .map((key) => ({ key, text: localStorage.getItem(key) ?? '' }))
    .map((copy) => ({ ...copy, read: parse(copy.text) }));
  const readable = kept.flatMap(({ key, read }) => (read ? [{ key, ...read }] : []));
  const unreadable = kept.filter((c) => c.read === null).map(({ key, text }) => ({ key, text }));
  const newest = readable.sort((a, b) => b.keptAt - a.keptAt).at(0);
  if (!newest) return { newest: null, unreadable };
  const copy = { baseRevision: newest.baseRevision, document: newest.document };
  if (newest.key !== keyOf(songId)) {
    keepUnsaved(songId, copy);
    if (localStorage.getItem(keyOf(songId)) !== null) localStorage.removeItem(newest.key);
  }
  return { newest: copy, unreadable };
}

/** This page has nothing unsaved any more; the copies of others stay. */
export function dropUnsaved(songId: string): void {
  localStorage.removeItem(keyOf(songId));
}

export function forgetCopy({ key }: UnreadableCopy): void {
  localStorage.removeItem(key);
}
