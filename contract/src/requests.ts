/** What somebody waits for: which song, what of it, in which form, until when. */
import * as z from 'zod';
import { FORMATS } from '@wild-needle/core/formats';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import type { SheetVersion } from '@wild-needle/core/sheet';
import { trimmedText } from './text';

/** As the sheet has them; what makes them stays out of the contract, and its type says when one is missing here. */
const VERSIONS = Object.keys({
  'as-written': true,
  'two-strings': true,
  'one-string': true,
  'no-mutes': true,
  'standard-tuning': true,
  'with-capo': true,
  'one-guitar': true,
} satisfies Record<SheetVersion, true>) as SheetVersion[];

export const requestBodySchema = z.object({
  songId: z.uuid(),
  /** Of who asked; names stay off the shelf. */
  initials: trimmedText(8).min(1),
  /** In words: 'sheet, with two strings'. */
  wanted: trimmedText(200),
  /** Id of the section that it is about; '' for the whole song. */
  section: trimmedText(TEXT_LIMITS.id),
  format: z.enum(['sheet', ...FORMATS.map((f) => f.id)]).nullable(),
  /** Of the tab; null where it was not said. */
  version: z.enum(VERSIONS).nullable().default(null),
  dueOn: z.iso.date().nullable(),
  isDone: z.boolean(),
});

export type RequestBody = z.output<typeof requestBodySchema>;

export const requestSchema = requestBodySchema.extend({
  id: z.uuid(),
  title: z.string(),
  /** '' for the whole song, and when the section is gone. */
  sectionName: z.string(),
  doneAt: z.iso.datetime().nullable(),
});
export type SongRequest = z.infer<typeof requestSchema>;
