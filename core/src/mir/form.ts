/**
 * Sections, riffs and passes: bars that say the same are the same riff, also when moved by some semitones. A dynamic
 * program over bar lines cuts the song into stretches of n passes of p bars, for the shortest description: a new bar
 * costs {@link NEW_BAR}, a bar that was there before (earlier in the song at any height, or in the first pass) only
 * what it differs by (after Müller and Clausen 2007, "Transposition-invariant self-similarity matrices", ISMIR; the
 * principle of minimum description length, Rissanen 1978). A cut is cheaper where the texture changes: drums come in,
 * the band stops. Stretches that play the same riff then get one letter.
 */
import type { OnsetStrength, Region } from './onset-strength';
import type { HeardSection, HeardStrum } from './types';

/** Costs in units of "one bar entirely different". */
const NEW_BAR = 0.5;
/** A cut must pay for itself; keeps noise from splitting a riff. */
const NEW_SECTION = 0.75;
/** Of which a clear change of texture pays this much. */
const TEXTURE_SHARE = 0.6;
/** Saying which earlier place is meant, and that it is moved. */
const COPY = 0.2;
const MOVED = 0.2;
/** Passes are one, two, four or eight bars long, three and six only in odd songs (common practice in rock). */
const PASS_LENGTHS = [1, 2, 3, 4, 6, 8];
const MAX_PASSES = 16;
/** Earlier places are looked for this far back: verses return within it, and costs stay linear in long recordings. */
const FARTHEST_COPY = 160;
/** Stretches whose bars agree this far are the same riff. */
const SAME_RIFF = 0.6;
/** A moved riff is an extra assumption and must fit clearly better than a new one. */
const MOVED_DISADVANTAGE = 0.1;
/** Strums this near, in parts of a bar, are at the same place. */
const SAME_PLACE = 0.035;
/** How far a strum agrees that has the same root in another octave, another chord, or another mute. */
const OTHER_OCTAVE = 0.8;
const OTHER_CHORD = 0.15;
const OTHER_MUTE = 0.75;
/** A strum belongs to the bar that it comes this early for. */
const EARLY_S = 0.06;
/** Bars on each side that textures are compared over. */
const TEXTURE_BARS = 2;
const REGIONS: readonly Region[] = ['low', 'body', 'edge'];

interface BarStrum {
  /** Place in the bar, 0 to 1. */
  readonly at: number;
  readonly bass: number | null;
  readonly rootPc: number | null;
  readonly palmMuted: boolean;
}

type BarContent = readonly BarStrum[];

function contentsOf(
  strums: readonly HeardStrum[],
  downbeatsS: readonly number[],
  durationS: number,
): BarContent[] {
  const bars: BarStrum[][] = downbeatsS.map(() => []);
  let bar = -1;
  for (const { timeS, midi, rootPc, palmMuted } of strums) {
    while (bar + 1 < downbeatsS.length && downbeatsS[bar + 1] <= timeS + EARLY_S) bar++;
    if (bar < 0) continue;
    const startS = downbeatsS[bar];
    const endS = downbeatsS[bar + 1] ?? durationS;
    bars[bar].push({ at: (timeS - startS) / (endS - startS), bass: midi[0] ?? null, rootPc, palmMuted });
  }
  return bars;
}

function agreement(a: BarStrum, b: BarStrum, shift: number): number {
  const mute = a.palmMuted === b.palmMuted ? 1 : OTHER_MUTE;
  if (a.rootPc === null || b.rootPc === null) return a.rootPc === b.rootPc ? 1 : OTHER_CHORD;
  if ((a.rootPc + shift + 12) % 12 !== b.rootPc) return OTHER_CHORD * mute;
  const semitones = (b.bass ?? 0) - (a.bass ?? 0);
  return (semitones === shift || semitones === shift - 12 ? 1 : OTHER_OCTAVE) * mute;
}

/** Share of the strums of two bars that agree when the first is moved up by `shift` semitones, 0 to 11. */
function similarity(a: BarContent, b: BarContent, shift: number): number {
  let [i, j, places, agreeing] = [0, 0, 0, 0];
  while (i < a.length || j < b.length) {
    places++;
    const distance = i < a.length && j < b.length ? a[i].at - b[j].at : i < a.length ? -1 : 1;
    if (Math.abs(distance) <= SAME_PLACE) agreeing += agreement(a[i++], b[j++], shift);
    else if (distance < 0) i++;
    else j++;
  }
  return places === 0 ? 1 : agreeing / places;
}

/** How much the texture changes at each bar line, 0 to 1. */
function textureChanges(
  strength: OnsetStrength | null,
  downbeatsS: readonly number[],
  durationS: number,
): number[] {
  if (!strength) return downbeatsS.map(() => 0);
  const { frameRate, curves } = strength;
  const levels = downbeatsS.map((startS, b) => {
    const from = Math.round(startS * frameRate);
    const to = Math.round((downbeatsS[b + 1] ?? durationS) * frameRate);
    return REGIONS.map((region) => {
      let sum = 1e-6;
      for (let n = from; n < to; n++) sum += curves[region][n] ?? 0;
      return Math.log(sum / Math.max(1, to - from));
    });
  });
  return levels.map((_, b) => {
    const mean = (from: number, r: number): number => {
      const some = levels.slice(Math.max(0, from), Math.max(0, from) + TEXTURE_BARS);
      return some.reduce((sum, l) => sum + l[r], 0) / Math.max(1, some.length);
    };
    if (b < TEXTURE_BARS || b + TEXTURE_BARS > levels.length) return 0;
    const change = REGIONS.map((_r, r) => Math.abs(mean(b, r) - mean(b - TEXTURE_BARS, r)));
    // A doubling of attacks in one region is a clear change.
    return Math.min(1, Math.max(...change) / Math.LN2);
  });
}

