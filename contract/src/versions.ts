/** Saved versions of a song: what each changed, as data, and each as it was. */
import * as z from 'zod';
import { SONG_PARTS, type SongChange } from '@wild-needle/core/riff';
import { songDocumentSchema } from './document';
import { assertSameType, type SameType } from './same-type';
import { idParamsSchema } from './songs';

const brief = z.object({ midi: z.array(z.int()), palmMute: z.boolean(), dead: z.boolean() }).nullable();
const what = z.enum(['added', 'removed', 'changed']);

const changes = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('strum'),
    riffId: z.string(),
    guitar: z.literal([1, 2]),
    variation: z.string(),
    ticks: z.int(),
    before: brief,
    after: brief,
  }),
  z.object({ kind: z.literal('marks'), riffId: z.string(), ticks: z.int() }),
  z.object({ kind: z.literal('riff'), riffId: z.string(), what }),
  z.object({
    kind: z.literal('section'),
    name: z.string(),
    what: z.enum([...what.options, 'settled']),
  }),
  z.object({ kind: z.literal('part'), part: z.enum(SONG_PARTS) }),
]);
assertSameType<SameType<z.infer<typeof changes>, SongChange>>();

const changeSchema: z.ZodType<SongChange> = changes;

/** Changes that are listed of each version; more are counted. */
export const CHANGES_TOLD = 3;

export const versionSchema = z.object({
  revision: z.int(),
  savedAt: z.iso.datetime(),
  /** Against the version before it that is still kept; empty for the oldest. */
  changes: z.array(changeSchema).max(CHANGES_TOLD),
  more: z.int(),
});
export type Version = z.infer<typeof versionSchema>;

export const versionsQuerySchema = z.object({
  /** Only older ones than this revision. */
  before: z.coerce.number().int().min(1).optional(),
});

export const versionParamsSchema = idParamsSchema.extend({ revision: z.coerce.number().int().min(1) });

export const versionDocumentSchema = z.object({
  revision: z.int(),
  savedAt: z.iso.datetime(),
  document: songDocumentSchema,
});
export type VersionDocument = z.infer<typeof versionDocumentSchema>;
