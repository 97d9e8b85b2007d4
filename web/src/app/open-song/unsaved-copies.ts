/**
 * Unsaved documents, kept on this computer until the server has them: nothing is lost when the window closes, the browser is
 * killed, the connection breaks, or the server refuses what it is given. Each opened page keeps a copy of its own, so that no
 * window drops what another one has not saved; what pages that are gone have left is offered by the next one.
 *
 * In IndexedDB, since `localStorage` of Chromium reaches the disk seconds later: killed within them, the browser has lost it.
 */
import { Injectable } from '@angular/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import * as z from 'zod';
import { upgradeDocument } from '@wild-needle/contract';
import type { SongDocument } from '@wild-needle/core/riff';

export interface UnsavedCopy {
  /** The revision that the changes were made on. */
  readonly baseRevision: number;
  readonly document: SongDocument;
}

/** Of a page that is gone. */
export interface LeftCopy extends UnsavedCopy {
  readonly page: string;
  /** Milliseconds since 1970; 0 for copies of older programs. */
  readonly keptAt: number;
}

/** A copy that can't be shown: damaged, or refused by the rules for documents. It is kept until the user lets go of it. */
export interface UnreadableCopy {
  readonly page: string;
  /** As it is stored: JSON. */
  readonly text: string;
}

export interface LeftCopies {
  /** The one that was kept last stands first. */
  readonly readable: readonly LeftCopy[];
  readonly unreadable: readonly UnreadableCopy[];
}

/** What a copy is stored as; nothing of it is trusted when it is read. */
interface Stored {
  readonly songId: string;
  readonly page: string;
  readonly baseRevision: unknown;
  readonly keptAt: unknown;
  readonly document: unknown;
}

interface Schema extends DBSchema {
  copies: { key: [string, string]; value: Stored; indexes: { bySong: string } };
}

const copySchema = z.object({
  baseRevision: z.int(),
  keptAt: z.number().default(0),
  document: z.unknown().transform(upgradeDocument),
});

const NAME = 'wild-needle';
const VERSION = 1;
const NOTHING: LeftCopies = { readable: [], unreadable: [] };

/** Programs of before kept their copies in `localStorage`, under this and the id of the song. */
const OLDER = 'wild-needle.unsaved.';

function parseJson(text: string): Record<string, unknown> {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null ? { ...value } : { document: text };
  } catch {
    return { document: text };
  }
}

/** The copies of older programs, by the key that they are stored under. */
function olderCopies(songId: string): { key: string; copy: Stored }[] {
  const keys = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '');
  return keys
    .filter((key) => key === OLDER + songId || key.startsWith(`${OLDER}${songId}.`))
    .map((key) => {
      const { baseRevision, keptAt, document } = parseJson(localStorage.getItem(key) ?? '');
      return { key, copy: { songId, page: key, baseRevision, keptAt, document } };
    });
}

/** Null where storage is forbidden: work goes on without the second net, and the header says so. */
async function open(): Promise<IDBPDatabase<Schema> | null> {
  try {
    return await openDB<Schema>(NAME, VERSION, {
      upgrade(db) {
        db.createObjectStore('copies', { keyPath: ['songId', 'page'] }).createIndex('bySong', 'songId');
      },
    });
  } catch {
    return null;
  }
}

/** Null for what can't be shown. */
function parse(copy: Stored): z.infer<typeof copySchema> | null {
  try {
    return copySchema.parse(copy);
  } catch {
    return null;
  }
}

@Injectable({ providedIn: 'root' })
export class UnsavedCopies {
  /** Another one for every page that is opened. */
  private readonly page = crypto.randomUUID();
  private opened: IDBPDatabase<Schema> | null = null;
  private readonly opening: Promise<IDBPDatabase<Schema> | null>;

  constructor() {
    this.opening = open().then((db) => (this.opened = db));
    this.showAlive();
  }

  /**
   * Keeps what this page has not saved. False when it could not: no room, or storage is forbidden. Begun before this returns, so
   * that it is on its way to the disk before anything else happens.
   */
  keep(songId: string, { baseRevision, document }: UnsavedCopy): Promise<boolean> {
    const copy = { songId, page: this.page, baseRevision, keptAt: Date.now(), document };
    if (this.opened) return this.put(this.opened, copy);
    return this.opening.then((db) => db !== null && this.put(db, copy));
  }

  /** This page has nothing unsaved any more; the copies of others stay. */
  drop(songId: string): Promise<void> {
    return this.forget(songId, this.page);
  }

  /** What pages of before have left of a song; pages that are still open keep their own. */
  async left(songId: string): Promise<LeftCopies> {
    const db = await this.opening;
    if (!db) return NOTHING;
    await this.bringOlder(db, songId);
    const alive = await this.alivePages();
    const copies = (await db.getAllFromIndex('copies', 'bySong', songId)).filter(
      ({ page }) => !alive.has(page),
    );
    const read = copies.map((copy) => ({ copy, parsed: parse(copy) }));
    return {
      readable: read
        .flatMap(({ copy, parsed }) => (parsed ? [{ page: copy.page, ...parsed }] : []))
        .sort((a, b) => b.keptAt - a.keptAt),
      unreadable: read
        .filter(({ parsed }) => !parsed)
        .map(({ copy: { page, ...rest } }) => ({ page, text: JSON.stringify(rest) })),
    };
  }

  /** Lets go of what a page has left. */
  async forget(songId: string, page: string): Promise<void> {
    const db = await this.opening;
    await db?.delete('copies', [songId, page]);
  }

  private async put(db: IDBPDatabase<Schema>, copy: Stored): Promise<boolean> {
    try {
      const transaction = db.transaction('copies', 'readwrite');
      void transaction.store.put(copy).catch(() => undefined);
      // Not waiting for the answer to the put: what is handed over now outlives this page.
      transaction.commit();
      await transaction.done;
      return true;
    } catch {
      return false;
    }
  }

  private async bringOlder(db: IDBPDatabase<Schema>, songId: string): Promise<void> {
    try {
      for (const { key, copy } of olderCopies(songId)) {
        if (await this.put(db, copy)) localStorage.removeItem(key);
      }
    } catch {
      // Forbidden: there are none.
    }
  }

  /** A page holds a lock (Web Locks, W3C) in its name as long as it is open. */
  private showAlive(): void {
    void globalThis.navigator.locks?.request(this.lockOf(this.page), () => new Promise(() => undefined));
  }

  private lockOf(page: string): string {
    return `${NAME}.page.${page}`;
  }

  private async alivePages(): Promise<Set<string>> {
    const { held = [] } = (await globalThis.navigator.locks?.query()) ?? {};
    const prefix = this.lockOf('');
    return new Set(held.flatMap(({ name }) => (name?.startsWith(prefix) ? [name.slice(prefix.length)] : [])));
  }
}
