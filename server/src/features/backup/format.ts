/**
 * A backup: a ZIP (ISO/IEC 21320-1) with a manifest that names every file with its length and SHA-256, songs as JSON with every revision a
 * line, recordings in their original bytes, and what belongs to no song alone.
 */
import * as z from 'zod';
import {
  guessSchema,
  practiceRoundSchema,
  recordingSchema,
  requestBodySchema,
  settingsSchema,
  shapeSchema,
  partMixSchema,
  tagsSchema,
  workTimeBodySchema,
} from '@wild-needle/contract';

export const BACKUP_SCHEMA = 'wild-needle/backup@1';
export const MANIFEST = 'manifest.json';
export const LOG = 'log.json';
export const songPath = (id: string): string => `songs/${id}.json`;
export const historyPath = (id: string): string => `songs/${id}.history.ndjson`;
export const recordingPath = (id: string): string => `recordings/${id}`;

const time = z.iso.datetime();

export const manifestSchema = z.object({
  schema: z.literal(BACKUP_SCHEMA),
  madeAt: time,
  files: z.record(z.string(), z.object({ byteLength: z.int().min(0), sha256: z.string().length(64) })),
});
export type Manifest = z.infer<typeof manifestSchema>;

export const songFileSchema = z.object({
  id: z.uuid(),
  updatedAt: time,
  revision: z.int().min(1),
  tags: tagsSchema.shape.tags,
  takenAway: z.int().min(0),
  /** How loud the parts of the band are; older backups have none. The parts themselves are made again. */
  partMix: partMixSchema.nullable().default(null),
  isRemoved: z.boolean(),
  referenceId: z.uuid().nullable(),
  recordings: z.array(
    recordingSchema.extend({
      sha256: z.string().length(64),
      addedAt: time,
      /** The outline, base64. */
      envelope: z.string(),
      /** False where the sound is not here: it was brought back without. */
      hasSound: z.boolean(),
    }),
  ),
  /** The newest finished one of each recording. */
  analyses: z.array(
    z.object({
      id: z.uuid(),
      recordingId: z.uuid(),
      algorithm: z.string().nullable(),
      result: z.unknown(),
      createdAt: time,
    }),
  ),
});
export type SongFile = z.infer<typeof songFileSchema>;

/** One line of a history. The document may be of an older version. */
export const revisionLineSchema = z.object({
  revision: z.int().min(1),
  savedAt: time,
  document: z.unknown(),
});

/** Rows as the tables have them; a stranger may have written them, so they are held against the contract like every request. */
export const logFileSchema = z.object({
  shapes: z.array(shapeSchema.safeExtend({ createdAt: time })),
  guesses: z.array(guessSchema),
  practiceRounds: z.array(practiceRoundSchema),
  requests: z.array(
    requestBodySchema
      .omit({ isDone: true })
      .extend({ id: z.uuid(), doneAt: time.nullable(), createdAt: time }),
  ),
  workTimes: z.array(workTimeBodySchema.extend({ id: z.uuid() })),
  /** Null where none were changed, and in a backup of before they were kept. */
  settings: settingsSchema.nullable().default(null),
});
export type LogFile = z.infer<typeof logFileSchema>;
