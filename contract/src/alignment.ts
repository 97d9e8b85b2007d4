/** Another recording of a song laid along the reference, or told to be of another song. */
import * as z from 'zod';

const runSchema = z.array(z.tuple([z.number(), z.number()])).min(2);

export const alignmentSchema = z.discriminatedUnion('belongs', [
  z.object({
    belongs: z.literal(true),
    /** The recording sounds this much higher than the reference. */
    semitones: z.number(),
    /** Stretches that both have: the same moments in the reference and in the recording, seconds. */
    runs: z.array(runSchema).min(1),
    likeness: z.number(),
    share: z.number(),
  }),
  z.object({ belongs: z.literal(false), likeness: z.number() }),
]);
export type RecordingAlignment = z.infer<typeof alignmentSchema>;
