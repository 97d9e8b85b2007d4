/** What is said of a file that is brought in. */
import type { Remark } from '@wild-needle/core/formats';
import type { ReadFile } from './reader-client';

const NUMBERS = [
  'No',
  'One',
  'Two',
  'Three',
  'Four',
  'Five',
  'Six',
  'Seven',
  'Eight',
  'Nine',
  'Ten',
  'Eleven',
  'Twelve',
];

function counted(count: number, one: string, many: string): string {
  return `${NUMBERS[count] ?? String(count)} ${count === 1 ? one : many}`;
}

/** 'Three riffs and a road map in this file.' */
export function contentWords({ kind, document }: ReadFile): string {
  if (kind === 'label-track')
    return `${counted(document.sections.length, 'section', 'sections')} in this file.`;
  const riffs = counted(document.riffs.length, 'riff', 'riffs');
  const strums = document.riffs.reduce((sum, r) => sum + r.strums.length + r.guitar2.length, 0);
  const { sections } = document;
  // Every riff once is no order of play.
  const hasMap = sections.length > document.riffs.length || sections.some((s) => s.passes > 1);
  return `${riffs}${hasMap ? ' and a road map' : ''} in this file, ${strums} ${strums === 1 ? 'strum' : 'strums'}.`;
}

/** Afterwards: where it is now. */
export function overWords({ kind, document }: ReadFile): string {
  if (kind === 'label-track') return 'The sections are on the road map. Undo brings yours back';
  const letters = document.riffs.length;
  return `${letters === 1 ? 'The riff is' : 'The riffs are'} on Riffs. Undo takes ${letters === 1 ? 'it' : 'them'} out again`;
}

/** 'line 14, column 7' */
export function remarkPlace({ line, column }: Remark): string {
  if (line === null) return 'the file';
  return column === null ? `line ${line}` : `line ${line}, column ${column}`;
}
