/**
 * A song put together from what a file of tab or music says bar by bar: what comes again is one riff, moved up the neck too; passes
 * that differ become variations; sections lie one behind the other on a steady beat.
 */
import { STANDARD_TUNING, type Tuning } from '../guitar';
import {
  COUNT_LIMITS,
  fitText,
  nextLetter,
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  RANGES,
  TEXT_LIMITS,
  ticksPerBeat,
  type Bar,
  type PassAnswer,
  type Riff,
  type RiffBar,
  type Section,
  type SongDocument,
  type Strum,
  type Variation,
} from '../riff';
import { isCompound, type Key } from '../theory';
import { clamp, TICKS_PER_QUARTER, type Ticks } from '../units';

/** What guitar 1 and 2 play in a bar, from the start of the bar. */
export interface BroughtMeasure {
  readonly bar: RiffBar;
  readonly strums: readonly Strum[];
  readonly guitar2: readonly Strum[];
}

export interface BroughtPart {
  /** '' for one that the file has no name for. */
  readonly name: string;
  /** Letter of its riff, where the file tells it; '' otherwise. */
  readonly letter: string;
  /** What the file calls the riff; '' or left out for no name. */
  readonly riffName?: string;
  /** Each time that it is played; empty for a riff that no section plays. */
  readonly passes: readonly (readonly BroughtMeasure[])[];
}

export interface BroughtSong {
  readonly title: string;
  readonly artist: string;
  /** Null where the file says none. */
  readonly tuning: Tuning | null;
  readonly guitar2: Tuning | null;
  readonly key: Key | null;
  /** Beats of the meter a minute; null where the file says none. */
  readonly bpm: number | null;
  readonly referenceOffsetCents: number;
  readonly parts: readonly BroughtPart[];
}

/** A file without a tempo is laid at the usual one (Standard MIDI Files 1.0 say it too). */
const USUAL_BPM = 120;
const LEAST_BPM = 20;
const MOST_BPM = 400;

const ticksOf = ({ beats, unit }: RiffBar): Ticks => beats * ticksPerBeat(unit);

/** What a strum is besides its identity; frets moved down by so much. */
function strumText({ id: _id, trust: _trust, frets, ...rest }: Strum, down: number): unknown {
  const places = frets.map(({ string, fret }) => [string, fret - down]).sort(([a], [b]) => a - b);
  return { ...rest, writtenAs: null, places };
}

function measureText({ bar, strums, guitar2 }: BroughtMeasure, down = 0): string {
  return JSON.stringify([bar, strums.map((s) => strumText(s, down)), guitar2.map((s) => strumText(s, down))]);
}

/** The fret that all others are counted from when a riff is looked for elsewhere on the neck; null without frets. */
function firstFret(measures: readonly BroughtMeasure[]): number | null {
  const fret = measures.flatMap((m) => m.strums).flatMap((s) => s.frets)[0]?.fret;
  return fret ?? null;
}

/** The same up the neck has the same text. */
function riffText(measures: readonly BroughtMeasure[]): string {
  const down = firstFret(measures) ?? 0;
  return measures.map((m) => measureText(m, down)).join('\n');
}

/** Strums of measures, counted from the first. */
function inRow(measures: readonly BroughtMeasure[], pick: (m: BroughtMeasure) => readonly Strum[]): Strum[] {
  let start = 0;
  return measures.flatMap((measure) => {
    const at = start;
    start += ticksOf(measure.bar);
    return pick(measure).map((s) => ({ ...s, startTicks: s.startTicks + at }));
  });
}

/** The pass that most passes are like. */
function usualPass(passes: BroughtPart['passes']): readonly BroughtMeasure[] {
  const texts = passes.map((p) => p.map((m) => measureText(m)).join('\n'));
  const counts = texts.map((text) => texts.filter((t) => t === text).length);
  return passes[counts.indexOf(Math.max(...counts))];
}

