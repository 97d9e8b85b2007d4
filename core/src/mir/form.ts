/**
 * Sections, riffs and passes: bars that say the same are the same riff, also when moved by some semitones.
 * A dynamic program over bar lines cuts the song into stretches of n passes of p bars; a new bar costs
 * {@link NEW_BAR}, a repeated bar costs what it differs from the first pass (after Müller and Clausen 2007,
 * "Transposition-invariant self-similarity matrices", ISMIR). Stretches that play the same riff then get one letter.
 */
import type { HeardSection, HeardStrum } from './types';

/** Costs in units of "one bar entirely different". */
const NEW_BAR = 0.6;
/** A cut must pay for itself; keeps noise from splitting a riff. */
const NEW_SECTION = 0.7;
/** Passes are one, two, four or eight bars long, three only in odd songs (common practice in rock). */
const PASS_LENGTHS = [1, 2, 3, 4, 8];
const MAX_PASSES = 16;
/** Stretches whose bars agree this far are the same riff. */
const SAME_RIFF = 0.62;
/** Grid places per bar that strums are compared on: sixteenths of 4/4. */
const SLOTS = 16;

interface BarContent {
  /** Root pitch class per slot, -1 = nothing struck, 12 = dead stroke. */
  readonly slots: Int8Array;
}

function contentOf(strums: readonly HeardStrum[], startS: number, endS: number): BarContent {
  const slots = new Int8Array(SLOTS).fill(-1);
  for (const { timeS, rootPc } of strums) {
    const slot = Math.round(((timeS - startS) / (endS - startS)) * SLOTS);
    if (slot >= 0 && slot < SLOTS) slots[slot] = rootPc ?? 12;
  }
  return { slots };
}

/** Share of strums in one bar that the other has at the same place with the root moved by `shift`. */
function similarity(a: BarContent, b: BarContent, shift: number): number {
  let struck = 0;
  let agreeing = 0;
  for (let s = 0; s < SLOTS; s++) {
    const x = a.slots[s];
    const y = b.slots[s];
    if (x < 0 && y < 0) continue;
    struck++;
    if (x < 0 || y < 0) continue;
    const moved = x === 12 ? 12 : (x + shift + 12) % 12;
    agreeing += moved === y ? 1 : 0.25;
  }
  return struck === 0 ? 1 : agreeing / struck;
}

interface Stretch {
  readonly start: number;
  readonly barsPerPass: number;
  readonly passes: number;
}

function cutIntoStretches(bars: readonly BarContent[]): Stretch[] {
  const cost = new Float64Array(bars.length + 1).fill(Infinity);
  const from: Stretch[] = [];
  cost[0] = 0;
  for (let start = 0; start < bars.length; start++) {
    for (const barsPerPass of PASS_LENGTHS) {
      let total = cost[start] + NEW_SECTION + NEW_BAR * barsPerPass;
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
  for (let end = bars.length; end > 0; end = from[end].start) stretches.unshift(from[end]);
  return stretches;
}

/** Bars are [downbeats[i], downbeats[i + 1]); strums before the first downbeat belong to no bar. */
export function findSections(
  strums: readonly HeardStrum[],
  downbeatsS: readonly number[],
  durationS: number,
): HeardSection[] {
  if (downbeatsS.length < 2) return [];
  const ends = [...downbeatsS.slice(1), durationS];
  const all = downbeatsS.map((startS, b) => contentOf(strums, startS, ends[b]));
  const struck = all.map(({ slots }) => slots.some((s) => s !== -1));
  const first = struck.indexOf(true);
  const last = struck.lastIndexOf(true);
  if (first < 0) return [];
  const bars = all.slice(first, last + 1);

  const sections: HeardSection[] = [];
  const known: { label: string; stretch: Stretch; letter: boolean }[] = [];
  let letters = 0;
  for (const stretch of cutIntoStretches(bars)) {
    const compare = (other: Stretch, shift: number): number => {
      if (other.barsPerPass !== stretch.barsPerPass) return 0;
      let sum = 0;
      for (let b = 0; b < stretch.barsPerPass; b++) {
        sum += similarity(bars[other.start + b], bars[stretch.start + b], shift);
      }
      return sum / stretch.barsPerPass;
    };
    let best = { score: SAME_RIFF, label: '', shift: 0 };
    for (const { label, stretch: other, letter } of known) {
      for (let shift = 0; shift < 12; shift++) {
        // A moved riff is an extra assumption and must fit clearly better than a new one.
        const score = compare(other, shift) - (shift === 0 ? 0 : 0.1);
        if (score > best.score && (shift === 0 || letter)) best = { score, label, shift };
      }
    }
    let label = best.label;
    let transposeOf: HeardSection['transposeOf'] = null;
    if (label === '') {
      label = letterOf(letters++);
      known.push({ label, stretch, letter: true });
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
