/** Apart from the rest of practising: its package is only loaded where the table is made. */
export { writeLogCsv } from './log-csv';
export { writeTimesCsv } from './times-csv';
export type { LogRow } from './log-csv';
