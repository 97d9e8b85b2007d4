/**
 * Judgements of songs, kept on this computer: the doubts are there at once when a song is opened again as it was. Kept under the
 * version of the judge and of what is written; the recording is told by its id.
 */
import { Injectable } from '@angular/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import * as z from 'zod';
import type { SongJudgement } from '@wild-needle/core/check';
import { strumsInPasses, type SongDocument } from '@wild-needle/core/riff';

interface Schema extends DBSchema {
  judgements: { key: string; value: { of: string; mark: string; judgement: unknown } };
}

const midi = z.array(z.int());
const heardSchema = z.object({
  timeS: z.number(),
  endS: z.number(),
  midi,
  palmMuted: z.boolean(),
  dead: z.boolean(),
});
const judgementSchema: z.ZodType<SongJudgement> = z.object({
  places: z.array(
    z.object({
      id: z.string(),
      verdict: z.enum(['agrees', 'doubtful', 'clashes', 'missing']),
      doubt: z.number(),
      kinds: z.object({ notes: z.number(), mute: z.number(), time: z.number(), there: z.number() }),
      reason: z.discriminatedUnion('kind', [
        z.object({ kind: z.literal('notes'), extra: midi, missing: midi }),
        z.object({ kind: z.literal('mute'), heard: z.enum(['ringing', 'muted', 'dead']) }),
        z.object({ kind: z.literal('time'), offsetS: z.number() }),
        z.object({ kind: z.literal('covered'), by: z.enum(['bass', 'voice']), notes: midi }),
        z.object({ kind: z.literal('not-heard') }),
      ]),
      heard: heardSchema.nullable(),
      offsetS: z.number().nullable(),
    }),
  ),
  extra: z.array(
    z.object({
      id: z.string(),
      sectionId: z.string(),
      pass: z.int(),
      ticks: z.int(),
      timeS: z.number(),
      heard: heardSchema,
      doubt: z.number(),
      settled: z.enum(['kept', 'doubtful']).nullable(),
    }),
  ),
  habit: z.object({ fromS: z.number(), toS: z.number() }).nullable(),
});

const NAME = 'wild-needle-judged';
/** Raise with `JUDGE_VERSION` of core; what an older judge said is not shown. */
export const KEPT_VERSION = 'judge-1';

/** Everything that a judgement depends on besides the sound. */
function markOf(document: SongDocument): string {
  const places = strumsInPasses(document).map(
    ({ id, timeS, written, settled }) => `${id} ${timeS.toFixed(3)} ${written} ${settled}`,
  );
  return [KEPT_VERSION, document.referenceOffsetCents, ...places].join('\n');
}

async function open(): Promise<IDBPDatabase<Schema> | null> {
  try {
    return await openDB<Schema>(NAME, 1, {
      upgrade: (db) => void db.createObjectStore('judgements', { keyPath: 'of' }),
    });
  } catch {
    // Storage is forbidden: the song is judged again each time.
    return null;
  }
}

@Injectable({ providedIn: 'root' })
export class JudgementStore {
  private readonly opening = open();

  /** `of`: the recording, the guitar, and how it is heard. */
  async keep(of: string, document: SongDocument, judgement: SongJudgement): Promise<void> {
    const db = await this.opening;
    await db?.put('judgements', { of, mark: markOf(document), judgement }).catch(() => undefined);
  }

  /** Null where nothing is kept, or of another song than this is now. */
  async kept(of: string, document: SongDocument): Promise<SongJudgement | null> {
    const db = await this.opening;
    const found = await db?.get('judgements', of).catch(() => undefined);
    const parsed = found?.mark === markOf(document) ? judgementSchema.safeParse(found.judgement) : null;
    return parsed?.success ? parsed.data : null;
  }
}
