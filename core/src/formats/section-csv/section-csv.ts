/** Sections as a table of comma-separated values (RFC 4180). */
import type { SongDocument } from '../../riff';
import type { Format } from '../format';
import { chartRows } from '../section-chart/section-chart';

const HEAD = ['section', 'start_s', 'end_s', 'bars', 'riff', 'semitones', 'passes'];

/** A field with a comma, a quote or a line break stands in quotes, quotes doubled (RFC 4180, section 2). */
function csvField(value: string | number): string {
  const text = String(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

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
  return [HEAD, ...rows].map((row) => `${row.map(csvField).join(',')}\r\n`).join('');
}

export const SECTION_CSV: Format = {
  id: 'section-csv',
  label: 'Table (CSV)',
  ending: 'csv',
  mime: 'text/csv',
  holds: 'sections',
  write: writeSectionCsv,
};
