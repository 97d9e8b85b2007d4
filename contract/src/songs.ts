/** Songs on the shelf, and the open song. */
import * as z from 'zod';
import { FORMATS } from '@wild-needle/core/formats';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import { analysisJobSchema } from './analysis';
import { songDocumentSchema } from './document';
import { trimmedText } from './text';

export const recordingSchema = z.object({
  id: z.uuid(),
  fileName: z.string(),
  byteLength: z.int(),
  codec: z.string(),
  channels: z.int(),
  sampleRate: z.int(),
  durationS: z.number(),
});
export type Recording = z.infer<typeof recordingSchema>;

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
  job: analysisJobSchema.nullable(),
});
export type SongSummary = z.infer<typeof songSummarySchema>;

export const openSongSchema = z.object({
  id: z.uuid(),
  revision: z.int(),
  savedAt: z.iso.datetime(),
  document: songDocumentSchema,
  recording: recordingSchema.nullable(),
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
