import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG } from '@wild-needle/core/riff';
import { contentWords, overWords, remarkPlace } from './bring-words';
import type { ReadFile } from './reader-client';

const riff = { ...PLAIN_RIFF, letter: 'A', name: 'A', bars: [], strums: [] };
const section = { ...PLAIN_SECTION, name: 'Verse', startBar: 0, transpose: 0 };

function read(riffs: number, passes: readonly number[], kind: ReadFile['kind'] = 'text-tab'): ReadFile {
  return {
    kind,
    document: {
      ...PLAIN_SONG,
      riffs: Array.from({ length: riffs }, (_, i) => ({ ...riff, id: `r${i}` })),
      sections: passes.map((n, i) => ({ ...section, id: `s${i}`, riffId: 'r0', passes: n })),
    },
    ...{ remarks: [], tracks: [], track: 0 },
  };
}

describe('what is said of a file', () => {
  it.each([
    [read(3, [4, 2, 2, 3]), 'Three riffs and a road map in this file, 0 strums.'],
    // Every riff once is no order of play.
    [read(1, [1]), 'One riff in this file, 0 strums.'],
    [read(14, [1]), '14 riffs in this file, 0 strums.'],
    [read(0, [1, 1], 'label-track'), 'Two sections in this file.'],
  ])('counts what is in it', (file, words) => {
    expect(contentWords(file)).toBe(words);
  });

  it('tells where it went, and how it comes out again', () => {
    expect(overWords(read(1, []))).toBe('The riff is on Riffs. Undo takes it out again');
    expect(overWords(read(2, []))).toBe('The riffs are on Riffs. Undo takes them out again');
    expect(overWords(read(0, [1], 'label-track'))).toMatch(/road map/);
  });

  it('names the place that was not understood', () => {
    const at = (line: number | null, column: number | null): string =>
      remarkPlace({ line, column, words: '' });
    expect([at(14, 7), at(14, null), at(null, null)]).toEqual(['line 14, column 7', 'line 14', 'the file']);
  });
});
