/** A take of the player's own while it is recorded: pieces of a second and less, each kept before the next one comes. */
import * as z from 'zod';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import { MAX_DURATION_S } from './audio-formats';
import { trimmedText } from './text';

/** Bytes of a sample: 16 bits, little-endian, one channel. */
export const TAKE_SAMPLE_BYTES = 2;
/** A piece is at most two seconds at the highest rate. */
const HIGHEST_RATE = 192_000;
export const MAX_TAKE_PIECE_BYTES = 2 * HIGHEST_RATE * TAKE_SAMPLE_BYTES;
/** Pieces come twice a second and more rarely. */
const MOST_PIECES = 4 * MAX_DURATION_S;

export const takeBodySchema = z.object({ sampleRate: z.int().min(8000).max(HIGHEST_RATE) });

export const takeSchema = z.object({
  id: z.uuid(),
  startedAt: z.iso.datetime(),
  seconds: z.number().min(0),
  /** Pieces have come in the last seconds. */
  isRecording: z.boolean(),
});
export type Take = z.infer<typeof takeSchema>;

export const takePieceParamsSchema = z.object({
  id: z.uuid(),
  seq: z.coerce.number().int().min(0).max(MOST_PIECES),
});

export const keepTakeSchema = z.object({
  title: trimmedText(TEXT_LIMITS.title).min(1),
  /** Another recording of this song, and no new one. */
  songId: z.uuid().optional(),
});
