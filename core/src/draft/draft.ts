/**
 * From an analysis to a first document: riffs written once from what their passes agree on, sections named by what they
 * play.
 */
import type { AnalysedStrum, Analysis } from '../analysis';
import type { HeardSection } from '../mir';
import {
  addRiff,
  barTimesS,
  isUnit,
  nearestBarLine,
  passesOf,
  PLAIN_RIFF,
  PLAIN_SECTION,
  sectionBars,
  handFieldsOf,
  type Bar,
  type BeatGrid,
  type HandField,
  type Riff,
  type Section,
  type SongDocument,
  type Strum,
} from '../riff';
import { isCompound } from '../theory';
import { placeStrokes, strokesOfPass, strumsOfPass } from './place';
import { agreeOnStrokes } from './vote';
import { writeStrums } from './write';

/** A dotted quarter is heard as one beat and written as three eighths. */
function writtenBeats({ beatsS, meter }: Analysis): number[] {
  if (!isCompound(meter)) return [...beatsS];
  return beatsS.flatMap((t, i) => {
    const lengthS = (beatsS[i + 1] ?? 2 * t - beatsS[i - 1]) - t;
    return [t, t + lengthS / 3, t + (2 * lengthS) / 3];
  });
}

/** Bars between downbeats; beats before the first downbeat belong to none. */
export function gridOf(analysis: Analysis): BeatGrid {
  const { downbeatsS, meter } = analysis;
  const beatsS = writtenBeats(analysis);
  const starts = downbeatsS.map((t) => beatsS.findIndex((b) => Math.abs(b - t) < 1e-6)).filter((i) => i >= 0);
  const bars = starts.map((beat, i): Bar => ({
    beat,
    beats: (starts[i + 1] ?? Math.min(beat + meter.beats, beatsS.length)) - beat,
    unit: isUnit(meter.unit) ? meter.unit : 4,
  }));
  return { beatsS, bars: bars.filter((b) => b.beats > 0) };
}

/** What all passes of these sections agree on, written into the riff that they play. */
function writePart(
  riff: Riff,
  sections: readonly Section[],
  strums: readonly AnalysedStrum[],
  { grid, tuning }: SongDocument,
  idPrefix: string,
): Strum[] {
  const passes = sections.flatMap((section) => passesOf(section, riff, grid));
  const agreed = agreeOnStrokes(
    passes.map((pass) => placeStrokes(riff, strokesOfPass(pass, grid, strumsOfPass(pass, strums)))),
  );
  return (
    writeStrums(agreed, tuning, (k) => `${idPrefix}-${k + 1}`)
      // A strum whose notes the tuning can't play would stand as an empty place: nobody has tapped it, leave it out.
      .filter((s) => s.dead || s.frets.length > 0)
  );
}

/** A part in which nothing comes round has no riff: what was heard there is a guess that no other pass bears out. */
function sectionOf(heard: HeardSection, number: number): Section {
  const plain = {
    ...PLAIN_SECTION,
    id: `section-${number}`,
    // Its riff is said beside it everywhere; the user names verse and chorus.
    name: `Part ${number}`,
    startBar: heard.startBar,
  };
  if (!heard.returns) return { ...plain, riffId: null, passes: barsOf(heard), transpose: 0 };
  return {
    ...plain,
    riffId: `riff-${letterOf(heard)}`,
    passes: heard.passes,
    cutBars: heard.cutBars,
    transpose: heard.transposeOf?.semitones ?? 0,
  };
}

function barsOf({ barsPerPass, passes, cutBars }: HeardSection): number {
  return barsPerPass * passes - cutBars;
}

function letterOf({ label, transposeOf }: HeardSection): string {
  return transposeOf?.label ?? label;
}

export interface Draft {
  readonly document: SongDocument;
  /** What was set by hand, and stays. */
  readonly kept: readonly HandField[];
}

/** Heard sections on bars that were set by hand: each begins at the nearest bar line and keeps its length in seconds. */
function onGrid(sections: readonly HeardSection[], heard: BeatGrid, grid: BeatGrid): HeardSection[] {
  const times = barTimesS(heard);
  const barAt = (bar: number): number => nearestBarLine(grid, times[Math.min(bar, times.length - 1)]);
  return sections.flatMap((section) => {
    const startBar = barAt(section.startBar);
    const bars = barAt(section.startBar + barsOf(section)) - startBar;
    const barsPerPass = Math.round((bars * section.barsPerPass) / barsOf(section));
    const cutBars = barsPerPass * section.passes - bars;
    // What does not come out even is as long as whole passes of it.
    const isEven = cutBars >= 0 && cutBars < barsPerPass;
    return barsPerPass > 0 ? [{ ...section, startBar, barsPerPass, cutBars: isEven ? cutBars : 0 }] : [];
  });
}

