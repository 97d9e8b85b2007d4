/**
 * From an analysis to a first document: riffs written once from what their passes agree on, strums put on the grid of sixteenths or triplets, sections named by what they play.
 */
import { PLAIN_SONG, PLAIN_RIFF, PLAIN_SECTION, PLAIN_STRUM, riffTicks, ticksPerBeat } from '../riff';
import type { Bar, BeatGrid, Riff, Section, SongDocument, Strum } from '../riff';
import type { HeardSection } from '../mir';
import { TICKS_PER_QUARTER } from '../units';
import type { AnalysedStrum, Analysis } from './analyse';
import { agreeOnStrums, type PlacedStrum } from './consensus';

/** Places in a beat that strums are put on: sixteenths, and triplets where they fit clearly better. */
const SIXTEENTH = TICKS_PER_QUARTER / 4;
const TRIPLET = TICKS_PER_QUARTER / 3;
/** Triplets must fit this much better before a beat is read as one. */
const TRIPLET_ADVANTAGE = 0.6;

export interface DraftOptions {
  readonly title: string;
  readonly artist: string;
  readonly recordingId: string;
}

/** A dotted quarter is heard as one beat and written as three eighths. */
function writtenBeats({ beatsS, meter }: Analysis): number[] {
  const isCompound = meter.unit === 8 && meter.beats % 3 === 0;
  if (!isCompound) return [...beatsS];
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
    unit: meter.unit,
  }));
  return { beatsS, bars: bars.filter((b) => b.beats > 0) };
}

/** Nearest place of the grid; whole beats are decided as sixteenths or triplets together. */
function quantise(raw: readonly number[]): number[] {
  const byBeat = new Map<number, number[]>();
  for (const ticks of raw) {
    const beat = Math.floor((ticks + SIXTEENTH / 2) / TICKS_PER_QUARTER);
    byBeat.set(beat, [...(byBeat.get(beat) ?? []), ticks]);
  }
  const step = new Map<number, number>();
  for (const [beat, members] of byBeat) {
    const miss = (grid: number): number =>
      members.reduce((sum, t) => sum + Math.abs(t - Math.round(t / grid) * grid), 0);
    step.set(
      beat,
      miss(TRIPLET) < TRIPLET_ADVANTAGE * miss(SIXTEENTH) && members.length > 1 ? TRIPLET : SIXTEENTH,
    );
  }
  return raw.map((ticks) => {
    const grid = step.get(Math.floor((ticks + SIXTEENTH / 2) / TICKS_PER_QUARTER)) ?? SIXTEENTH;
    return Math.round(ticks / grid) * grid;
  });
}

/** Strums of one pass in ticks from its start, at most one per place. */
function placePass(
  section: HeardSection,
  pass: number,
  strums: readonly AnalysedStrum[],
  analysis: Analysis,
  grid: BeatGrid,
): PlacedStrum[] {
  const firstBar = section.startBar + pass * section.barsPerPass;
  const bars = grid.bars.slice(firstBar, firstBar + section.barsPerPass);
  if (bars.length < section.barsPerPass) return [];
  const perBeat = ticksPerBeat(analysis.meter.unit);
  const firstBeat = bars[0].beat;
  const lastBeat = bars.at(-1)!.beat + bars.at(-1)!.beats;
  const length = (lastBeat - firstBeat) * perBeat;
  const toTicks = (timeS: number): number => {
    let b = firstBeat;
    while (b + 1 < lastBeat && grid.beatsS[b + 1] <= timeS) b++;
    const start = grid.beatsS[b];
    const end = grid.beatsS[b + 1] ?? 2 * start - grid.beatsS[b - 1];
    return (b - firstBeat + (timeS - start) / (end - start)) * perBeat;
  };
  const inside = strums
    .filter(({ timeS }) => !analysis.freeTime.some((f) => timeS >= f.startS && timeS <= f.endS))
    .map((strum) => ({ strum, raw: toTicks(strum.timeS) }))
    .filter(({ raw }) => raw > -SIXTEENTH / 2 && raw < length - SIXTEENTH / 2);
  const places = quantise(inside.map(({ raw }) => raw));
  const placed: PlacedStrum[] = [];
  inside.forEach(({ strum }, i) => {
    const ticks = Math.max(0, places[i]);
    if (ticks >= length || placed.some((p) => p.ticks === ticks)) return;
    const end = Math.min(length, Math.round(toTicks(strum.endS) / SIXTEENTH) * SIXTEENTH);
    placed.push({ ticks, endTicks: Math.max(ticks + SIXTEENTH, end), strum });
  });
  return placed;
}

