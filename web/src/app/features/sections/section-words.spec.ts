import { describe, expect, it } from 'vitest';
import { comparePassesInWords } from './section-words';

const GRID = {
  beatsS: Array.from({ length: 33 }, (_, i) => i / 2),
  bars: Array.from({ length: 8 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 })),
};
type Kind = 'missing' | 'extra' | 'chord' | 'mute' | 'early-end';
const pass = (...kinds: Kind[]) => ({
  startS: 0,
  endS: 4,
  differences: kinds.map((kind, i) => ({ kind, timeS: 13 + i / 2, strum: null, usual: null })),
});

describe('passes in words', () => {
  it('agree, or were not compared', () => {
    expect(comparePassesInWords([pass(), pass('mute')], GRID)).toEqual({
      kind: 'agree',
      words: 'All passes agree',
    });
    expect(comparePassesInWords([], GRID).kind).toBe('unheard');
    expect(comparePassesInWords([pass()], GRID).words).toBe('One pass alone');
  });

  it('say which differs, and how', () => {
    expect(comparePassesInWords([pass(), pass('missing', 'chord', 'chord'), pass()], GRID).words).toBe(
      'Pass 2 lacks a strum, has 2 other chords',
    );
    expect(comparePassesInWords([pass(), pass('missing', 'early-end')], GRID).words).toBe(
      'The last pass ends early, at bar 7 beat 4',
    );
    const many = [pass(), pass('chord', 'chord'), pass('extra', 'extra'), pass('mute', 'mute')];
    expect(comparePassesInWords(many, GRID).words).toBe(
      'Pass 2 has 2 other chords; pass 3 has 2 strums more and 1 more',
    );
  });
});
