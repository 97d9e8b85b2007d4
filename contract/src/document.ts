/**
 * The stored document, `wild-needle/song@2`: the shape of `core/riff`, checked at every border. Older versions
 * are brought up to date by {@link upgradeDocument}.
 */
import * as z from 'zod';
import {
  barsPerPass,
  COUNT_LIMITS,
  DOCUMENT_SCHEMA,
  MARK_FIELDS,
  RANGES,
  sectionBars,
  SETTLED_ANSWERS,
  TEXT_LIMITS,
  TRUSTS,
  TUNE_TO,
  UNITS,
  type Marks,
  type SongDocument,
} from '@wild-needle/core/riff';
import { KEY_MODES, TONIC } from '@wild-needle/core/theory';
import { text, trimmedText } from './text';
import { assertSameType, type SameType } from './same-type';
import { upgradeToNewest } from './upgrades';

const id = text(TEXT_LIMITS.id).min(1);
const name = text(TEXT_LIMITS.name);
const note = text(TEXT_LIMITS.note);
export const within = ([least, most]: readonly [number, number]): z.ZodInt => z.int().min(least).max(most);
const ticks = within(RANGES.ticks);
export const midiNote = within(RANGES.midiNote);
export const referenceOffsetCents = z
  .number()
  .min(RANGES.referenceOffsetCents[0])
  .max(RANGES.referenceOffsetCents[1]);

export const keySchema = z.object({ tonic: z.string().regex(TONIC), mode: z.enum(KEY_MODES) });

export const tuningSchema = z.object({
  name: text(TEXT_LIMITS.tuningName).min(1),
  stringsMidi: z.array(midiNote).min(1).max(COUNT_LIMITS.strings),
  capo: within(RANGES.capo),
});

const meterFields = { beats: within(RANGES.beats), unit: z.literal(UNITS) };

type MarkSchemas = { readonly [K in keyof Marks]: z.ZodDefault<z.ZodType<Marks[K]>> };

/** A field per row of the table; what older documents lack is not marked. */
const marksSchema = z.object(
  Object.fromEntries(
    Object.entries(MARK_FIELDS).map(([field, values]) => [
      field,
      'range' in values
        ? within(values.range).default(values.range[0])
        : z.literal([...values]).default(values[0]),
    ]),
    // The table gives each field the schema of its own values; `fromEntries` forgets which.
  ) as unknown as MarkSchemas,
);

const frets = z
  .array(z.object({ string: z.int().min(1).max(COUNT_LIMITS.strings), fret: within(RANGES.fret) }))
  .max(COUNT_LIMITS.strings)
  .refine(
    (written) => new Set(written.map((f) => f.string)).size === written.length,
    'a string is written twice',
  );

/** Frets need strings that the tuning has. */
const writtenAsSchema = z
  .object({ tuning: tuningSchema, frets })
  .refine(
    (written) => written.frets.every((f) => f.string <= written.tuning.stringsMidi.length),
    'a string is not there in its tuning',
  );

/** Fields with a default came later; stored documents of before lack them. */
const strumSchema = z.object({
  id,
  startTicks: ticks,
  durationTicks: ticks.min(1),
  frets,
  writtenAs: writtenAsSchema.nullable().default(null),
  palmMute: z.boolean(),
  dead: z.boolean(),
  rest: z.boolean().default(false),
  marks: marksSchema.prefault({}),
  note: note.default(''),
  trust: z.enum(TRUSTS),
});

const strums = z.array(strumSchema).max(COUNT_LIMITS.strums);

const variationSchema = z
  .object({ id, name, fromTicks: ticks, toTicks: ticks, strums, guitar2: strums.default([]) })
  .refine((v) => v.toTicks > v.fromTicks, 'a variation must end after it starts');

const riffSchema = z.object({
  id,
  letter: text(TEXT_LIMITS.letter).min(1),
  name,
  bars: z.array(z.object(meterFields)).min(1).max(COUNT_LIMITS.barsOfRiff),
  strums,
  guitar2: strums.default([]),
  variations: z.array(variationSchema).max(COUNT_LIMITS.variations).default([]),
  barNotes: z
    .array(z.object({ bar: z.int().min(0), text: note, todo: z.boolean() }))
    .max(COUNT_LIMITS.barNotes)
    .default([]),
  groups: z
    .array(z.object({ name, startBar: z.int().min(0), bars: z.int().min(1) }))
    .max(COUNT_LIMITS.groups)
    .default([]),
});

