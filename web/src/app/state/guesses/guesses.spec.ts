import { describe, expect, it } from 'vitest';
import type { Guess } from '@wild-needle/contract';
import { guessesActions, guessesApiActions } from './guesses.actions';
import { guessesFeature } from './guesses.reducer';

const guess = (id: string): Guess => ({
  id,
  at: '2026-02-03T10:00:00.000Z',
  songId: 's',
  place: 'p',
  guessed: { rootPc: 0, kind: 'major' },
  heard: { rootPc: 0, kind: 'minor' },
});
const { reducer } = guessesFeature;
const begin = reducer(undefined, { type: '@@init' });

describe('guesses of the ear', () => {
  it('count at once, and wait until the server has them', () => {
    const guessed = reducer(begin, guessesActions.chordGuessed({ guess: guess('a') }));
    expect(guessed.guesses.map((g) => g.id)).toEqual(['a']);
    expect(guessed.unsent.map((g) => g.id)).toEqual(['a']);
    const kept = reducer(guessed, guessesApiActions.guessKept({ id: 'a' }));
    expect(kept.unsent).toEqual([]);
  });

  it('that were not sent are not lost when the others are read', () => {
    const guessed = reducer(begin, guessesActions.chordGuessed({ guess: guess('a') }));
    const read = reducer(guessed, guessesApiActions.guessesLoaded({ guesses: [guess('b')] }));
    expect(read.guesses.map((g) => g.id)).toEqual(['b', 'a']);
  });
});
