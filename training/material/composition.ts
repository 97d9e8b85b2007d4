/**
 * A random rock song as data: sections that repeat riffs, strums with their exact notes and marks, bars, and what
 * bass, drums and a melody do meanwhile. Kinds of chords are drawn far more evenly than songs use them, so that the
 * rare ones are learned too; each song keeps to a few, as songs do.
 */
import type { Chance } from './chance';
import { drawCell, drawFeltTempo, drawGrid, strikingAt } from './counting';

export interface ComposedStrum {
  /** Place in the song in quarter notes, and until when it sounds. */
  readonly atQuarter: number;
  readonly endQuarter: number;
  /** Sounding notes, lowest first; empty for a dead stroke. */
  readonly midi: readonly number[];
  readonly rootPc: number | null;
  readonly palmMute: boolean;
  readonly dead: boolean;
  /** Hammered on or pulled off: no pick. */
  readonly legato: boolean;
}

export interface ComposedBar {
  readonly atQuarter: number;
  readonly quarters: number;
  readonly startsSection: boolean;
  readonly endsSection: boolean;
  /** Semitones that its section is moved up. */
  readonly transpose: number;
}

export interface ComposedSection {
  readonly startQuarter: number;
  readonly endQuarter: number;
  readonly riff: number;
  readonly transpose: number;
}

export interface Composition {
  readonly bpm: number;
  readonly meter: { readonly beats: number; readonly unit: number };
  /** Places per quarter that the riffs use: 1 quarters alone, 2 eighths, 3 triplets, 4 sixteenths. */
  readonly grid: number;
  readonly bars: readonly ComposedBar[];
  readonly sections: readonly ComposedSection[];
  readonly strums: readonly ComposedStrum[];
  /** Pitch classes of the scale, for melody and bass. */
  readonly scale: readonly number[];
}

/** Semitones over the lowest note, and the root over it. */
interface Shape {
  readonly above: readonly number[];
  readonly root: number;
}

const shape = (above: readonly number[], root = 0): Shape => ({ above, root });

/** By kind; a song draws some kinds and then some shapes of each. */
const KINDS: readonly { readonly weight: number; readonly shapes: readonly Shape[] }[] = [
  { weight: 24, shapes: [shape([0, 7])] },
  { weight: 26, shapes: [shape([0, 7, 12])] },
  { weight: 3, shapes: [shape([0, 7, 12, 19])] },
  { weight: 20, shapes: [shape([0])] },
  { weight: 7, shapes: [shape([0, 12])] },
  { weight: 5, shapes: [shape([0, 5], 5)] },
  { weight: 4, shapes: [shape([0, 5, 12], 5)] },
  { weight: 5, shapes: [shape([0, 6]), shape([0, 6, 12])] },
  { weight: 3, shapes: [shape([0, 8]), shape([0, 8, 12])] },
  { weight: 5, shapes: [shape([0, 7, 14]), shape([0, 7, 12, 14])] },
  { weight: 11, shapes: [shape([0, 7, 12, 17]), shape([0, 5, 7]), shape([0, 7, 12, 17, 19, 24])] },
  { weight: 10, shapes: [shape([0, 7, 12, 16]), shape([0, 7, 12, 16, 19]), shape([0, 7, 12, 16, 19, 24])] },
  { weight: 9, shapes: [shape([0, 7, 12, 15]), shape([0, 7, 12, 15, 19]), shape([0, 7, 12, 15, 19, 24])] },
  { weight: 3, shapes: [shape([0, 5, 9], 5), shape([0, 5, 8], 5), shape([0, 5, 9, 12], 5)] },
  { weight: 2, shapes: [shape([0, 4]), shape([0, 3]), shape([0, 9], 9)] },
];
/** Power chord with ringing open strings: which notes is up to the tuning. */
const OPEN_STRINGS_WEIGHT = 11;

/** Highest single notes of riffs and of lead lines, semitones over the lowest string. */
const HIGHEST_SINGLE = 22;
const HIGHEST_LEAD = 32;

const SCALES = [
  [0, 3, 5, 7, 10],
  [0, 2, 3, 5, 7, 8, 10],
  [0, 2, 3, 5, 7, 9, 10],
  [0, 1, 3, 5, 7, 8, 10],
  [0, 2, 4, 5, 7, 9, 10],
  [0, 2, 4, 5, 7, 9, 11],
  [0, 1, 3, 5, 6, 7, 8, 10],
];
const LOWEST_STRINGS = [33, 35, 35, 36, 36, 37, 38, 38, 38, 39, 40, 40, 40, 40];
/** Of the places of a rhythm that goes round, how many are struck or left out against it. */
const CELL_BROKEN = 0.05;
/** Of the changes of chord on beats, where a song is counted as people count. */
const OFF_BEAT_CHANGES = 0.4;
const METERS: readonly (readonly [Composition['meter'], number])[] = [
  [{ beats: 4, unit: 4 }, 74],
  [{ beats: 3, unit: 4 }, 9],
  [{ beats: 6, unit: 8 }, 9],
  [{ beats: 7, unit: 8 }, 5],
  [{ beats: 5, unit: 4 }, 3],
];
const THREE_OR_SIX: typeof METERS = [
  [{ beats: 3, unit: 4 }, 2],
  [{ beats: 6, unit: 8 }, 1],
];