/** Bars in which two passes of one length differ, as ticks of the riff; null for the same. */
function differing(
  riff: readonly BroughtMeasure[],
  pass: readonly BroughtMeasure[],
): { readonly from: number; readonly to: number } | null {
  const differs = riff.map((m, b) => measureText(m) !== measureText(pass[b]));
  const from = differs.indexOf(true);
  return from < 0 ? null : { from, to: differs.lastIndexOf(true) + 1 };
}

/** Passes of other lengths or meters are other parts. */
function evenParts(part: BroughtPart): BroughtPart[] {
  if (part.passes.length === 0) return [];
  const shapeOf = (pass: readonly BroughtMeasure[]): string =>
    pass.map(({ bar }) => `${bar.beats}/${bar.unit}`).join();
  const parts: { shape: string; passes: (readonly BroughtMeasure[])[] }[] = [];
  for (const pass of part.passes) {
    const shape = shapeOf(pass);
    const last = parts.at(-1);
    if (last?.shape === shape) last.passes.push(pass);
    else parts.push({ shape, passes: [pass] });
  }
  return parts.map(({ passes }, i) => ({
    ...part,
    passes,
    ...(i > 0 && { name: `${part.name} (${i + 1})` }),
  }));
}

/** Gives every strum an id of its own. */
function numbered(strums: readonly Strum[], prefix: string): Strum[] {
  return strums.map((s, i) => ({ ...s, id: `${prefix}-${i + 1}` }));
}

/** Throws a RangeError that says what of it is more than a song can hold. */
export function assembleSong(brought: BroughtSong): SongDocument {
  const riffs: Riff[] = [];
  const known = new Map<string, { readonly riff: number; readonly firstFret: number | null }>();
  const sections: Section[] = [];
  const bars: RiffBar[] = [];

  for (const part of brought.parts.flatMap(evenParts)) {
    const usual = usualPass(part.passes);
    const text = riffText(usual);
    const own = firstFret(usual);
    let at = known.get(text);
    if (!at) {
      const isFree = part.letter !== '' && !riffs.some((r) => r.letter === part.letter);
      const letter = isFree ? fitText(part.letter, TEXT_LIMITS.letter) : nextLetter(riffs);
      const id = `brought-${riffs.length + 1}`;
      riffs.push({
        ...PLAIN_RIFF,
        id,
        letter,
        name: fitText(part.riffName ?? '', TEXT_LIMITS.name) || `Riff ${letter}`,
        bars: usual.map(({ bar }) => bar),
        strums: numbered(
          inRow(usual, (m) => m.strums),
          id,
        ),
        guitar2: numbered(
          inRow(usual, (m) => m.guitar2),
          `${id}-second`,
        ),
      });
      at = { riff: riffs.length - 1, firstFret: own };
      known.set(text, at);
    }
    const riff = riffs[at.riff];
    const transpose = own === null || at.firstFret === null ? 0 : own - at.firstFret;
    const variations: Variation[] = [...riff.variations];
    const answers = part.passes.flatMap((pass, index): PassAnswer[] => {
      const range = differing(usual, pass);
      if (!range) return [];
      const [before, inside] = [pass.slice(0, range.from), pass.slice(range.from, range.to)];
      const fromTicks = before.reduce((sum, m) => sum + ticksOf(m.bar), 0);
      const toTicks = fromTicks + inside.reduce((sum, m) => sum + ticksOf(m.bar), 0);
      const id = `${riff.id}-v${variations.length + 1}`;
      const placed = (pick: (m: BroughtMeasure) => readonly Strum[], prefix: string): Strum[] =>
        numbered(
          inRow(inside, pick).map((s) => ({
            ...s,
            startTicks: s.startTicks + fromTicks,
            frets: s.frets.map((f) => ({ ...f, fret: f.fret - transpose })),
          })),
          prefix,
        );
      const strums = placed((m) => m.strums, id);
      const guitar2 = placed((m) => m.guitar2, `${id}-second`);
      const sound = (v: Pick<Variation, 'strums' | 'guitar2' | 'fromTicks' | 'toTicks'>): string =>
        JSON.stringify([
          v.fromTicks,
          v.toTicks,
          ...[v.strums, v.guitar2].map((s) => s.map((x) => strumText(x, 0))),
        ]);
      const same = variations.find((v) => sound(v) === sound({ fromTicks, toTicks, strums, guitar2 }));
      if (!same) {
        const name = `Variation ${variations.length + 1}`;
        variations.push({ id, name, fromTicks, toTicks, strums, guitar2 });
      }
      return [{ pass: index, variationId: same?.id ?? id }];
    });
    riffs[at.riff] = { ...riff, variations };
    sections.push({
      ...PLAIN_SECTION,
      id: `brought-section-${sections.length + 1}`,
      name: fitText(part.name, TEXT_LIMITS.name) || `Part ${sections.length + 1}`,
      riffId: riff.id,
      startBar: bars.length,
      passes: part.passes.length,
      transpose: clamp(transpose, RANGES.transpose[0], RANGES.transpose[1]),
      answers,
    });
    for (let i = 0; i < part.passes.length; i++) bars.push(...riff.bars);
  }
  requireFits('riffs', riffs.length, COUNT_LIMITS.riffs);
  requireFits('sections', sections.length, COUNT_LIMITS.sections);
  requireFits('bars', bars.length, COUNT_LIMITS.bars);
  for (const riff of riffs) {
    requireFits('bars of one riff', riff.bars.length, COUNT_LIMITS.barsOfRiff);
    requireFits('variations of one riff', riff.variations.length, COUNT_LIMITS.variations);
    requireFits('strums of one riff', Math.max(riff.strums.length, riff.guitar2.length), COUNT_LIMITS.strums);
  }
  return {
    ...PLAIN_SONG,
    title: fitText(brought.title, TEXT_LIMITS.title) || 'Without a title',
    artist: fitText(brought.artist, TEXT_LIMITS.artist),
    tuning: brought.tuning ?? STANDARD_TUNING,
    guitar2: brought.guitar2,
    key: brought.key,
    referenceOffsetCents: clamp(
      brought.referenceOffsetCents,
      RANGES.referenceOffsetCents[0],
      RANGES.referenceOffsetCents[1],
    ),
    grid: steadyGrid(bars, brought.bpm ?? USUAL_BPM),
    riffs,
    sections,
  };
}

