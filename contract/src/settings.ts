/** What the player prefers: how it looks and sounds, and the guitar that is played. A value that makes no sense is the usual one. */
import * as z from 'zod';
import { USUAL_SCALE_MM } from '@wild-needle/core/guitar';
import { DEFAULT_STAIR } from '@wild-needle/core/practice';
import type { Spelling } from '@wild-needle/core/theory';

const MOST_PEDALS = 100;
const LONGEST_NAME = 100;

/** Steps of a stair that make sense together: it goes up. */
const stairSchema = z
  .object({
    fromPercent: z.int().min(25).max(95),
    byPercent: z.int().min(1).max(25),
    toPercent: z.int().min(50).max(150),
    cleanRounds: z.int().min(1).max(10),
    slipsBack: z.int().min(0).max(10),
  })
  .refine(({ fromPercent, toPercent }) => fromPercent < toPercent);

const SPELLINGS = ['key', 'sharps', 'flats'] as const satisfies readonly Spelling[];
const text = z.string().max(LONGEST_NAME);

export const settingsSchema = z.object({
  /** `auto` follows the operating system. */
  theme: z.enum(['auto', 'light', 'dark']).catch('auto'),
  /** Loud enough to hear, with room above: hearing comes first. */
  volume: z.number().min(0).max(1).catch(0.6),
  /** Of the click against full scale, 0 to 1. */
  clickLevel: z.number().min(0).max(1).catch(0.4),
  /** A bar is counted before playback starts. */
  countIn: z.boolean().catch(false),
  /** Check covers what it has heard until the ear has named it. */
  earFirst: z.boolean().catch(false),
  /** MIDI pedals by what they do, as `{ loop: 'control 64' }`. */
  pedals: z
    .record(text, text)
    .refine((pedals) => Object.keys(pedals).length <= MOST_PEDALS)
    .catch({}),
  /** How notes are named. */
  spelling: z.enum(SPELLINGS).catch('key'),
  /** How Practice goes from slow to fast. */
  stair: stairSchema.catch(DEFAULT_STAIR),
  /** That the player has for practising a day. */
  practiceMinutes: z.int().min(5).max(180).catch(20),
  /** From the loudspeaker back through the input, ms; null until it is measured. */
  inputDelayMs: z.number().min(0).max(1000).nullable().catch(null),
  /** Name of a set of `STRING_SETS`. */
  stringSet: text.catch('10–46'),
  /** Length of the open strings. */
  scaleMm: z.number().min(500).max(800).catch(USUAL_SCALE_MM),
});
export type Settings = Readonly<z.infer<typeof settingsSchema>>;

export const DEFAULT_SETTINGS: Settings = settingsSchema.parse({});

/** Null where no browser has kept any. */
export const keptSettingsSchema = settingsSchema.nullable();