interface ChordChoice {
  readonly midi: readonly number[];
  readonly rootPc: number;
}

/** The chords of one song. */
function vocabulary(chance: Chance, lowest: number, scale: readonly number[]): (() => ChordChoice)[] {
  const kinds = KINDS.map((kind) => [kind, kind.weight] as const);
  const count = chance.whole(2, 5);
  const chosen = Array.from({ length: count }, () => chance.weighted(kinds));
  const opens = [5, 5, 4, 5].reduce((all, up) => [...all, all[all.length - 1] + up], [lowest + 5]);
  const bassNote = (highest: number): number => {
    for (;;) {
      const midi = lowest + Math.floor(highest * chance.random() ** 1.4);
      if (scale.includes(midi % 12) || chance.yes(0.12)) return midi;
    }
  };
  /** Single notes of some songs are a lead line far over the bass guitar. */
  const highestSingle = chance.yes(0.3) ? HIGHEST_LEAD : HIGHEST_SINGLE;
  const makers = chosen.map(({ shapes }) => (): ChordChoice => {
    const { above, root } = chance.pick(shapes);
    const bass = bassNote(above.length > 4 ? 13 : above.length === 1 ? highestSingle : 18);
    return { midi: above.map((a) => bass + a), rootPc: (bass + root) % 12 };
  });
  if (chance.yes(OPEN_STRINGS_WEIGHT / 30)) {
    makers.push(() => {
      const bass = bassNote(13);
      const ringing = opens.filter((o) => o > bass + 8 && chance.yes(0.6)).slice(-chance.whole(1, 3));
      const notes = new Set([bass, bass + 7, ...(chance.yes(0.6) ? [bass + 12] : []), ...ringing]);
      return { midi: [...notes].sort((a, b) => a - b), rootPc: bass % 12 };
    });
  }
  return makers;
}

interface RiffStrum extends ChordChoice {
  readonly at: number;
  readonly end: number;
  readonly palmMute: boolean;
  readonly dead: boolean;
  readonly legato: boolean;
}

interface Rhythm {
  readonly grid: number;
  readonly density: number;
  readonly muteShare: number;
  readonly deadShare: number;
  /** Chance that a strum stops before the next one. */
  readonly shortShare: number;
  /** Of single notes that follow another one. */
  readonly legatoShare: number;
  /** How much likelier than `density` a place is struck, by quarters from the start of the riff. */
  readonly striking: (quarter: number) => number;
  /** Chords change seldom between the places that are struck most. */
  readonly changesOnBeats: boolean;
  readonly barQuarters: number;
  /** Places of each bar that are struck, in place of `density`. */
  readonly cell: ReadonlySet<number> | null;
}

function composeRiff(
  chance: Chance,
  quarters: number,
  rhythm: Rhythm,
  chords: readonly ChordChoice[],
): RiffStrum[] {
  const { grid, density, muteShare, deadShare, shortShare, legatoShare, striking, barQuarters, cell } =
    rhythm;
  const places = Math.round(quarters * grid);
  const strikingOf = (place: number): number => striking(place / grid);
  const starts: number[] = [];
  const isStruck = (place: number): boolean =>
    cell
      ? cell.has(place % (barQuarters * grid)) !== chance.yes(CELL_BROKEN)
      : chance.yes(Math.min(0.97, density * strikingOf(place)));
  for (let p = 0; p < places; p++) {
    if (p === 0 || isStruck(p)) starts.push(p);
  }
  const stay = chance.uniform(0.2, 0.8);
  const pedal = chords[0];
  let chord = chance.pick(chords);
  let before: ChordChoice | null = null;
  return starts.map((place, i) => {
    const stays = rhythm.changesOnBeats && strikingOf(place) < 1 ? 1 - (1 - stay) * OFF_BEAT_CHANGES : stay;
    if (!chance.yes(stays)) chord = chance.pick(chords);
    const next = starts[i + 1] ?? places;
    const dead = i > 0 && chance.yes(deadShare);
    const palmMute = !dead && next - place <= grid && chance.yes(muteShare);
    const played = palmMute && chance.yes(0.6) ? pedal : chord;
    const length = chance.yes(shortShare) && !palmMute ? chance.uniform(0.35, 0.75) : 1;
    const end = (place + (next - place) * length) / grid;
    const isSlurred = before !== null && before !== played && before.midi.length * played.midi.length === 1;
    const legato = isSlurred && !palmMute && !dead && chance.yes(legatoShare);
    before = dead || palmMute ? null : played;
    return { ...played, at: place / grid, end, palmMute, dead, legato };
  });
}

