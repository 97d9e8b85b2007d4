/** The time worked as a table. */
import { tableOf } from './table';

export interface TimeRow {
  readonly day: string;
  readonly song: string;
  readonly step: string;
  readonly seconds: number;
}

/** Minutes to a tenth. */
export function writeTimesCsv(rows: readonly TimeRow[]): string {
  const columns = ['day', 'song', 'step', 'minutes'];
  const data = rows.map(({ day, song, step, seconds }) => [day, song, step, Math.round(seconds / 6) / 10]);
  return tableOf(columns, data);
}
