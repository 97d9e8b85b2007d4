import { describe, expect, it } from 'vitest';
import type { SongSummary } from '@wild-needle/contract';
import { dueWords, hoursAndMinutes, nextStep, nextWords } from './shelf-words';

const SONG: SongSummary = {
  ...{
    id: '',
    title: '',
    artist: '',
    updatedAt: '',
    revision: 1,
    durationS: null,
    tuningLabel: '',
    tempoBpm: null,
  },
  ...{ checkedStrums: 0, strums: 12, riffs: 2, tags: [], recordings: [], dueOn: null, job: null },
  bars: [
    { name: 'Verse', bars: 8, checkedBars: 8 },
    { name: 'Bridge', bars: 4, checkedBars: 0 },
  ],
  steps: { tuning: 1, sections: 1, riffs: 1, check: 1, sheet: 1, practice: 1 },
  namedSections: 1,
  unwritten: 'Bridge',
  toSettle: 26,
  slowest: { name: 'Solo', bpm: 92, ofBpm: 118 },
};

describe('what is next', () => {
  it.each([
    ['tuning', 'as it was heard, no strum checked'],
    ['sections', '1 of 2 named'],
    ['riffs', 'Bridge not written'],
    ['check', '26 to settle'],
    ['sheet', 'changed since it was taken away'],
    ['practice', 'Solo at 92 of 118'],
  ] as const)('is %s: %s', (step, missing) => {
    const song = { ...SONG, steps: { ...SONG.steps, [step]: 0.5 } };
    expect(nextStep(song)).toBe(step);
    expect(nextWords(song).missing).toBe(missing);
  });

  it('is the first in the order of the work, or nothing', () => {
    expect(nextStep({ steps: { ...SONG.steps, practice: 0, check: 0 } })).toBe('check');
    expect(nextWords(SONG)).toEqual({ step: 'All done', missing: '' });
  });
});

it('says hours and minutes', () => {
  expect([0, 59, 12 * 60, 16_200].map(hoursAndMinutes)).toEqual(['0 min', '1 min', '12 min', '4 h 30 min']);
});

it('says when somebody waits for it', () => {
  const now = new Date(2026, 10, 11, 22, 30);
  expect(dueWords('2026-11-12', now)).toEqual({ soon: 'tomorrow', date: 'Thu 12' });
  expect(dueWords('2026-11-11', now).soon).toBe('today');
  expect(dueWords('2026-11-09', now).soon).toBe('overdue');
  expect(dueWords('2026-12-20', now)).toEqual({ soon: '', date: '20 December' });
  expect(dueWords(null, now).date).toBe('no date');
});
