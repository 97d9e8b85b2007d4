import { describe, expect, it } from 'vitest';
import type { ExtraStrum, JudgedPlace, SongJudgement } from '@wild-needle/core/check';
import { keepWritten } from '@wild-needle/core/draft';
import { moveStrums, setFrets, type SongDocument } from '@wild-needle/core/riff';
import {
  inOtherPasses,
  isOpen,
  judgedPlaces,
  placeOf,
  questionsOf,
  sameElsewhere,
  type Question,
} from './questions';
import { judged, SONG } from '../../../tab/test-song';

const ask = (song: SongDocument, judgement: SongJudgement | null, of = song): Question[] =>
  questionsOf(song, judgement ? judgedPlaces(judgement, of) : new Map(), judgement);
const open = (questions: readonly Question[]): string[] => questions.filter(isOpen).map((q) => q.id);
/** Another chord is heard, at the height that the section sounds at. */
const clash = (midi: readonly number[]): Partial<JudgedPlace> => ({
  verdict: 'clashes',
  doubt: 0.9,
  reason: { kind: 'notes', extra: [], missing: [] },
  heard: { timeS: 0, endS: 1, midi, palmMuted: false, dead: false },
});
const MISHEARD = { 'v/0/s1': clash([46, 53]), 'v/1/s1': clash([46, 53]), 'c/0/s1': clash([48, 55]) };

describe('what is asked', () => {
  it('is nothing while nothing was compared, and every strum can be looked at', () => {
    const questions = ask(SONG, null);
    expect(questions).toHaveLength(12);
    expect(questions.every((q) => q.verdict === 'unchecked')).toBe(true);
    expect(open(questions)).toEqual([]);
  });

  it('is what is doubted and not settled yet', () => {
    const questions = ask(SONG, judged(MISHEARD));
    expect(open(questions)).toEqual(['v/0/s1', 'v/1/s1', 'c/0/s1']);
    const settled = keepWritten(SONG, [placeOf(questions[1])], () => false);
    expect(open(ask(settled, judged(MISHEARD), SONG))).toEqual(['v/1/s1', 'c/0/s1']);
  });

  it('is not asked of what is written otherwise than it was judged', () => {
    const changed = setFrets(SONG, 'a', new Set(['s1']), [{ string: 6, fret: 6 }]);
    const questions = ask(changed, judged(MISHEARD), SONG);
    expect(open(questions)).toEqual([]);
    expect(questions.find((q) => q.id === 'v/0/s1')?.verdict).toBe('unchecked');
  });

  it('is not asked of what was moved since it was judged', () => {
    const moved = moveStrums(SONG, 'a', new Set(['s1']), 240);
    expect(open(ask(moved, judged(MISHEARD), SONG))).toEqual([]);
  });

  it('is also what is heard where nothing is written, until something is', () => {
    const extra: ExtraStrum = {
      ...{ id: 'v/1/+960', sectionId: 'v', pass: 1, ticks: 960, timeS: 4.5, doubt: 0.7, settled: null },
      heard: { timeS: 4.5, endS: 4.9, midi: [45, 52], palmMuted: false, dead: false },
    };
    const judgement = { ...judged(), extra: [extra] };
    const questions = ask(SONG, judgement);
    expect(open(questions)).toEqual(['v/1/+960']);
    expect(questions.findIndex((q) => q.id === 'v/1/+960')).toBe(4);
    const [riff] = SONG.riffs;
    const written = {
      ...SONG,
      riffs: [{ ...riff, strums: [...riff.strums, { ...riff.strums[0], id: 'n', startTicks: 960 }] }],
    };
    expect(open(ask(written, judgement, SONG))).toEqual([]);
    expect(open(ask({ ...SONG, sections: [] }, judgement, SONG))).toEqual([]);
    expect(open(ask({ ...SONG, riffs: [{ ...riff, strums: [] }] }, judgement, SONG))).toEqual([]);
  });
});

describe('the same question elsewhere', () => {
  it('is asked in the other passes, also where the riff is moved', () => {
    const questions = ask(SONG, judged(MISHEARD));
    expect(sameElsewhere(questions[1], questions).map((q) => q.id)).toEqual(['v/1/s1', 'c/0/s1']);
  });

  it('is another one where something else is heard', () => {
    const questions = ask(SONG, judged({ ...MISHEARD, 'v/1/s1': clash([50, 57]) }));
    expect(sameElsewhere(questions[1], questions).map((q) => q.id)).toEqual(['c/0/s1']);
  });

  it('stands at the same place of every pass', () => {
    const questions = ask(SONG, judged());
    expect(inOtherPasses(questions[1], questions).map((q) => q.id)).toEqual([
      'v/0/s1',
      'v/1/s1',
      'c/0/s1',
      'c/1/s1',
    ]);
  });
});
