/**
 * `npm run bench:form -- FOLDER`: are bars that the analysis says are the same the same in the guitar stem? Asked of the same bar of a riff, and of
 * all bars that are said to be the same, within a riff and across riffs. FOLDER holds real songs as `npm run bench:corpus` unpacks them, each with its mix
 * and its guitar on a track of its own. Bars where the stem holds nothing at all are left out. The yardstick is the chroma of the stem; the analysis hears
 * the mix alone, but the limits of `core/src/mir/form` were chosen by such figures on the four songs of the corpus.
 */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { analyse, type Analysis } from '@wild-needle/core/analysis';
import { chromaSimilarity, computeBarChroma, splitStereo, type BarChroma } from '@wild-needle/core/mir';
import { readSound } from './read-sound';

/** How the stem is looked at, whatever the analysis does: figures of all days compare. */
const YARDSTICK = { places: 16, highestHz: 2000 };
/** Bars of the stem that are like each other by this and more are the same; by less they may be anything. */
const SAME_IN_STEM = 0.5;

/** Riff and place in it of each bar; null outside of all sections. */
function placesOf({
  sections,
  downbeatsS,
}: Analysis): ({ riff: string; bar: number; bars: number } | null)[] {
  return downbeatsS.map((_, b) => {
    const section = sections.find(
      ({ startBar, barsPerPass, passes, cutBars }) =>
        b >= startBar && b < startBar + barsPerPass * passes - cutBars,
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

/** All pairs of bars in which the stem sounds. */
function comparePairs(
  stem: readonly BarChroma[],
  isSaidSame: (a: number, b: number) => boolean,
): PairOfBars[] {
  const sounding = stem.flatMap((bar, b) => (bar.some((v) => v !== 0) ? [b] : []));
  return sounding.flatMap((a, i) =>
    sounding.slice(i + 1).map((b) => ({
      isSaidSame: isSaidSame(a, b),
      likeness: Math.max(0, chromaSimilarity(stem[a], stem[b], 0)),
    })),
  );
}

function isSameBarOfRiff(analysis: Analysis): (a: number, b: number) => boolean {
  const places = placesOf(analysis);
  return (a, b) => {
    const [one, other] = [places[a], places[b]];
    const bars = Math.min(one?.bars ?? 0, other?.bars ?? 0);
    return one?.riff === other?.riff && bars > 0 && one!.bar % bars === other!.bar % bars;
  };
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

/** Ranked above others, of those said the same in the stem, of those the same in the stem said. */
function figuresOf(pairs: readonly PairOfBars[]): number[] {
  const said = pairs.filter((p) => p.isSaidSame);
  const same = pairs.filter((p) => p.likeness >= SAME_IN_STEM);
  const both = said.filter((p) => p.likeness >= SAME_IN_STEM).length;
  return [rankedAbove(pairs), both / said.length, both / same.length];
}

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
    const { downbeatsS, durationS, referenceOffsetCents, sameAsBar, sections } = analysis;
    const stem = computeBarChroma(
      splitStereo(signal).mid,
      signal.sampleRate,
      referenceOffsetCents,
      downbeatsS,
      durationS,
      YARDSTICK,
    );
    const riffs = new Set(sections.map((s) => s.transposeOf?.label ?? s.label)).size;
    return {
      song: name.replace('.mix.flac', ''),
      figures: [
        ...figuresOf(comparePairs(stem, isSameBarOfRiff(analysis))),
        ...figuresOf(comparePairs(stem, (a, b) => sameAsBar[a] === sameAsBar[b])),
        sections.length,
        riffs,
      ],
    };
  });
rows.push({ song: 'mean', figures: rows[0].figures.map((_, i) => mean(rows.map((r) => r.figures[i]))) });
process.stdout.write(
  'song       same bar of a riff: above others, right, found; same bars: the same three; sections, riffs\n',
);
for (const { song, figures } of rows) {
  process.stdout.write(`${song.padEnd(10)} ${figures.map((v) => v.toFixed(2).padStart(6)).join('')}\n`);
}
