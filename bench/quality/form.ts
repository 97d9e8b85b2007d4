/**
 * `npm run bench:form -- FOLDER`: are bars that the analysis says are the same bar of a riff the same in the guitar stem? FOLDER
 * holds real songs as `npm run bench:corpus` unpacks them, each with its mix and its guitar on a track of its own. Bars where the
 * stem holds nothing at all are left out. The yardstick is the chroma of the stem; the analysis hears the mix alone, but the limits of
 * `core/src/mir/bar-likeness.ts` were chosen by such figures on the four songs of the corpus.
 */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { analyse, type Analysis } from '@wild-needle/core/analysis';
import { chromaSimilarity, computeBarChroma, splitStereo, type BarChroma } from '@wild-needle/core/mir';
import { readSound } from './read-sound';

/** Bars of the stem that are like each other by this and more are the same; by less they may be anything. */
const SAME_IN_STEM = 0.5;

/** Riff and place in it of each bar; null outside of all sections. */
function placesOf({
  sections,
  downbeatsS,
}: Analysis): ({ riff: string; bar: number; bars: number } | null)[] {
  return downbeatsS.map((_, b) => {
    const section = sections.find(
      ({ startBar, barsPerPass, passes }) => b >= startBar && b < startBar + barsPerPass * passes,
    );
    if (!section) return null;
    const { label, startBar, barsPerPass } = section;
    return { riff: label, bar: (b - startBar) % barsPerPass, bars: barsPerPass };
  });
}

interface PairOfBars {
  readonly isSaidSame: boolean;
  readonly likeness: number;
}

function comparePairs(analysis: Analysis, stem: readonly BarChroma[]): PairOfBars[] {
  const places = placesOf(analysis);
  const sounds = stem.map((bar) => bar.some((v) => v !== 0));
  return places.flatMap((one, a) =>
    places.flatMap((other, b): PairOfBars[] => {
      if (b <= a || !sounds[a] || !sounds[b]) return [];
      const bars = Math.min(one?.bars ?? 0, other?.bars ?? 0);
      const isSaidSame = one?.riff === other?.riff && bars > 0 && one!.bar % bars === other!.bar % bars;
      return [{ isSaidSame, likeness: chromaSimilarity(stem[a], stem[b], 0) }];
    }),
  );
}

/** Probability that a pair said to be the same is more alike in the stem than one that is not (area under the ROC curve). */
function rankedAbove(pairs: readonly PairOfBars[]): number {
  const sorted = [...pairs].sort((a, b) => a.likeness - b.likeness);
  const same = sorted.filter((p) => p.isSaidSame).length;
  let [others, below] = [0, 0];
  for (const { isSaidSame } of sorted) {
    if (isSaidSame) below += others;
    else others++;
  }
  return below / (same * (sorted.length - same));
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

const folder = process.argv[2];
if (!folder) {
  process.stderr.write('Give the folder of real songs: npm run bench:form -- FOLDER\n');
  process.exit(1);
}
const rows = readdirSync(folder)
  .filter((name) => name.endsWith('.mix.flac'))
  .map((name) => {
    const analysis = analyse(readSound(join(folder, name)));
    const signal = readSound(join(folder, name.replace('.mix.', '.guitar.')));
    const { downbeatsS, durationS, referenceOffsetCents } = analysis;
    const stem = computeBarChroma(
      splitStereo(signal).mid,
      signal.sampleRate,
      referenceOffsetCents,
      downbeatsS,
      durationS,
    );
    const pairs = comparePairs(analysis, stem);
    const said = pairs.filter((p) => p.isSaidSame);
    const same = pairs.filter((p) => p.likeness >= SAME_IN_STEM);
    return {
      song: name.replace('.mix.flac', ''),
      above: rankedAbove(pairs),
      right: said.filter((p) => p.likeness >= SAME_IN_STEM).length / said.length,
      found: same.filter((p) => p.isSaidSame).length / same.length,
    };
  });
rows.push({
  song: 'mean',
  above: mean(rows.map((r) => r.above)),
  right: mean(rows.map((r) => r.right)),
  found: mean(rows.map((r) => r.found)),
});
process.stdout.write(
  'song       pairs said to be the same above others, of them the same in the stem, of those said\n',
);
for (const { song, ...figures } of rows) {
  const columns = Object.values(figures).map((v) => v.toFixed(2).padStart(6));
  process.stdout.write(`${song.padEnd(10)} ${columns.join('')}\n`);
}