function requireFits(what: string, count: number, most: number): void {
  if (count > most) throw new RangeError(`it has ${count} ${what}, and a song holds ${most}`);
}

/** Bars one behind the other, in beats of one length. */
function steadyGrid(bars: readonly RiffBar[], bpm: number): SongDocument['grid'] {
  const beatS = 60 / clamp(bpm, LEAST_BPM, MOST_BPM);
  const beatsS: number[] = [];
  const placed: Bar[] = [];
  let [timeS, beat] = [0, 0];
  for (const bar of bars) {
    placed.push({ ...bar, beat });
    // A dotted quarter is one beat of the tempo; a quarter is, in x/4, and the others follow from it.
    const unitS = isCompound(bar) ? beatS / 3 : (beatS * ticksPerBeat(bar.unit)) / TICKS_PER_QUARTER;
    for (let i = 0; i < bar.beats; i++, timeS += unitS) beatsS.push(timeS);
    beat += bar.beats;
  }
  if (beatsS.length > 0) beatsS.push(timeS);
  requireFits('beats', beatsS.length, COUNT_LIMITS.beats);
  requireFits('seconds', Math.ceil(timeS), RANGES.timeS[1]);
  return { beatsS, bars: placed };
}

/** Measures without any structure: the shortest stretch that all of them repeat, or all of them once. */
export function foldRepeats(measures: readonly BroughtMeasure[]): (readonly BroughtMeasure[])[] {
  const texts = measures.map((m) => measureText(m));
  for (let length = 1; length <= measures.length / 2; length *= 2) {
    if (measures.length % length === 0 && texts.every((text, i) => text === texts[i % length])) {
      return Array.from({ length: measures.length / length }, () => measures.slice(0, length));
    }
  }
  return [measures];
}
