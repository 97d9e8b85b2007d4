import { describe, expect, it } from 'vitest';
import type { Guess } from '@wild-needle/contract';
import { namedBy, scoreOf } from './chord-kinds';
import { byWeek } from './ear-tally';

describe('root and kind of sounding notes', () => {
  // Shapes of power chords: common practice of rock guitar; intervals of the others as in any harmony handbook.
  it.each([
    ['two-strings', [40, 47], 4],
    ['three-strings', [40, 47, 52], 4],
    ['fifth-below', [40, 45], 9],
    ['flat-five', [40, 46], 4],
    ['octave', [40, 52], 4],
    ['sus2', [40, 47, 54], 4],
    ['sus4', [40, 45, 47], 4],
    ['major', [40, 44, 47], 4],
    ['minor', [40, 43, 47], 4],
    ['single', [40], 4],
  ])('are %s', (kind, midi, rootPc) => {
    expect(namedBy(midi)).toEqual({ rootPc, kind });
  });

  it('are none of what has no common name, and of silence', () => {
    expect(namedBy([40, 41, 42])).toBeNull();
    expect(namedBy([])).toBeNull();
  });
});

describe('a guess of the ear', () => {
  const heard = { rootPc: 4, kind: 'three-strings' } as const;
  const at = (day: string, guessed: Guess['guessed']): Guess => ({
    ...{ id: day, songId: 's', place: 'p', heard, guessed },
    at: `${day}T12:00:00.000Z`,
  });

  it('is right with root and kind, and half right with the root', () => {
    expect(scoreOf(heard, heard)).toBe(1);
    expect(scoreOf({ rootPc: 4, kind: 'octave' }, heard)).toBe(0.5);
    expect(scoreOf({ rootPc: 5, kind: 'three-strings' }, heard)).toBe(0);
  });

  it('counts in its week; what is older than six is not counted', () => {
    const guesses = [
      at('2026-01-01', heard),
      at('2026-02-27', heard),
      at('2026-03-08', heard),
      at('2026-03-09', { rootPc: 4, kind: 'octave' }),
    ];
    const weeks = byWeek(guesses, new Date('2026-03-10T12:00:00.000Z'));
    expect(weeks).toHaveLength(6);
    expect(weeks.at(-1)).toEqual({ right: 1.5, of: 2 });
    expect(weeks.at(-2)).toEqual({ right: 1, of: 1 });
    expect(weeks.reduce((sum, w) => sum + w.of, 0)).toBe(3);
  });
});
