/**
 * The stored document, `wild-needle/song@1`: the shape of `core/riff`, checked at every border. Older versions
 * are brought up to date by {@link upgradeDocument}.
 */
import * as z from 'zod';
import type { SongDocument } from '@wild-needle/core/riff';

const id = z.string().min(1).max(80);
const midiNote = z.int().min(0).max(127);
const timeS = z.number().min(-10).max(3600);
/** Longest riff that anyone writes once: a thousand bars of 4/4. */
const ticks = z.int().min(0).max(4_000_000);

export const keySchema = z.object({
  tonic: z.string().regex(/^[A-G][#b]?$/),
  mode: z.enum(['major', 'minor']),
});

export const tuningSchema = z.object({
  name: z.string().min(1).max(40),
  stringsMidi: z.array(midiNote).min(1).max(12),
  capo: z.int().min(0).max(12),
});

const marksSchema = z.object({
  join: z.enum(['slide', 'hammer', 'tie']).nullable().default(null),
  slideIn: z.enum(['below', 'above']).nullable().default(null),
  slideOut: z.enum(['down', 'up']).nullable().default(null),
  length: z.enum(['ring', 'short']).nullable().default(null),
  bendCents: z.int().min(0).max(400).default(0),
  vibrato: z.boolean().default(false),
  harmonic: z.enum(['natural', 'pinch']).nullable().default(null),
  bar: z.enum(['dip', 'dive']).nullable().default(null),
  accent: z.boolean().default(false),
  stroke: z.enum(['down', 'up']).nullable().default(null),
});

const note = z.string().max(1000);

/** Fields with a default came later; stored documents of before lack them. */
const strumSchema = z.object({
  id,
  startTicks: ticks,
  durationTicks: ticks.min(1),
  frets: z
    .array(z.object({ string: z.int().min(1).max(12), fret: z.int().min(0).max(24) }))
    .max(12)
    .refine(
      (frets) => new Set(frets.map((f) => f.string)).size === frets.length,
      'a string is written twice',
    ),
  palmMute: z.boolean(),
  dead: z.boolean(),
  rest: z.boolean().default(false),
  marks: marksSchema.prefault({}),
  note: note.default(''),
  trust: z.enum(['guessed', 'heard', 'checked']),
});

const strums = z.array(strumSchema).max(20_000);

const variationSchema = z
  .object({
    id,
    name: z.string().max(80),
    fromTicks: ticks,
    toTicks: ticks,
    strums,
    second: strums.default([]),
  })
  .refine((v) => v.toTicks > v.fromTicks, 'a variation must end after it starts');

const riffSchema = z.object({
  id,
  letter: z.string().min(1).max(4),
  name: z.string().max(80),
  bars: z
    .array(
      z.object({
        beats: z.int().min(1).max(32),
        unit: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
      }),
    )
    .min(1)
    .max(1000),
  strums,
  second: strums.default([]),
  variations: z.array(variationSchema).max(100).default([]),
  barNotes: z
    .array(z.object({ bar: z.int().min(0), text: note, todo: z.boolean() }))
    .max(1000)
    .default([]),
  groups: z
    .array(z.object({ name: z.string().max(80), startBar: z.int().min(0), bars: z.int().min(1) }))
    .max(1000)
    .default([]),
});

const sectionSchema = z.object({
  id,
  name: z.string().max(80),
  riffId: id,
  startBar: z.int().min(0),
  passes: z.int().min(1).max(1000),
  transpose: z.int().min(-24).max(24),
  answers: z
    .array(z.object({ pass: z.int().min(0), variationId: id.nullable() }))
    .max(2000)
    .default([]),
  tone: z.string().max(80).default(''),
  startIsSettled: z.boolean().default(false),
});

export const songDocumentSchema: z.ZodType<SongDocument> = z
  .object({
    schema: z.literal('wild-needle/song@1'),
    title: z.string().trim().min(1).max(200),
    artist: z.string().trim().max(200),
    tuning: tuningSchema,
    second: tuningSchema.nullable().default(null),
    key: keySchema.nullable(),
    referenceOffsetCents: z.number().min(-100).max(100),
    recordings: z.array(z.object({ id, isReference: z.boolean() })).max(20),
    grid: z.object({
      beatsS: z.array(timeS).max(20_000),
      bars: z
        .array(
          z.object({ beat: z.int().min(0), beats: z.int().min(1).max(32), unit: z.int().min(1).max(16) }),
        )
        .max(10_000),
    }),
    tuneTo: z.enum(['concert', 'recording']).default('concert'),
    loops: z
      .array(
        z
          .object({ id, name: z.string().min(1).max(100), startS: z.number().min(0), endS: z.number() })
          .refine((loop) => loop.endS > loop.startS, 'a loop must end after it starts'),
      )
      .max(200)
      .default([]),
    riffs: z.array(riffSchema).max(200),
    sections: z.array(sectionSchema).max(1000),
  })
  .superRefine((document, context) => {
    const riffIds = new Set(document.riffs.map((r) => r.id));
    document.sections.forEach((section, i) => {
      if (!riffIds.has(section.riffId)) {
        context.addIssue({
          code: 'custom',
          path: ['sections', i, 'riffId'],
          message: 'names no riff of the song',
        });
      }
    });
    if (riffIds.size !== document.riffs.length) {
      context.addIssue({ code: 'custom', path: ['riffs'], message: 'two riffs have the same id' });
    }
    document.riffs.forEach((riff, i) => {
      const all = [riff, ...riff.variations].flatMap((part) => [...part.strums, ...part.second]);
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

/** One step per older version, from its number to the next. None yet: version 1 is the first. */
const UPGRADES: Readonly<Record<string, (older: unknown) => unknown>> = {};

/**
 * A stored document of any version as the present one. Throws a ZodError when it is damaged or from a newer
 * program.
 */
export function upgradeDocument(stored: unknown, upgrades = UPGRADES): SongDocument {
  let document = stored;
  const versionOf = (value: unknown): string => z.object({ schema: z.string() }).parse(value).schema;
  for (let upgrade = upgrades[versionOf(document)]; upgrade; upgrade = upgrades[versionOf(document)]) {
    document = upgrade(document);
  }
  return songDocumentSchema.parse(document);
}
