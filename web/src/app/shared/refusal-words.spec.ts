import { describe, expect, it } from 'vitest';
import { refusalWords } from './refusal-words';

describe('a refused edit', () => {
  it.each([
    [{ kind: 'odd-bars', letter: 'A' }, "Riff A has an odd number of bars: two of them can't become one."],
    [{ kind: 'uneven-bars', bar: 3 }, 'Bars 3 and 4 do not make one even bar.'],
    [{ kind: 'bars-between', bars: 1 }, 'There is a bar between them.'],
    [{ kind: 'bars-between', bars: 2 }, 'There are 2 bars between them.'],
    [{ kind: 'has-pick-up', beats: 1 }, 'There is one, of a beat.'],
    [{ kind: 'unequal-riffs', letters: ['A', 'B'] }, 'Riff A and riff B are not equally long.'],
  ] as const)('says why: %o', (refusal, words) => {
    expect(refusalWords(refusal)).toBe(words);
  });
});
