/** The sections of a song as rows: what all formats of the section chart write, each in its own way. */
import { sectionBars, sectionTimesS, type SongDocument } from '../../riff';

export interface ChartRow {
  readonly name: string;
  readonly startS: number;
  readonly endS: number;
  readonly bars: number;
  /** Letter of the riff; '' for a part without one. */
  readonly riff: string;
  /** Semitones that the riff is moved by. */
  readonly transpose: number;
  readonly passes: number;
}

/** In order of time, none over the next; sections that the recording has no bars for are left out. */
export function chartRows(document: SongDocument): ChartRow[] {
  const rows = document.sections.flatMap((section): ChartRow[] => {
    const riff = document.riffs.find((r) => r.id === section.riffId);
    const times = sectionTimesS(document, section);
    if (!times) return [];
    return [
      {
        ...times,
        name: section.name,
        bars: sectionBars(document, section),
        riff: riff?.letter ?? '',
        transpose: section.transpose,
        passes: riff ? section.passes : 1,
      },
    ];
  });
  // Songs of before may have sections that reach into the next.
  return rows.map((row, i) => ({ ...row, endS: Math.min(row.endS, rows[i + 1]?.startS ?? Infinity) }));
}
