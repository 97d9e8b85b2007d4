/** Everything in one file: what the shelf says of it, and what came of bringing one back. */
import * as z from 'zod';

export const lastBackupSchema = z.object({ at: z.iso.datetime(), byteLength: z.int() }).nullable();
export type LastBackup = z.infer<typeof lastBackupSchema>;

export const broughtBackSchema = z.object({
  madeAt: z.iso.datetime(),
  /** Songs that were not on the shelf. */
  songs: z.int(),
  /** Songs that are there as they are in the backup, or have gone on from it. */
  known: z.int(),
  /** Songs of which the shelf has another version: they stand beside it under a title of their own. */
  beside: z.int(),
});
export type BroughtBack = z.infer<typeof broughtBackSchema>;