function writeStrum(id: string, { ticks, endTicks, strum }: PlacedStrum, strings: number): Strum {
  const best = strum.voicings[0]?.frets ?? [];
  return {
    ...PLAIN_STRUM,
    id,
    startTicks: ticks,
    durationTicks: endTicks - ticks,
    frets: best.flatMap((fret, i) => (fret === null ? [] : [{ string: strings - i, fret }])),
    palmMute: strum.palmMuted,
    dead: strum.dead,
    trust: 'heard',
  };
}

export function draftDocument(
  analysis: Analysis,
  { title, artist, recordingId }: DraftOptions,
): SongDocument {
  const grid = gridOf(analysis);
  const { name, stringsMidi, capo } = analysis.tuning;
  // Of two guitars that play apart, the left one is the first.
  const [first, second] =
    analysis.guitars.length === 2 ? analysis.guitars.map((g) => g.strums) : [analysis.strums, null];
  const riffs: Riff[] = [];
  const sections: Section[] = [];
  const baseOf = (s: HeardSection): string => s.transposeOf?.label ?? s.label;

  for (const section of analysis.sections) {
    const letter = baseOf(section);
    let riff = riffs.find((r) => r.letter === letter);
    if (!riff) {
      const same = analysis.sections.filter((s) => s.label === section.label);
      const writePart = (strums: readonly AnalysedStrum[], idPrefix: string): Strum[] =>
        agreeOnStrums(
          same.flatMap((s) =>
            Array.from({ length: s.passes }, (_, p) => placePass(s, p, strums, analysis, grid)),
          ),
        )
          .map((placed, i) => writeStrum(`${idPrefix}-${i + 1}`, placed, stringsMidi.length))
          // A strum whose notes the tuning can't play stands as a dead stroke place would: leave it out.
          .filter((s) => s.dead || s.frets.length > 0);
      const bars = grid.bars
        .slice(section.startBar, section.startBar + section.barsPerPass)
        .map(({ beats, unit }) => ({ beats, unit }));
      if (bars.length < section.barsPerPass) continue;
      const id = `riff-${letter}`;
      riff = {
        ...PLAIN_RIFF,
        id,
        letter,
        name: `Riff ${letter}`,
        bars,
        strums: writePart(first, id),
        second: second ? writePart(second, `${id}-second`) : [],
      };
      if (riffTicks(riff) <= 0) continue;
      riffs.push(riff);
    }
    sections.push({
      ...PLAIN_SECTION,
      id: `section-${sections.length + 1}`,
      // Its riff is said beside it everywhere; the user names verse and chorus.
      name: `Part ${sections.length + 1}`,
      riffId: riff.id,
      startBar: section.startBar,
      passes: section.passes,
      transpose: section.transposeOf?.semitones ?? 0,
    });
  }
  return {
    ...PLAIN_SONG,
    title,
    artist,
    tuning: { name, stringsMidi, capo },
    second: second ? { name, stringsMidi, capo } : null,
    key: analysis.key,
    referenceOffsetCents: analysis.referenceOffsetCents,
    recordings: [{ id: recordingId, isReference: true }],
    grid,
    riffs,
    sections,
  };
}
