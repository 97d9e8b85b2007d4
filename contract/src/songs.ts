/** Songs on the shelf, and the open song. */
import * as z from 'zod';
import { FORMATS } from '@wild-needle/core/formats';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import { analysisJobSchema } from './analysis';
import { songDocumentSchema } from './document';
import { text, trimmedText } from './text';

export const recordingSchema = z.object({
  id: z.uuid(),
  fileName: z.string(),
  byteLength: z.int(),
  codec: z.string(),
  channels: z.int(),
  sampleRate: z.int(),
  durationS: z.number(),
});
/** One that a song is played from; the tab is written to the reference, the others are laid along it. */
export type Recording = z.infer<typeof recordingSchema>;

/** The steps of the work, in its order. */
export const STEPS = ['tuning', 'sections', 'riffs', 'check', 'sheet', 'practice'] as const;
export type Step = (typeof STEPS)[number];

export const SHELF_SORTS = ['worked', 'due', 'title'] as const;
export type ShelfSort = (typeof SHELF_SORTS)[number];
/** Songs that are listed at a time at most. */
export const SHELF_PAGE = 200;

export const shelfQuerySchema = z.object({
  /** Words of titles, artists, tags, notes and tunings, and chords one after the other. */
  search: text(200).optional(),
  sort: z.enum(SHELF_SORTS).default('worked'),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(SHELF_PAGE).default(SHELF_PAGE),
});
export type ShelfQuery = z.infer<typeof shelfQuerySchema>;

export const TAG_LIMITS = { tags: 12, letters: 24 } as const;
export const tagsSchema = z.object({
  tags: z.array(trimmedText(TAG_LIMITS.letters).min(1)).max(TAG_LIMITS.tags),
});

/** A song that waits to be brought back, or to be gone. */
export const removedSongSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  artist: z.string(),
  removedAt: z.iso.datetime(),
  /** When it is gone for good. */
  goneAt: z.iso.datetime(),
  /** Of its recordings. */
  byteLength: z.int(),
});
export type RemovedSong = z.infer<typeof removedSongSchema>;
/** How long a song waits there, days. */
export const REMOVED_KEPT_DAYS = 30;

/** What the shelf shows of a song. */
export const songSummarySchema = z.object({
  id: z.uuid(),
  title: z.string(),
  artist: z.string(),
  updatedAt: z.iso.datetime(),
  revision: z.int(),
  durationS: z.number().nullable(),
  tuningLabel: z.string(),
  tempoBpm: z.number().nullable(),
  /** Strums confirmed against the recording, of those written. */
  checkedStrums: z.int(),
  strums: z.int(),
  riffs: z.int(),
  tags: z.array(z.string()),
  /** Bars of each section, and those of them in which all is checked. */
  bars: z.array(z.object({ name: z.string(), bars: z.int(), checkedBars: z.int() })),
  /** How far each step is, 0 to 1. */
  steps: z.object(Object.fromEntries(STEPS.map((step) => [step, z.number()])) as Record<Step, z.ZodNumber>),
  namedSections: z.int(),
  /** Name of a section whose riff is not written; '' where all are. */
  unwritten: z.string(),
  /** Strums of all passes that nobody has settled. */
  toSettle: z.int(),
  /** What is slowest against its tempo in practice, beats a minute; null where all is reached or nothing can be practised. */
  slowest: z.object({ name: z.string(), bpm: z.number(), ofBpm: z.number() }).nullable(),
  /** The reference first. */
  recordings: z.array(z.object({ id: z.uuid(), fileName: z.string(), durationS: z.number() })),
  /** The nearest day that somebody waits for, 'YYYY-MM-DD'. */
  dueOn: z.iso.date().nullable(),
  job: analysisJobSchema.nullable(),
});
export type SongSummary = z.infer<typeof songSummarySchema>;

export const openSongSchema = z.object({
  id: z.uuid(),
  revision: z.int(),
  savedAt: z.iso.datetime(),
  document: songDocumentSchema,
  /** The reference. */
  recording: recordingSchema.nullable(),
  /** All of them, the reference first. */
  recordings: z.array(recordingSchema),
  job: analysisJobSchema.nullable(),
});
export type OpenSong = z.infer<typeof openSongSchema>;

export const saveRequestSchema = z.object({
  /** The revision that the change was made on. */
  baseRevision: z.int().min(1),
  document: songDocumentSchema,
});
export type SaveRequest = z.infer<typeof saveRequestSchema>;

export const saveAnswerSchema = z.object({ revision: z.int(), savedAt: z.iso.datetime() });
export type SaveAnswer = z.infer<typeof saveAnswerSchema>;

/** A song that comes as a document: from a song file, or from tab that was brought in. */
export const createRequestSchema = z.object({ document: songDocumentSchema });
export type CreateRequest = z.infer<typeof createRequestSchema>;

export const createAnswerSchema = z.object({ songId: z.uuid() });
export type CreateAnswer = z.infer<typeof createAnswerSchema>;

export const importQuerySchema = z.object({
  fileName: trimmedText(255).min(1),
  /** Taken from the file's name when left out. */
  title: trimmedText(TEXT_LIMITS.title).min(1).optional(),
  artist: trimmedText(TEXT_LIMITS.artist).optional(),
  /** Another recording of this song, and no new one. */
  songId: z.uuid().optional(),
});
export type ImportQuery = z.infer<typeof importQuerySchema>;

export const importAnswerSchema = z.object({
  songId: z.uuid(),
  recordingId: z.uuid(),
  /** True when the same bytes were on the shelf already: nothing was stored again. */
  alreadyKnown: z.boolean(),
});
export type ImportAnswer = z.infer<typeof importAnswerSchema>;

export const idParamsSchema = z.object({ id: z.uuid() });

/** A format by its id, see `FORMATS` of the core. */
export const exportParamsSchema = idParamsSchema.extend({ format: z.enum(FORMATS.map((f) => f.id)) });

/** Largest file taken. */
export const MAX_UPLOAD_BYTES = 500 * 1000 * 1000;
