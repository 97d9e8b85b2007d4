/** The band taken apart: which engine takes it apart, how far it is, and how loud each part is. */
import * as z from 'zod';
import { PART_LEVELS_DB, PARTS, WHOLE_BAND, type PartMix } from '@wild-needle/core/parts';

/** `rough`: built in, at once. `network`: better and slow, there when somebody has fetched it. */
export const ENGINES = ['network', 'rough'] as const;
export type Engine = (typeof ENGINES)[number];
const engineSchema = z.enum(ENGINES);

const partSchema = z.enum(PARTS);

const separationSchema = z.object({
  engine: engineSchema,
  status: z.enum(['queued', 'running', 'done', 'stopped', 'failed']),
  /** Pieces that are apart, by their number; a piece is 6 s. */
  ready: z.array(z.int().min(0)),
  pieces: z.int().min(1),
  /** Until it is done, at the speed so far; null before the first piece. */
  secondsLeft: z.number().nullable(),
  /** Bytes that its parts take. */
  byteLength: z.int(),
  /** Parts that the band does not have; none while it is not all apart. */
  missing: z.array(partSchema),
  problem: z.string().nullable(),
});
export type Separation = z.infer<typeof separationSchema>;

export const instrumentsSchema = z.object({
  engines: z.array(
    z.object({
      engine: engineSchema,
      isHere: z.boolean(),
      /** Why it can't run here; null where it can. */
      problem: z.string().nullable(),
      /** What the whole recording will take about. */
      seconds: z.number(),
    }),
  ),
  /** What is apart or on its way, the better one first. */
  separations: z.array(separationSchema),
});
export type Instruments = z.infer<typeof instrumentsSchema>;

export const takeApartSchema = z.object({
  engine: engineSchema,
  /** Where it begins: the loop, or the needle. */
  fromS: z.number().min(0),
});
export type TakeApart = z.infer<typeof takeApartSchema>;

export const pieceParamsSchema = z.object({
  id: z.uuid(),
  engine: engineSchema,
  piece: z.coerce.number().int().min(0),
});

/** Samples a second that the browser plays at. */
export const pieceQuerySchema = z.object({ rate: z.coerce.number().int().min(8000).max(192_000) });

const levelSchema = z.number().min(PART_LEVELS_DB.from).max(PART_LEVELS_DB.to);
export const partMixSchema = z.object({
  levelsDb: z.object({ drums: levelSchema, bass: levelSchema, voice: levelSchema, guitars: levelSchema }),
  alone: partSchema.nullable(),
  silent: z.array(partSchema).max(PARTS.length).readonly(),
}) satisfies z.ZodType<PartMix>;

/** As it was stored; the recording as it is where there is none. */
export const keptPartMixSchema = partMixSchema.catch(WHOLE_BAND);
