/** Sections as a table of comma-separated values (RFC 4180). */
import Papa from 'papaparse';
import type { SongDocument } from '../../riff';
import { chartRows } from '../section-chart/section-chart';

const COLUMNS = ['section', 'start_s', 'end_s', 'bars', 'riff', 'semitones', 'passes'];

export function writeSectionCsv(document: SongDocument): string {
  const rows = chartRows(document).map((r) => [
    r.name,
    r.startS.toFixed(3),
    r.endS.toFixed(3),
    r.bars,
    r.riff,
    r.transpose,
    r.passes,
  ]);
  return `${Papa.unparse([COLUMNS, ...rows], { newline: '\r\n' })}\r\n`;
}