/**
 * The draft of an analysis, laid into a song that has no riffs yet: it fills what nobody has set by hand. A tuning set by hand is
 * the one that the riffs are fingered in, bars set by hand are those that they stand in.
 */
export function draftInto(document: SongDocument, analysis: Analysis): Draft {
  const kept = handFieldsOf(document);
  const { name, stringsMidi, capo } = analysis.tuning;
  const heardTuning = { name, stringsMidi, capo };
  // Of two guitars that play apart, the left one is the first. Strums in free time stand in no bar.
  const isInTime = ({ timeS }: AnalysedStrum): boolean =>
    !analysis.freeTime.some((f) => timeS >= f.startS && timeS <= f.endS);
  const apart = analysis.guitars.length === 2 ? analysis.guitars.map((g) => g.strums) : [];
  const [first, second] = (apart.length === 2 ? apart : [analysis.strums]).map((s) => s.filter(isInTime));
  const heardGrid = gridOf(analysis);
  const heard: SongDocument = {
    ...document,
    tuning: heardTuning,
    guitar2: second ? heardTuning : null,
    key: analysis.key,
    referenceOffsetCents: analysis.referenceOffsetCents,
    grid: heardGrid,
  };
  const empty = kept.reduce<SongDocument>((song, field) => ({ ...song, [field]: document[field] }), heard);
  const heardSections = kept.includes('grid')
    ? onGrid(analysis.sections, heardGrid, empty.grid)
    : analysis.sections;

  const riffs: Riff[] = [];
  const sections: Section[] = [];
  for (const section of heardSections) {
    const letter = letterOf(section);
    if (section.returns && !riffs.some((r) => r.letter === letter)) {
      // A part that leaves the end of its riff out may come before one that plays it.
      const { startBar, barsPerPass } =
        heardSections.find((s) => letterOf(s) === letter && (s.passes > 1 || s.cutBars === 0)) ?? section;
      const bars = empty.grid.bars.slice(startBar, startBar + barsPerPass);
      if (bars.length < barsPerPass) continue;
      const id = `riff-${letter}`;
      const riff: Riff = {
        ...PLAIN_RIFF,
        id,
        letter,
        name: `Riff ${letter}`,
        bars: bars.map(({ beats, unit }) => ({ beats, unit })),
        strums: [],
      };
      const same = heardSections.filter((s) => s.label === section.label).map(sectionOf);
      riffs.push({
        ...riff,
        strums: writePart(riff, same, first, empty, id),
        guitar2: second
          ? writePart(riff, same, second, { ...empty, tuning: empty.guitar2 ?? empty.tuning }, `${id}-second`)
          : [],
      });
    }
    sections.push(sectionOf(section, sections.length + 1));
  }
  return { document: { ...empty, riffs, sections }, kept };
}

/**
 * A part that has no riff, written down as it was heard: one riff as long as the part. The same document where the part is gone, has a riff, or there is
 * no room for another.
 */
export function draftPart(
  document: SongDocument,
  strums: readonly AnalysedStrum[],
  sectionId: string,
  riffId: string,
): SongDocument {
  const section = document.sections.find((s) => s.id === sectionId);
  if (section?.riffId !== null) return document;
  const bars = document.grid.bars.slice(section.startBar, section.startBar + sectionBars(document, section));
  const withRiff = addRiff(document, riffId, bars.length);
  const riff = withRiff.riffs.find((r) => r.id === riffId);
  if (!riff) return document;
  const ofPart: Riff = { ...riff, bars: bars.map(({ beats, unit }) => ({ beats, unit })) };
  const played: Section = { ...section, riffId, passes: 1 };
  const written = { ...ofPart, strums: writePart(ofPart, [played], strums, document, riffId) };
  return {
    ...withRiff,
    riffs: withRiff.riffs.map((r) => (r === riff ? written : r)),
    sections: withRiff.sections.map((s) => (s === section ? played : s)),
  };
}
