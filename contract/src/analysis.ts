/** What the analysis found, `wild-needle/analysis@1`, and the job that makes it. */
import * as z from 'zod';
import type { Analysis } from '@wild-needle/core/analysis';
import { audioProblemCodeSchema } from './errors';
import { keySchema, tuningSchema } from './document';

const midiNote = z.int().min(0).max(127);
const pitchClass = z.int().min(0).max(11);

const voicingSchema = z.object({ frets: z.array(z.int().min(0).max(24).nullable()), score: z.number() });

const strumSchema = z.object({
  timeS: z.number(),
  endS: z.number(),
  midi: z.array(midiNote),
  rootPc: pitchClass.nullable(),
  quality: z.enum(['5', 'b5', 'oct', 'sus2', 'sus4', 'maj', 'min', 'single', 'other']).nullable(),
  palmMuted: z.boolean(),
  dead: z.boolean(),
  confidence: z.number().min(0).max(1),
  name: z.string(),
  voicings: z.array(voicingSchema),
});

const meterSchema = z.object({ beats: z.int(), unit: z.int() });

export const analysisSchema: z.ZodType<Analysis> = z.object({
  schema: z.literal('wild-needle/analysis@1'),
  algorithm: z.string(),
  durationS: z.number(),
  referenceOffsetCents: z.number(),
  referenceSpreadCents: z.number(),
  tempoBpm: z.number().nullable(),
  meter: meterSchema,
  // The first algorithm kept one reading only.
  meters: z.array(z.object({ tempoBpm: z.number(), meter: meterSchema, confidence: z.number() })).default([]),
  beatsS: z.array(z.number()),
  downbeatsS: z.array(z.number()),
  key: keySchema.nullable(),
  tuning: tuningSchema.extend({ candidates: z.array(tuningSchema.extend({ score: z.number() })) }),
  sections: z.array(
    z.object({
      startS: z.number(),
      endS: z.number(),
      label: z.string(),
      transposeOf: z.object({ label: z.string(), semitones: z.int() }).nullable(),
      startBar: z.int(),
      barsPerPass: z.int(),
      passes: z.int(),
    }),
  ),
  strums: z.array(strumSchema),
});

export const jobStatusSchema = z.enum(['queued', 'running', 'done', 'failed', 'cancelled']);

/** An analysis on its way. */
export const analysisJobSchema = z.object({
  id: z.uuid(),
  recordingId: z.uuid(),
  songId: z.uuid(),
  status: jobStatusSchema,
  /** 0 to 1. */
  share: z.number().min(0).max(1),
  /** What is being done, in words. */
  doing: z.string(),
  problem: z
    .object({ code: z.union([audioProblemCodeSchema, z.literal('internal')]), message: z.string() })
    .nullable(),
});
export type AnalysisJob = z.infer<typeof analysisJobSchema>;
