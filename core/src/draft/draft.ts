/**
 * From an analysis to a first document: riffs written once from what their passes agree on, sections named by what they
 * play.
 */
import type { AnalysedStrum, Analysis } from '../analysis';
import type { HeardSection } from '../mir';
import {
  barTimesS,
  isUnit,
  nearestBarLine,
  passesOf,
  PLAIN_RIFF,
  PLAIN_SECTION,
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

function sectionOf(heard: HeardSection, number: number): Section {
  return {
    ...PLAIN_SECTION,
    id: `section-${number}`,
    // Its riff is said beside it everywhere; the user names verse and chorus.
    name: `Part ${number}`,
    riffId: `riff-${letterOf(heard)}`,
    startBar: heard.startBar,
    passes: heard.passes,
    transpose: heard.transposeOf?.semitones ?? 0,
  };
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
    const bars = barAt(section.startBar + section.barsPerPass * section.passes) - startBar;
    const barsPerPass = Math.round(bars / section.passes);
    return barsPerPass > 0 ? [{ ...section, startBar, barsPerPass }] : [];
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
    if (!riffs.some((r) => r.letter === letter)) {
      const bars = empty.grid.bars.slice(section.startBar, section.startBar + section.barsPerPass);
      if (bars.length < section.barsPerPass) continue;
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
