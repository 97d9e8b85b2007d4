import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { chartRows } from '../section-chart/section-chart';
import { madeUpSong } from '../test-songs';
import { writeJams } from './write';

/**
 * The schema of JAMS 0.3 and of its namespaces as remembered from their published definition (jams.schema.json and the namespace files
 * beat, chord, segment_open, tempo, key_mode, note_midi): from memory, not copied.
 */
const metadata = z.strictObject({
  curator: z.strictObject({ name: z.string(), email: z.string() }),
  annotator: z.record(z.string(), z.unknown()),
  version: z.union([z.string(), z.number()]),
  corpus: z.string(),
  annotation_tools: z.string(),
  annotation_rules: z.string(),
  validation: z.string(),
  data_source: z.string(),
});
const CHORD =
  /^(N|X|[A-G][b#]*(:(maj|min|dim|aug|1|5|sus2|sus4|maj7|min7|7|\((b?#?\d+,)*b?#?\d+\))(\((b?#?\d+,)*b?#?\d+\))?)?(\/b*#*\d+)?)$/;
const KEY = /^N|([A-G][b#]?)(:(major|minor|ionian|dorian|phrygian|lydian|mixolydian|aeolian|locrian))?$/;
const VALUES: Readonly<Record<string, z.ZodType>> = {
  beat: z.number().nullable(),
  chord: z.string().regex(CHORD),
  segment_open: z.string(),
  tempo: z.number().positive(),
  key_mode: z.string().regex(KEY),
  note_midi: z.number(),
};
const jams = z.strictObject({
  annotations: z.array(
    z.strictObject({
      namespace: z.enum(Object.keys(VALUES) as [string, ...string[]]),
      data: z.array(
        z.strictObject({
          time: z.number().nonnegative(),
          duration: z.number().nonnegative(),
          value: z.unknown(),
          confidence: z.number().min(0).max(1).nullable(),
        }),
      ),
      annotation_metadata: metadata,
      sandbox: z.record(z.string(), z.unknown()),
      time: z.number().nonnegative(),
      duration: z.number().nonnegative(),
    }),
  ),
  file_metadata: z.strictObject({
    title: z.string(),
    artist: z.string(),
    release: z.string(),
    duration: z.number().nonnegative(),
    identifiers: z.record(z.string(), z.unknown()),
    jams_version: z.string(),
  }),
  sandbox: z.record(z.string(), z.unknown()),
});

describe('JAMS', () => {
  it('is what its definition asks for, whatever the song', () => {
    fc.assert(
      fc.property(madeUpSong, (song) => {
        const { annotations } = jams.parse(JSON.parse(writeJams(song)));
        for (const { namespace, data, duration } of annotations) {
          let before = 0;
          for (const { time, value, duration: lasts } of data) {
            VALUES[namespace].parse(value);
            expect(time).toBeGreaterThanOrEqual(before);
            expect(time + lasts).toBeLessThanOrEqual(duration + 1e-6);
            before = time;
          }
        }
        const beats = annotations.find((a) => a.namespace === 'beat')!.data;
        expect(beats.map((b) => b.time)).toEqual(song.grid.beatsS);
        const sections = annotations.find((a) => a.namespace === 'segment_open')!.data;
        expect(sections.map((s) => s.value)).toEqual(chartRows(song).map((r) => r.name));
      }),
      { numRuns: 30 },
    );
  });
});
