/** Where the needle goes by a beat, a bar, a section or five seconds. Pure, so that every case can be tested. */
import { barTimesS, sectionTimesS, type SongDocument } from '@wild-needle/core/riff';

export type JumpUnit = 'beat' | 'bar' | 'section' | 'seconds';

/** As far as one remembers what was just played. */
const SECONDS = 5;
/** A place this near to the needle is the one that it stands on. */
const HERE_S = 0.03;
/** While it plays, the start of what sounds has just gone by: back goes to the one before it. */
const JUST_PASSED_S = 0.4;

/** Places that a unit of the song begins at, ascending. */
function startsOf(document: SongDocument, unit: JumpUnit): readonly number[] {
  if (unit === 'beat') return document.grid.beatsS;
  if (unit === 'bar') return barTimesS(document.grid);
  return document.sections.flatMap((section) => sectionTimesS(document, section)?.startS ?? []);
}

/** Null where there is no such place: then the needle stays. */
export function jumpTarget(
  document: SongDocument,
  nowS: number,
  unit: JumpUnit,
  by: 1 | -1,
  isPlaying: boolean,
): number | null {
  if (unit === 'seconds') return nowS + by * SECONDS;
  const starts = startsOf(document, unit);
  const passedS = isPlaying ? JUST_PASSED_S : HERE_S;
  const found = by > 0 ? starts.find((t) => t > nowS + HERE_S) : starts.findLast((t) => t < nowS - passedS);
  return found ?? null;
}