interface Stretch {
  readonly start: number;
  readonly barsPerPass: number;
  readonly passes: number;
}

/** Cheapest way to say the bars [start, start + length): new, or as an earlier place at some height. */
function firstPassCosts(bars: readonly BarContent[], start: number): number[] {
  const longest = PASS_LENGTHS[PASS_LENGTHS.length - 1];
  const best = Array.from({ length: longest + 1 }, (_, length) => NEW_BAR * length);
  for (let earlier = Math.max(0, start - FARTHEST_COPY); earlier < start; earlier++) {
    for (let shift = 0; shift < 12; shift++) {
      let cost = COPY + (shift === 0 ? 0 : MOVED);
      for (let b = 0; b < longest && start + b < bars.length && earlier + b < start; b++) {
        cost += 1 - similarity(bars[earlier + b], bars[start + b], shift);
        if (cost < best[b + 1]) best[b + 1] = cost;
        if (cost > NEW_BAR * longest) break;
      }
    }
  }
  return best;
}

function cutIntoStretches(bars: readonly BarContent[], changes: readonly number[]): Stretch[] {
  const cost = new Float64Array(bars.length + 1).fill(Infinity);
  const from: Stretch[] = [];
  cost[0] = 0;
  for (let start = 0; start < bars.length; start++) {
    const first = firstPassCosts(bars, start);
    const cut = NEW_SECTION * (1 - TEXTURE_SHARE * changes[start]);
    for (const barsPerPass of PASS_LENGTHS) {
      let total = cost[start] + cut + first[barsPerPass];
      for (let passes = 1; passes <= MAX_PASSES; passes++) {
        const end = start + barsPerPass * passes;
        if (end > bars.length) break;
        if (passes > 1) {
          for (let b = 0; b < barsPerPass; b++) {
            total += 1 - similarity(bars[start + b], bars[end - barsPerPass + b], 0);
          }
        }
        if (total < cost[end]) {
          cost[end] = total;
          from[end] = { start, barsPerPass, passes };
        }
      }
    }
  }
  const stretches: Stretch[] = [];
  for (let end = bars.length; end > 0; end = from[end].start) stretches.push(from[end]);
  return stretches.reverse();
}

/** How far two stretches play the same when the first is moved; passes of 2 and of 4 bars are compared over 4. */
function compareStretches(
  bars: readonly BarContent[],
  known: Stretch,
  stretch: Stretch,
  shift: number,
): number {
  const [short, long] = [known.barsPerPass, stretch.barsPerPass].sort((a, b) => a - b);
  if (long % short !== 0) return 0;
  let sum = 0;
  for (let b = 0; b < long; b++) {
    const one = bars[known.start + (b % known.barsPerPass)];
    sum += similarity(one, bars[stretch.start + (b % stretch.barsPerPass)], shift);
  }
  return sum / long;
}

/**
 * Bars are [downbeats[i], downbeats[i + 1]); strums before the first downbeat belong to no bar. `strength` lets changes
 * of texture speak; null leaves them out.
 */
export function findSections(
  strums: readonly HeardStrum[],
  downbeatsS: readonly number[],
  durationS: number,
  strength: OnsetStrength | null = null,
): HeardSection[] {
  if (downbeatsS.length < 2) return [];
  const all = contentsOf(strums, downbeatsS, durationS);
  const first = all.findIndex((bar) => bar.length > 0);
  const last = all.findLastIndex((bar) => bar.length > 0);
  if (first < 0) return [];
  const bars = all.slice(first, last + 1);
  const changes = textureChanges(strength, downbeatsS, durationS).slice(first);

  const sections: HeardSection[] = [];
  const known: { label: string; stretch: Stretch }[] = [];
  for (const stretch of cutIntoStretches(bars, changes)) {
    let best = { score: SAME_RIFF, label: '', shift: 0 };
    for (const { label, stretch: other } of known) {
      for (let shift = 0; shift < 12; shift++) {
        const score = compareStretches(bars, other, stretch, shift) - (shift === 0 ? 0 : MOVED_DISADVANTAGE);
        if (score > best.score) best = { score, label, shift };
      }
    }
    let label = best.label;
    let transposeOf: HeardSection['transposeOf'] = null;
    if (label === '') {
      label = letterOf(known.length);
      known.push({ label, stretch });
    } else if (best.shift !== 0) {
      // Riffs are moved up the neck by up to six frets or down by fewer (common practice).
      transposeOf = { label, semitones: best.shift > 6 ? best.shift - 12 : best.shift };
      label = `${label}${transposeOf.semitones > 0 ? '+' : ''}${transposeOf.semitones}`;
    }
    const startBar = first + stretch.start;
    const endBar = startBar + stretch.barsPerPass * stretch.passes;
    sections.push({
      startS: downbeatsS[startBar],
      endS: downbeatsS[endBar] ?? durationS,
      label,
      transposeOf,
      startBar,
      barsPerPass: stretch.barsPerPass,
      passes: stretch.passes,
    });
  }
  return sections;
}

/** A to Z, then AA, AB … */
function letterOf(index: number): string {
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : letterOf(Math.floor(index / 26) - 1) + letter;
}
