/**
 * The meter said by hand: for the whole song, from a bar on, or for a stretch of bars; and another reading of tempo and meter
 * altogether. Beats are divided or left out where the note value changes, so that their times stay; what is written is placed anew
 * by its instants (`regrid.ts`).
 */
import { beatsPerTempoBeat, type Meter } from '../theory';
import type { Bar, BeatGrid, SongDocument } from './document';
import { isUnit, type Unit } from './enums';
import { barsOfMeter, overallTempo, timeAtBeat } from './grid';
import { isWithin, RANGES } from './limits';
import { replaceGrid } from './regrid';

/** Each beat becomes `times` of them, of which every `keep`-th is left. */
interface Division {
  readonly times: number;
  readonly keep: number;
}

/** Bars [from, end) of an index. */
export interface BarRange {
  readonly from: number;
  readonly end: number;
}

function divided(grid: BeatGrid, from: number, to: number, { times, keep }: Division): number[] {
  const fresh: number[] = [];
  for (let k = 0; from + (k * keep) / times < to - 1e-9; k++)
    fresh.push(timeAtBeat(grid, from + (k * keep) / times));
  return fresh;
}

/** The bars of a range in another meter; gaps stay. `divisionOf`: of beats of a note value. */
function rebar(
  grid: BeatGrid,
  range: BarRange,
  divisionOf: (unit: Unit) => Division,
  meter: Omit<Bar, 'beat'>,
): BeatGrid {
  const { beatsS, bars } = grid;
  const timesS: number[] = [];
  const out: Bar[] = [];
  let copied = 0;
  const copyTo = (beat: number): void => {
    timesS.push(...beatsS.slice(copied, beat));
    copied = Math.max(copied, beat);
  };
  for (let i = 0; i < bars.length;) {
    copyTo(bars[i].beat);
    const at = timesS.length;
    if (i < range.from || i >= range.end) {
      copyTo(bars[i].beat + bars[i].beats);
      out.push({ ...bars[i], beat: at });
      i++;
      continue;
    }
    let to = bars[i].beat;
    // Bars of one note value are divided together: beats go on evenly over their lines.
    while (i < range.end && bars[i]?.beat === to) {
      const { beat: from, unit } = bars[i];
      while (i < range.end && bars[i]?.beat === to && bars[i].unit === unit) to += bars[i++].beats;
      timesS.push(...divided(grid, from, to, divisionOf(unit)));
    }
    out.push(...barsOfMeter(at, timesS.length, meter));
    copied = to;
  }
  copyTo(beatsS.length);
  return { beatsS: timesS, bars: out };
}

function isMeter({ beats }: Meter): boolean {
  return Number.isInteger(beats) && isWithin(beats, RANGES.beats);
}

/** Gives bars another meter. Nothing changes for a meter over the limits. */
export function setMeter(
  document: SongDocument,
  range: BarRange,
  { beats, unit }: { readonly beats: number; readonly unit: Unit },
): SongDocument {
  const bar = document.grid.bars[range.from];
  const isThere = bar && range.end > range.from && range.end <= document.grid.bars.length;
  const isSame = document.grid.bars
    .slice(range.from, range.end)
    .every((b) => b.beats === beats && b.unit === unit);
  if (!isThere || isSame || !isMeter({ beats, unit })) return document;
  const divisionOf = (before: Unit): Division => ({
    times: Math.max(1, unit / before),
    keep: Math.max(1, before / unit),
  });
  return replaceGrid(document, rebar(document.grid, range, divisionOf, { beats, unit }));
}

/** Ratios of beats that are tried, smallest first. */
const RATIOS = [1, 2, 3, 4].flatMap((times) => [1, 2, 3, 4].map((keep): Division => ({ times, keep })));
/** A tempo this near to a ratio is meant by it. */
const RATIO_TOLERANCE = 0.05;

/** Tempo and meter as another reading of the same pulse counts them. */
export interface Reading {
  readonly tempoBpm: number;
  readonly meter: Meter;
}

/**
 * Counts the whole song as another reading does, from its first bar line on: at a simple ratio to the beats that it has. Nothing
 * changes where there is no such ratio.
 */
export function useReading(document: SongDocument, { tempoBpm, meter }: Reading): SongDocument {
  const { grid } = document;
  const tempo = overallTempo(grid);
  const [bar] = grid.bars;
  if (tempo === null || !bar || !isUnit(meter.unit) || !isMeter(meter)) return document;
  const wanted = (tempoBpm * beatsPerTempoBeat(meter)) / (tempo * beatsPerTempoBeat(bar));
  const division = RATIOS.find(
    ({ times, keep }) => Math.abs(Math.log((wanted * keep) / times)) < RATIO_TOLERANCE,
  );
  if (!division) return document;
  const { beats, unit } = { ...meter, unit: meter.unit };
  return replaceGrid(
    document,
    rebar(grid, { from: 0, end: grid.bars.length }, () => division, { beats, unit }),
  );
}
