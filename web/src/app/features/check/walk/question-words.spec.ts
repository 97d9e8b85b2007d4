import { describe, expect, it } from 'vitest';
import type { JudgedPlace } from '@wild-needle/core/check';
import { judgedPlaces, questionsOf, type Question } from './questions';
import { countWords, lateWords, passWordsOf, reasonWords, ringWords, spokenQuestion } from './question-words';
import { judged, SONG } from '../../../tab/test-song';

/** The strum with the B5 that is written muted, in the second pass of the verse, judged so. */
function question(judgement: Partial<JudgedPlace>, id = 'v/1/s1'): Question {
  const all = judged({ [id]: judgement });
  return questionsOf(SONG, judgedPlaces(all, SONG), all).find((q) => q.id === id)!;
}
const heard = (midi: readonly number[], played: { palmMuted?: boolean; dead?: boolean } = {}) => ({
  ...{ timeS: 3.02, endS: 3.57, midi, palmMuted: false, dead: false },
  ...played,
});
const doubtful = { verdict: 'clashes', doubt: 0.9 } as const;

describe('a question in words', () => {
  it('says where it is', () => {
    expect(passWordsOf(question({}))).toBe('Verse, pass 2');
    expect(countWords(question({}))).toBe('bar 1, beat 3');
  });

  it.each<[string, Partial<JudgedPlace>]>([
    ['Heard as written', {}],
    ['D5 heard', { ...doubtful, heard: heard([50, 57, 62]) }],
    [
      'Fourth string?',
      { ...doubtful, heard: heard([45, 52, 57, 64]), reason: { kind: 'notes', extra: [64], missing: [] } },
    ],
    [
      'Top note not heard',
      { ...doubtful, heard: heard([45, 52]), reason: { kind: 'notes', extra: [], missing: [57] } },
    ],
    ['Palm mute heard', { ...doubtful, reason: { kind: 'mute', heard: 'muted' } }],
    ['Dead stroke heard', { ...doubtful, reason: { kind: 'mute', heard: 'dead' } }],
    ['38 ms late', { ...doubtful, reason: { kind: 'time', offsetS: 0.0381 } }],
    ['Not heard', { ...doubtful, verdict: 'missing', reason: { kind: 'not-heard' } }],
    ['The bass covers it', { ...doubtful, reason: { kind: 'covered', by: 'bass', notes: [45] } }],
  ])('%s', (words, judgement) => {
    expect(reasonWords(question(judgement), null)).toBe(words);
  });

  it('says all of it to a screen reader', () => {
    expect(spokenQuestion(question({ ...doubtful, heard: heard([50, 57, 62]) }), null)).toBe(
      'A5, D5 heard, Verse, pass 2, clashes, doubt 90 of 100',
    );
  });

  it('says early and late', () => {
    expect([0.0142, -0.02, 0.0002].map(lateWords)).toEqual(['14 ms late', '20 ms early', 'on the beat']);
  });

  it('says how it rings, against what is written', () => {
    expect(ringWords(question({ heard: heard([45]) }), 0.5)).toBe(
      'Ringing. Sounds for 1.1 beats, written 1.',
    );
    expect(ringWords(question({ heard: heard([47], { palmMuted: true }) }), 0.5)).toBe(
      'Muted. Dies in 550 ms. Written ringing.',
    );
    expect(ringWords(question({ heard: heard([47]) }, 'v/1/s2'), 0.5)).toBe(
      'Ringing. Sounds for 1.1 beats. Written muted.',
    );
  });
});
