/** Tables of practising and working, read by an independent reader of RFC 4180: the package `csv-parse`. */
import { parse } from 'csv-parse/sync';
import { describe, expect, it } from 'vitest';
import { writeLogCsv, writeTimesCsv } from '../../src/practice/log-table';

/** Records with the fields of the first line. */
const read = (csv: string): unknown => parse(csv, { columns: true, record_delimiter: '\r\n' });

describe('a table', () => {
  it('of the time worked is read as it was written, whatever a title has in it', () => {
    const csv = writeTimesCsv([
      { day: '2026-11-30', song: 'Salt, "loud"\nand slow', step: 'riffs', seconds: 754 },
      { day: '2026-12-01', song: '=HYPERLINK(1)', step: 'check', seconds: 6 },
    ]);
    expect(read(csv)).toEqual([
      { day: '2026-11-30', song: 'Salt, "loud"\nand slow', step: 'riffs', minutes: '12.6' },
      // Common practice: an apostrophe keeps a spreadsheet from working it out.
      { day: '2026-12-01', song: "'=HYPERLINK(1)", step: 'check', minutes: '0.1' },
    ]);
  });

  it('of the rounds practised has a field for each figure, empty where there is none, and keeps what is early negative', () => {
    const round = {
      ...{ at: '2026-11-30T10:00:00.000Z', part: 'Riff A; "low"', way: 'stair', percent: 70, bpm: 84 },
      ...{ answer: 'clean', seconds: 8.5, written: 16, played: 15, right: 14, meanMs: -12.5 },
    };
    const silent = {
      ...round,
      part: '-x',
      answer: '',
      written: null,
      played: null,
      right: null,
      meanMs: null,
    };
    expect(read(writeLogCsv([round, silent]))).toMatchObject([
      { part: 'Riff A; "low"', percent: '70', bpm: '84', played: '15', meanMs: '-12.5' },
      { part: "'-x", answer: '', written: '', meanMs: '' },
    ]);
  });
});
