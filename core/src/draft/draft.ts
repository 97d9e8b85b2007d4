/**
 * From an analysis to a first document: riffs written once from what their passes agree on, sections named by what they
 * play.
 */
import type { AnalysedStrum, Analysis } from '../analysis';
import type { HeardSection } from '../mir';
import {
  isUnit,
  passesOf,
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  type Bar,
  type BeatGrid,
  type Riff,
  type Section,
  type SongDocument,
  type Strum,
} from '../riff';
import { isCompound } from '../theory';
import { placeStrokes, strokesOfPass, strumsOfPass } from './place';
import { agreeOnStrokes } from './vote';
import { writeStrums } from './write';

export interface DraftOptions {
  readonly title: string;
  readonly artist: string;
  readonly recordingId: string;
}

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
    passes.map((pass) => placeStrokes(riff, strokesOfPass(pass, riff, grid, strumsOfPass(pass, strums)))),
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

export function draftDocument(
  analysis: Analysis,
  { title, artist, recordingId }: DraftOptions,
): SongDocument {
  const { name, stringsMidi, capo } = analysis.tuning;
  const tuning = { name, stringsMidi, capo };
  // Of two guitars that play apart, the left one is the first. Strums in free time stand in no bar.
  const isInTime = ({ timeS }: AnalysedStrum): boolean =>
    !analysis.freeTime.some((f) => timeS >= f.startS && timeS <= f.endS);
  const apart = analysis.guitars.length === 2 ? analysis.guitars.map((g) => g.strums) : [];
  const [first, second] = (apart.length === 2 ? apart : [analysis.strums]).map((s) => s.filter(isInTime));
  const empty: SongDocument = {
    ...PLAIN_SONG,
    title,
    artist,
    tuning,
    guitar2: second ? tuning : null,
    key: analysis.key,
    referenceOffsetCents: analysis.referenceOffsetCents,
    recordings: [{ id: recordingId, isReference: true }],
    grid: gridOf(analysis),
  };

  const riffs: Riff[] = [];
  const sections: Section[] = [];
  for (const heard of analysis.sections) {
    const letter = letterOf(heard);
    if (!riffs.some((r) => r.letter === letter)) {
      const bars = empty.grid.bars.slice(heard.startBar, heard.startBar + heard.barsPerPass);
      if (bars.length < heard.barsPerPass) continue;
      const id = `riff-${letter}`;
      const riff: Riff = {
        ...PLAIN_RIFF,
        id,
        letter,
        name: `Riff ${letter}`,
        bars: bars.map(({ beats, unit }) => ({ beats, unit })),
        strums: [],
      };
      const same = analysis.sections.filter((s) => s.label === heard.label).map(sectionOf);
      riffs.push({
        ...riff,
        strums: writePart(riff, same, first, empty, id),
        guitar2: second ? writePart(riff, same, second, empty, `${id}-second`) : [],
      });
    }
    sections.push(sectionOf(heard, sections.length + 1));
  }
  return { ...empty, riffs, sections };
}
