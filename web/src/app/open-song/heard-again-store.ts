/**
 * What hearing a recording again in this browser brought, kept on this computer: it is there after a reload, and gone when the
 * server hears the recording anew. A database of its own, beside that of the unsaved copies, so that neither waits for the other.
 */
import { Injectable } from '@angular/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import * as z from 'zod';
import { analysisSchema } from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';
import type { Suggestion } from '@wild-needle/core/draft';
import type { GuitarNumber } from '@wild-needle/core/riff';

/** A suggestion for what one of the guitars plays. */
export interface GuitarSuggestion extends Suggestion {
  readonly guitar: GuitarNumber;
}

export interface HeardAgainState {
  /** The analysis with what was heard anew in its place. */
  readonly analysis: Analysis;
  readonly suggestions: readonly GuitarSuggestion[];
}

interface Schema extends DBSchema {
  heard: { key: string; value: { songId: string; of: string } & Record<keyof HeardAgainState, unknown> };
}

const suggestionSchema: z.ZodType<GuitarSuggestion> = z.object({
  guitar: z.union([z.literal(1), z.literal(2)]),
  riffId: z.string(),
  kind: z.enum(['missing', 'extra', 'chord', 'mute', 'early-end']),
  ticks: z.number(),
  strumId: z.string().nullable(),
  stroke: z
    .object({
      ticks: z.number(),
      endTicks: z.number(),
      midi: z.array(z.int()),
      palmMuted: z.boolean(),
      dead: z.boolean(),
      confidence: z.number(),
    })
    .nullable(),
  passes: z.int(),
  of: z.int(),
});

const stateSchema = z.object({ analysis: analysisSchema, suggestions: z.array(suggestionSchema) });

const NAME = 'wild-needle-heard';

/** Tells one analysis of a recording from another. */
function markOf({ algorithm, strums }: Analysis): string {
  return `${algorithm}/${strums.length}/${strums.reduce((sum, s) => sum + s.timeS * s.confidence, 0)}`;
}

async function open(): Promise<IDBPDatabase<Schema> | null> {
  try {
    return await openDB<Schema>(NAME, 1, {
      upgrade: (db) => void db.createObjectStore('heard', { keyPath: 'songId' }),
    });
  } catch {
    // Storage is forbidden: what was heard again lasts as long as the page.
    return null;
  }
}

@Injectable({ providedIn: 'root' })
export class HeardAgainStore {
  private readonly opening = open();

  /** `base`: the analysis of the server, which this was heard on top of. */
  async keep(songId: string, base: Analysis, state: HeardAgainState): Promise<void> {
    const db = await this.opening;
    await db?.put('heard', { songId, of: markOf(base), ...state }).catch(() => undefined);
  }

  /** Null where nothing is kept, or for another analysis than this one. */
  async kept(songId: string, base: Analysis): Promise<HeardAgainState | null> {
    const db = await this.opening;
    const kept = await db?.get('heard', songId).catch(() => undefined);
    const parsed = kept?.of === markOf(base) ? stateSchema.safeParse(kept) : null;
    return parsed?.success ? parsed.data : null;
  }

  async forget(songId: string): Promise<void> {
    const db = await this.opening;
    await db?.delete('heard', songId).catch(() => undefined);
  }
}
