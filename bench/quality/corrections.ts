/**
 * `npm run bench:corrections -- FOLDER`: what confirming one pass of each riff does for the rest of the song. FOLDER holds
 * songs with truth beside them, as `npm run bench:corpus` renders them; prints shares of strums with the right time,
 * notes and mute, before and after, over those that were not confirmed.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as z from 'zod';
import { analyse, type Analysis } from '@wild-needle/core/analysis';
import type { Confirmed } from '@wild-needle/core/mir';
import { EARLY_S } from '@wild-needle/core/units';
import { matchTimes } from './metrics';
import { readSound } from './read-sound';

const truthSchema = z.object({
  referenceOffsetCents: z.number(),
  sections: z.array(z.object({ startS: z.number(), endS: z.number(), label: z.string() })),
  strums: z.array(
    z.object({
      timeS: z.number(),
      midi: z.array(z.number()),
      palmMuted: z.boolean(),
      dead: z.boolean(),
    }),
  ),
});
type Truth = z.infer<typeof truthSchema>;

/** The first pass of each riff that the analysis found, as a player would confirm it. */
function confirmFirstPasses({ sections, downbeatsS, durationS }: Analysis, truth: Truth): Confirmed {
  const seen = new Set<string>();
  const spans = sections.flatMap(({ label, transposeOf, startBar, barsPerPass }) => {
    const riff = transposeOf?.label ?? label;
    if (seen.has(riff)) return [];
    seen.add(riff);
    const endS = downbeatsS[startBar + barsPerPass] ?? durationS;
    return [{ startS: downbeatsS[startBar] - EARLY_S, endS: endS - EARLY_S }];
  });
  const strums = truth.strums.filter(({ timeS }) => spans.some((s) => timeS >= s.startS && timeS < s.endS));
  return { referenceCents: truth.referenceOffsetCents, spans, strums };
}

/** Of the true strums outside of all spans, the share that is heard right; strums heard too many count as wrong. */
function shareRight(analysis: Analysis, truth: Truth, { spans }: Confirmed): number {
  const isOutside = ({ timeS }: { timeS: number }): boolean =>
    !spans.some((s) => timeS >= s.startS && timeS < s.endS);
  const [heard, there] = [analysis.strums.filter(isOutside), truth.strums.filter(isOutside)];
  const pairs = matchTimes(
    heard.map((s) => s.timeS),
    there.map((s) => s.timeS),
    0.05,
  );
  const right = pairs.filter(
    ([h, t]) => heard[h].midi.join() === there[t].midi.join() && heard[h].palmMuted === there[t].palmMuted,
  ).length;
  return right / Math.max(1, there.length + heard.length - pairs.length);
}

const folder = process.argv[2];
if (!folder) {
  process.stderr.write('Give the folder of rendered songs: npm run bench:corrections -- FOLDER\n');
  process.exit(1);
}
const rows: (readonly [number, number])[] = [];
for (const file of readdirSync(folder).filter((name) => name.endsWith('.truth.json'))) {
  const stem = file.slice(0, -'.truth.json'.length);
  const truth = truthSchema.parse(JSON.parse(readFileSync(join(folder, file), 'utf8')));
  const sound = readdirSync(folder).find((name) => name.startsWith(`${stem}.`) && name !== file)!;
  const signal = readSound(join(folder, sound));
  const before = analyse(signal);
  const confirmed = confirmFirstPasses(before, truth);
  const confirmedShare = confirmed.strums.length / truth.strums.length;
  if (confirmedShare === 1) {
    process.stdout.write(`${stem.padEnd(22)} confirmed 1.00  nothing is left\n`);
    continue;
  }
  const after = analyse(signal, { confirmed });
  const row = [shareRight(before, truth, confirmed), shareRight(after, truth, confirmed)] as const;
  rows.push(row);
  process.stdout.write(
    `${stem.padEnd(22)} confirmed ${confirmedShare.toFixed(2)}  others right ${row[0].toFixed(2)} -> ${row[1].toFixed(2)}\n`,
  );
}
const mean = (i: 0 | 1): string => (rows.reduce((sum, row) => sum + row[i], 0) / rows.length).toFixed(3);
process.stdout.write(`mean: strums right outside of what was confirmed ${mean(0)} -> ${mean(1)}\n`);
