/** The log of practising as a table. */
import { tableOf } from './table';

export interface LogRow {
  readonly at: string;
  readonly part: string;
  readonly way: string;
  readonly percent: number;
  readonly bpm: number | null;
  /** 'clean', 'slip', '' where nobody has said. */
  readonly answer: string;
  readonly seconds: number;
  /** What an input heard; null where none was on. */
  readonly written: number | null;
  readonly played: number | null;
  readonly right: number | null;
  readonly meanMs: number | null;
}

export function writeLogCsv(rows: readonly LogRow[]): string {
  const COLUMNS = [
    ...(['at', 'part', 'way', 'percent', 'bpm', 'answer'] as const),
    ...(['seconds', 'written', 'played', 'right', 'meanMs'] as const),
  ];
  const data = rows.map((row) => COLUMNS.map((c) => row[c]));
  return tableOf(COLUMNS, data);
}
