/**
 * The steps that can be undone, kept over a reload of the page for as long as its tab is open. Documents share what did not
 * change: each part is written once, and comes back as one object, so that a step still costs little and shows what it changed.
 */
import isEqual from 'fast-deep-equal';
import * as z from 'zod';
import { upgradeDocument } from '@wild-needle/contract';
import type { Riff, SongDocument } from '@wild-needle/core/riff';

export interface Steps {
  readonly past: readonly SongDocument[];
  readonly future: readonly SongDocument[];
}

/** Steps to either side that are kept: an hour of work, and far under what a tab may store. */
const MOST_STEPS = 60;
const KEY = 'wild-needle.history.';

const partsSchema = z.record(z.string(), z.int().nonnegative());
const packedSchema = z.object({
  /** Parts of documents, and riffs, each once. */
  table: z.array(z.unknown()),
  /** Each document: its parts as places in the table, its riffs as a list of them. */
  documents: z.array(z.object({ parts: partsSchema, riffs: z.array(z.int().nonnegative()) })),
  /** Which of them is shown. */
  at: z.int().nonnegative(),
});
type Packed = z.infer<typeof packedSchema>;

function partsOf({ riffs: _, ...parts }: SongDocument): [string, unknown][] {
  return Object.entries(parts);
}

/** Equal parts have equal texts: what comes from the server has its keys in another order. */
function inOrder(part: unknown): string {
  return JSON.stringify(part, (_, value: unknown) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );
}

/** As text, for {@link unpackSteps}. */
export function packSteps(document: SongDocument, { past, future }: Steps): string {
  const table: unknown[] = [];
  const places = new Map<unknown, number>();
  const placeOf = (part: unknown): number => {
    const known = places.get(part);
    if (known !== undefined) return known;
    places.set(part, table.length);
    return table.push(part) - 1;
  };
  const before = past.slice(-MOST_STEPS);
  const documents = [...before, document, ...future.slice(0, MOST_STEPS)].map((d) => ({
    parts: Object.fromEntries(partsOf(d).map(([name, part]) => [name, placeOf(part)])),
    riffs: d.riffs.map(placeOf),
  }));
  return JSON.stringify({ table, documents, at: before.length } satisfies Packed);
}

/** Lets the screen go on between two documents. */
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

/** The steps around a document; null when the text is of another state of it, or damaged. */
export async function unpackSteps(text: string, document: SongDocument): Promise<Steps | null> {
  let packed: Packed;
  try {
    packed = packedSchema.parse(JSON.parse(text));
  } catch {
    return null;
  }
  const own = new Map<string, unknown>();
  for (const part of [...partsOf(document).map(([, value]) => value), ...document.riffs])
    own.set(inOrder(part), part);
  const table = packed.table.map((part) => own.get(inOrder(part)) ?? part);
  const documents = packed.documents.map(({ parts, riffs }) => ({
    ...Object.fromEntries(Object.entries(parts).map(([name, place]) => [name, table[place]])),
    riffs: riffs.map((place) => table[place] as Riff),
  })) as unknown as SongDocument[];
  const isSound = (d: SongDocument): boolean => {
    try {
      return isEqual(upgradeDocument(d), d);
    } catch {
      return false;
    }
  };
  if (!isEqual(documents[packed.at], document)) return null;
  for (const step of documents) {
    if (!isSound(step)) return null;
    await pause();
  }
  return { past: documents.slice(0, packed.at), future: documents.slice(packed.at + 1) };
}

/** Keeps the steps of a song in this tab; without them where there is no room, or storage is forbidden. */
export function keepSteps(songId: string, document: SongDocument, steps: Steps): void {
  try {
    // Of one song: tabs have little room.
    for (const key of Object.keys(sessionStorage)) if (key.startsWith(KEY)) sessionStorage.removeItem(key);
    if (steps.past.length + steps.future.length > 0)
      sessionStorage.setItem(KEY + songId, packSteps(document, steps));
  } catch {
    // The document itself is safe; its steps are a comfort.
  }
}

export async function keptSteps(songId: string, document: SongDocument): Promise<Steps | null> {
  let text: string | null = null;
  try {
    text = sessionStorage.getItem(KEY + songId);
  } catch {
    // Storage is forbidden.
  }
  return text === null ? null : unpackSteps(text, document);
}
