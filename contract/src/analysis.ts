/** What the analysis found, `wild-needle/analysis@1`, and the job that makes it. */
import * as z from 'zod';
import type { Analysis } from '@wild-needle/core/analysis';
import { COUNT_LIMITS, HAND_FIELDS, RANGES } from '@wild-needle/core/riff';
import { CHORD_QUALITIES } from '@wild-needle/core/theory';
import { keySchema, midiNote, referenceOffsetCents, tuningSchema, within } from './document';
import { audioProblemCodeSchema } from './errors';
import { assertSameType, type SameType } from './same-type';
import { renamedIn } from './upgrades';

const pitchClass = z.int().min(0).max(11);

const voicingSchema = z.object({ frets: z.array(within(RANGES.fret).nullable()), score: z.number() });

const strumSchema = z.object({
  timeS: z.number(),
  endS: z.number(),
  midi: z.array(midiNote),
  rootPc: pitchClass.nullable(),
  quality: z.enum(CHORD_QUALITIES).nullable(),
  palmMuted: z.boolean(),
  dead: z.boolean(),
  confidence: z.number().min(0).max(1),
  alternatives: z.array(z.object({ midi: z.array(midiNote), probability: z.number() })).default([]),
  name: z.string(),
  voicings: z.array(voicingSchema),
});

const meterSchema = z.object({ beats: z.int(), unit: z.int() });
/** Stored analyses of before say `confidence`. */
const meterAlternativeSchema = z.preprocess(
  renamedIn({ confidence: 'probability' }),
  z.object({ tempoBpm: z.number(), meter: meterSchema, probability: z.number() }),
);
const spanSchema = z.object({ startS: z.number(), endS: z.number() });

/** Stored analyses of before say `startSureness`. */
const sectionSchema = z.preprocess(
  renamedIn({ startSureness: 'startProbability' }),
  spanSchema.extend({
    label: z.string(),
    transposeOf: z.object({ label: z.string(), semitones: z.int() }).nullable(),
    startBar: z.int(),
    barsPerPass: z.int(),
    passes: z.int(),
    cutBars: z.int().min(0).default(0),
    returns: z.boolean().default(true),
    startProbability: z.number().min(0).max(1).default(1),
    orElseBars: z.int().nullable().default(null),
    likeRiff: z.number().min(0).max(1).nullable().default(null),
    key: keySchema.nullable().default(null),
  }),
);

const tuningCandidateSchema = tuningSchema.extend({
  score: z.number(),
  reasons: z
    .object({
      lowestAboveOpen: z.number(),
      openShare: z.number(),
      oneFingerShare: z.number(),
      unplayableShare: z.number(),
      meanEffort: z.number(),
    })
    .nullable()
    .default(null),
});

const doubtSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('no-strums') }),
  z.object({ kind: z.literal('no-notes') }),
  z.object({ kind: z.literal('few-strums'), count: z.number() }),
  z.object({ kind: z.literal('no-chords') }),
  z.object({ kind: z.literal('faint') }),
  z.object({ kind: z.literal('no-pulse') }),
  z.object({ kind: z.literal('tempo'), other: meterAlternativeSchema }),
  z.object({ kind: z.literal('between-notes'), cents: z.number() }),
  z.object({ kind: z.literal('free-time'), startS: z.number(), endS: z.number() }),
]);

/** Fields with a default came with later algorithms; stored analyses of earlier ones lack them. */
const schema = z.object({
  schema: z.literal('wild-needle/analysis@1'),
  algorithm: z.string(),
  durationS: z.number(),
  referenceOffsetCents: z.number(),
  referenceSpreadCents: z.number(),
  referenceIsUnsettled: z.boolean().default(false),
  referenceHistogram: z.array(z.number()).default([]),
  referencePartials: z.int().default(0),
  referenceOverTime: z.array(z.object({ timeS: z.number(), cents: z.number() })).default([]),
  tempoBpm: z.number().nullable(),
  meter: meterSchema,
  meters: z.array(meterAlternativeSchema).default([]),
  beatsS: z.array(z.number()),
  downbeatsS: z.array(z.number()),
  beatsPerBar: z.array(z.int()).default([]),
  freeTime: z.array(spanSchema).default([]),
  key: keySchema.nullable(),
  tuning: tuningSchema.extend({ candidates: z.array(tuningCandidateSchema) }),
  sections: z.array(sectionSchema),
  sameAsBar: z.array(z.int()).default([]),
  strums: z.array(strumSchema),
  strokes: z
    .array(z.object({ timeS: z.number(), ring: z.number(), palmMute: z.number(), dead: z.number() }))
    .default([]),
  guitars: z.array(z.object({ side: z.enum(['left', 'right']), strums: z.array(strumSchema) })).default([]),
  doubts: z.array(doubtSchema).default([]),
});

assertSameType<SameType<z.infer<typeof schema>, Analysis>>();

export const analysisSchema: z.ZodType<Analysis> = schema;

/** What the user knows before the analysis: it is used instead of a guess. */
export const analysisRequestSchema = z.object({
  tuning: tuningSchema.optional(),
  confirmed: z
    .object({
      referenceCents: referenceOffsetCents.nullable(),
      spans: z.array(spanSchema).max(COUNT_LIMITS.sections),
      strums: z
        .array(
          z.object({
            timeS: z.number().min(0),
            midi: z.array(midiNote).max(COUNT_LIMITS.strings),
            palmMuted: z.boolean(),
            dead: z.boolean(),
          }),
        )
        .max(COUNT_LIMITS.strums),
    })
    .optional(),
});
export type AnalysisRequest = z.infer<typeof analysisRequestSchema>;

/** What is known of a recording while the rest is still being measured. */
export const heardSoFarSchema = z.object({
  referenceOffsetCents: z.number().nullable(),
  tempoBpm: z.number().nullable(),
  meter: meterSchema.nullable(),
  downbeatsS: z.array(z.number()),
  strumsS: z.array(z.number()),
});
export type HeardSoFar = z.infer<typeof heardSoFarSchema>;

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
  /** Null until something is known, and when the result is there. */
  soFar: heardSoFarSchema.nullable(),
  problem: z
    .object({ code: z.union([audioProblemCodeSchema, z.literal('internal')]), message: z.string() })
    .nullable(),
  /** What was set by hand before its draft came, and was left as it is. */
  kept: z.array(z.enum(HAND_FIELDS)),
});
export type AnalysisJob = z.infer<typeof analysisJobSchema>;
