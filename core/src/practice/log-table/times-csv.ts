/** The time worked as a table: RFC 4180, by a package. */
import Papa from 'papaparse';

export interface TimeRow {
  readonly day: string;
  readonly song: string;
  readonly step: string;
  readonly seconds: number;
}

/** Minutes to a tenth; a title that begins like a formula stays text. */
export function writeTimesCsv(rows: readonly TimeRow[]): string {
  const columns = ['day', 'song', 'step', 'minutes'];
  const data = rows.map(({ day, song, step, seconds }) => [day, song, step, Math.round(seconds / 6) / 10]);
  return Papa.unparse({ fields: columns, data }, { escapeFormulae: true, newline: '\r\n' });
}