const barsOfRiff = z.int().min(0).max(COUNT_LIMITS.barsOfRiff);

const sectionSchema = z.object({
  id,
  name,
  riffId: id.nullable(),
  startBar: z.int().min(0),
  passes: z.int().min(1).max(COUNT_LIMITS.passes),
  skipBars: barsOfRiff.default(0),
  cutBars: barsOfRiff.default(0),
  transpose: within(RANGES.transpose),
  answers: z
    .array(z.object({ pass: z.int().min(0), variationId: id.nullable() }))
    .max(COUNT_LIMITS.answers)
    .default([]),
  tone: name.default(''),
  key: keySchema.nullable().default(null),
  startIsConfirmed: z.boolean().default(false),
  settled: z
    .array(
      z.object({
        pass: z.int().min(0),
        guitar: z.literal([1, 2]),
        ticks,
        written: text(TEXT_LIMITS.written),
        answer: z.enum(SETTLED_ANSWERS),
      }),
    )
    .max(COUNT_LIMITS.settled)
    .default([]),
});

const loopSchema = z
  .object({
    id,
    name: text(TEXT_LIMITS.loopName).min(1),
    startS: z.number().min(0),
    endS: z.number(),
  })
  .refine((loop) => loop.endS > loop.startS, 'a loop must end after it starts');

const schema = z
  .object({
    schema: z.literal(DOCUMENT_SCHEMA),
    title: trimmedText(TEXT_LIMITS.title).min(1),
    artist: trimmedText(TEXT_LIMITS.artist),
    tuning: tuningSchema,
    guitar2: tuningSchema.nullable().default(null),
    key: keySchema.nullable(),
    referenceOffsetCents,
    recordings: z.array(z.object({ id, isReference: z.boolean() })).max(COUNT_LIMITS.recordings),
    grid: z.object({
      beatsS: z.array(z.number().min(RANGES.timeS[0]).max(RANGES.timeS[1])).max(COUNT_LIMITS.beats),
      bars: z.array(z.object({ beat: z.int().min(0), ...meterFields })).max(COUNT_LIMITS.bars),
    }),
    tuneTo: z.enum(TUNE_TO).default('concert'),
    loops: z.array(loopSchema).max(COUNT_LIMITS.loops).default([]),
    riffs: z.array(riffSchema).max(COUNT_LIMITS.riffs),
    sections: z.array(sectionSchema).max(COUNT_LIMITS.sections),
  })
  .superRefine((document, context) => {
    const riffIds = new Set(document.riffs.map((r) => r.id));
    document.sections.forEach((section, i) => {
      if (section.riffId !== null && !riffIds.has(section.riffId)) {
        context.addIssue({
          code: 'custom',
          path: ['sections', i, 'riffId'],
          message: 'names no riff of the song',
        });
      }
      const perPass = barsPerPass(document, section);
      if (Math.max(section.skipBars, section.cutBars) >= perPass || sectionBars(document, section) < 1) {
        context.addIssue({
          code: 'custom',
          path: ['sections', i, 'cutBars'],
          message: 'leaves no bar of a pass',
        });
      }
    });
    if (riffIds.size !== document.riffs.length) {
      context.addIssue({ code: 'custom', path: ['riffs'], message: 'two riffs have the same id' });
    }
    document.riffs.forEach((riff, i) => {
      const all = [riff, ...riff.variations].flatMap((part) => [...part.strums, ...part.guitar2]);
      if (new Set(all.map((s) => s.id)).size !== all.length) {
        context.addIssue({
          code: 'custom',
          path: ['riffs', i, 'strums'],
          message: 'two strums have the same id',
        });
      }
    });
    if (document.grid.beatsS.some((t, i, all) => i > 0 && t <= all[i - 1])) {
      context.addIssue({ code: 'custom', path: ['grid', 'beatsS'], message: 'beats must ascend' });
    }
  });
assertSameType<SameType<z.infer<typeof schema>, SongDocument>>();

export const songDocumentSchema: z.ZodType<SongDocument> = schema;

/** The song file as JSON Schema (draft 2020-12), for those who read or write it elsewhere. */
export function describeSongFile(): Record<string, unknown> {
  return { title: 'Wild Needle song', ...z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) };
}

/**
 * A stored document of any version as the present one. Throws a ZodError when it is damaged or from a newer
 * program.
 */
export function upgradeDocument(stored: unknown): SongDocument {
  return songDocumentSchema.parse(upgradeToNewest(stored));
}
