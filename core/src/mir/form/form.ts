/**
 * Sections, riffs and passes: the song is cut into segments (`segmentation.ts`), and segments that play the same riff, also
 * moved by some semitones, get one letter.
 */
import { barContents } from './bar-contents';
import type { BarChroma } from './bar-chroma';
import { barLikeness, type BarLikeness } from './bar-likeness';
import type { OnsetStrength } from '../onsets/onset-strength';
import { segmentBars, type Segment, type Segmentation } from './segmentation';
import { onsetNovelty } from './onset-novelty';
import type { HeardSection, HeardStrum } from '../types';

/** Segments whose bars agree this far are the same riff. */
const SAME_RIFF = 0.6;
/** A moved riff is an extra assumption and must fit clearly better than a new one. */
const MOVED_DISADVANTAGE = 0.1;
/** Another start is told when it is this probable and this near. */
const OR_ELSE = 0.15;
const NEARBY_BARS = 4;

/** How far two segments play the same when the first is moved; passes of 2 and of 4 bars are compared over 4. */
function compareSegments(likeness: BarLikeness, known: Segment, segment: Segment, shift: number): number {
  const [short, long] = [known.barsPerPass, segment.barsPerPass].sort((a, b) => a - b);
  if (long % short !== 0) return 0;
  let sum = 0;
  for (let b = 0; b < long; b++) {
    sum += likeness(known.start + (b % known.barsPerPass), segment.start + (b % segment.barsPerPass), shift);
  }
  return sum / long;
}

/**
 * Bars are [downbeats[i], downbeats[i + 1]); strums before the first downbeat belong to no bar. `strength` lets changes
 * of the onsets speak, `harmony` of every bar what sounds in it; null leaves them out.
 */
export function findSections(
  strums: readonly HeardStrum[],
  downbeatsS: readonly number[],
  durationS: number,
  strength: OnsetStrength | null = null,
  harmony: readonly BarChroma[] | null = null,
): HeardSection[] {
  if (downbeatsS.length < 2) return [];
  const all = barContents(strums, downbeatsS, durationS);
  const first = all.findIndex((bar) => bar.length > 0);
  const last = all.findLastIndex((bar) => bar.length > 0);
  if (first < 0) return [];
  const likeness = barLikeness(all.slice(first, last + 1), harmony?.slice(first, last + 1) ?? null);
  const changes = onsetNovelty(strength, downbeatsS, durationS).slice(first, last + 1);

  const sections: HeardSection[] = [];
  const known: { label: string; segment: Segment }[] = [];
  const segmentation = segmentBars(likeness, changes);
  for (const segment of segmentation.segments) {
    let best = { score: SAME_RIFF, label: '', shift: 0 };
    for (const { label, segment: other } of known) {
      for (let shift = 0; shift < 12; shift++) {
        const score =
          compareSegments(likeness, other, segment, shift) - (shift === 0 ? 0 : MOVED_DISADVANTAGE);
        if (score > best.score) best = { score, label, shift };
      }
    }
    const likeRiff =
      best.label === '' ? null : Math.min(1, best.score + (best.shift === 0 ? 0 : MOVED_DISADVANTAGE));
    let label = best.label;
    let transposeOf: HeardSection['transposeOf'] = null;
    if (label === '') {
      label = letterOf(known.length);
      known.push({ label, segment });
    } else if (best.shift !== 0) {
      // Riffs are moved up the neck by up to six frets or down by fewer (common practice).
      transposeOf = { label, semitones: best.shift > 6 ? best.shift - 12 : best.shift };
      label = `${label}${transposeOf.semitones > 0 ? '+' : ''}${transposeOf.semitones}`;
    }
    const startBar = first + segment.start;
    const endBar = startBar + segment.barsPerPass * segment.passes;
    sections.push({
      startS: downbeatsS[startBar],
      endS: downbeatsS[endBar] ?? durationS,
      label,
      transposeOf,
      startBar,
      barsPerPass: segment.barsPerPass,
      passes: segment.passes,
      ...doubtOf(segmentation, segment.start),
      likeRiff,
    });
  }
  return toOnePassLength(sections);
}

function greatestCommonDivisor(a: number, b: number): number {
  return b === 0 ? a : greatestCommonDivisor(b, a % b);
}

/**
 * A riff has one length. Segments that were found alike in passes of 4 and of 8 bars play the one that came first, where they hold whole
 * passes of it; else the riff is as long as all of them divide by.
 */
export function toOnePassLength(sections: readonly HeardSection[]): HeardSection[] {
  const riffOf = ({ label, transposeOf }: HeardSection): string => transposeOf?.label ?? label;
  return sections.map((section) => {
    const same = sections.filter((other) => riffOf(other) === riffOf(section));
    const first = same[0].barsPerPass;
    const isWhole = same.every(({ barsPerPass, passes }) => (barsPerPass * passes) % first === 0);
    const barsPerPass = isWhole
      ? first
      : same.map((other) => other.barsPerPass).reduce((a, b) => greatestCommonDivisor(a, b));
    return { ...section, barsPerPass, passes: (section.barsPerPass * section.passes) / barsPerPass };
  });
}

/**
 * How sure it is that something new begins at this bar, and where else nearby it may, in bars from there. Where other
 * segments begin is no other place for this one.
 */
function doubtOf(
  { segments, cutProbability }: Segmentation,
  at: number,
): Pick<HeardSection, 'startProbability' | 'orElseBars'> {
  const taken = new Set(segments.map((s) => s.start));
  let orElseBars: number | null = null;
  let likeliest = OR_ELSE;
  for (let by = -NEARBY_BARS; by <= NEARBY_BARS; by++) {
    const bar = at + by;
    const probability = bar > 0 && bar < cutProbability.length - 1 ? cutProbability[bar] : 0;
    if (!taken.has(bar) && probability > likeliest) [orElseBars, likeliest] = [by, probability];
  }
  return { startProbability: Math.min(1, cutProbability[at]), orElseBars };
}

/** A to Z, then AA, AB … */
function letterOf(index: number): string {
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : letterOf(Math.floor(index / 26) - 1) + letter;
}