function drawAnyGrid(chance: Chance, meter: Composition['meter'], bpm: number): number {
  if (meter.unit === 8) return 2;
  return chance.weighted([
    [2, 6],
    [4, bpm < 150 ? 5 : 1],
    [3, 1.5],
  ]);
}

/** Quarters before the first bar that a song which does not begin on the one begins with. */
const PICK_UPS = [0.5, 1, 1, 1.5, 2];

/** As people count, see `counting.ts`: in any meter, or in bars of three quarters or six eighths, which are taken for each other. */
export type Counting = 'any' | 'three or six';

/** About `seconds` long. */
export function compose(chance: Chance, seconds: number, counting: Counting | null = null): Composition {
  const isCounted = counting !== null;
  const meter = chance.weighted(counting === 'three or six' ? THREE_OR_SIX : METERS);
  const bpm = isCounted ? drawFeltTempo(chance, meter) : chance.uniform(68, 205);
  const barQuarters = (meter.beats * 4) / meter.unit;
  const lowest = chance.pick(LOWEST_STRINGS);
  const tonic =
    (lowest +
      chance.weighted([
        [0, 6],
        [5, 3],
        [3, 1],
        [2, 1],
        [7, 1],
      ])) %
    12;
  const scale = chance.pick(SCALES).map((s) => (s + tonic) % 12);
  const grid = isCounted ? drawGrid(chance, meter, bpm) : drawAnyGrid(chance, meter, bpm);
  const rhythm: Rhythm = {
    grid,
    density: chance.uniform(0.25, 0.95) * (grid === 4 ? 0.75 : 1),
    muteShare: chance.yes(0.6) ? chance.uniform(0.1, 0.85) : 0,
    deadShare: chance.yes(0.45) ? chance.uniform(0.05, 0.3) : 0,
    shortShare: chance.yes(0.25) ? chance.uniform(0.1, 0.6) : 0,
    legatoShare: chance.yes(0.3) ? chance.uniform(0.2, 0.6) : 0,
    striking: isCounted
      ? (quarter) => strikingAt(meter, quarter)
      : (quarter) => (quarter % 1 === 0 ? 1.35 : 0.85),
    changesOnBeats: isCounted,
    barQuarters,
    cell: null,
  };
  const makers = vocabulary(chance, lowest, scale);
  const riffs = Array.from({ length: chance.whole(1, 3) }, () => {
    const bars = chance.weighted([
      [1, 2],
      [2, 6],
      [4, 4],
    ]);
    const chords = Array.from({ length: chance.whole(2, 6) }, () => chance.pick(makers)());
    const each = {
      ...rhythm,
      density: Math.min(1, rhythm.density * chance.uniform(0.6, 1.3)),
      cell: isCounted ? drawCell(chance, meter, grid) : null,
    };
    return { bars, strums: composeRiff(chance, bars * barQuarters, each, chords) };
  });

  const strums: ComposedStrum[] = [];
  const bars: ComposedBar[] = [];
  const sections: ComposedSection[] = [];
  const wantedQuarters = (seconds * bpm) / 60;
  let at = 0;
  for (let s = 0; at < wantedQuarters; s++) {
    const index = s % riffs.length;
    const riff = riffs[index];
    const passes = chance.whole(1, 4);
    const transpose = s >= riffs.length && chance.yes(0.25) ? chance.pick([1, 2, 3, 5]) : 0;
    const startQuarter = at;
    for (let pass = 0; pass < passes && at < wantedQuarters; pass++) {
      for (const strum of riff.strums) {
        strums.push({
          atQuarter: at + strum.at,
          endQuarter: at + strum.end,
          midi: strum.dead ? [] : strum.midi.map((m) => m + transpose),
          rootPc: strum.dead ? null : (strum.rootPc + transpose) % 12,
          palmMute: strum.palmMute,
          dead: strum.dead,
          legato: strum.legato,
        });
      }
      for (let b = 0; b < riff.bars; b++) {
        bars.push({
          atQuarter: at + b * barQuarters,
          quarters: barQuarters,
          startsSection: pass === 0 && b === 0,
          endsSection: false,
          transpose,
        });
      }
      at += riff.bars * barQuarters;
    }
    bars[bars.length - 1] = { ...bars[bars.length - 1], endsSection: true };
    sections.push({ startQuarter, endQuarter: at, riff: index, transpose });
  }
  const pickUp = isCounted && chance.yes(0.2) ? barQuarters - chance.pick(PICK_UPS) : 0;
  return { bpm, meter, grid, bars, sections, strums: strums.filter((s) => s.atQuarter >= pickUp), scale };
}
