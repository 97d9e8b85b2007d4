/** The sections of a song as rows: what all formats of the section chart write, each in its own way. */
import { passesOf, type SongDocument } from '../../riff';

export interface ChartRow {
  readonly name: string;
  readonly startS: number;
  readonly endS: number;
  readonly bars: number;
  /** Letter of the riff. */
  readonly riff: string;
  /** Semitones that the riff is moved by. */
  readonly transpose: number;
  readonly passes: number;
}

/** In order of time; sections that the recording has no bars for are left out. */
export function chartRows(document: SongDocument): ChartRow[] {
  return document.sections.flatMap((section) => {
    const riff = document.riffs.find((r) => r.id === section.riffId);
    const passes = riff ? passesOf(section, riff, document.grid) : [];
    if (!riff || passes.length === 0) return [];
    return [
      {
        name: section.name,
        startS: passes[0].startS,
        endS: passes[passes.length - 1].endS,
        bars: section.passes * riff.bars.length,
        riff: riff.letter,
        transpose: section.transpose,
        passes: section.passes,
      },
    ];
  });
}
