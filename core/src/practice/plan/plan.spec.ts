import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { strumsInPasses, type SongDocument } from '../../riff';
import { SONG } from '../../riff/test-grid-song';
import { difficultyOf, measureDifficulty, totalOf } from './difficulty';
import { practiceItems } from './items';
import { bestCleanPercent, byWeek, LEITNER_DAYS, practisedDays, recordOf, type LoggedRound } from './log';
import { writeLogCsv } from '../log-table';
import { planOf } from './plan';
import { answerRound, DEFAULT_STAIR, standOn, stepsOf } from './stair';
import { isWhole, planRound, WAYS } from './ways';

const round = (day: number, over: Partial<LoggedRound> = {}): LoggedRound => ({
  ...{ day, item: 'riff:r', percent: 60, answer: 'clean', seconds: 30, isWhole: true, ...over },
});
const thrice = (day: number, percent: number): LoggedRound[] => [1, 2, 3].map(() => round(day, { percent }));

describe('what of a song can be practised', () => {
  it('is each riff at each height, the turns between them, and the whole', () => {
    expect(practiceItems(SONG).map((i) => [i.id, i.startBar, i.bars])).toEqual([
      ['riff:r', 0, 2],
      ['turn:r>r+2', 7, 2],
      ['riff:r+2', 8, 2],
      ['song', 0, 12],
    ]);
    const [riff] = practiceItems(SONG);
    expect(riff.startS).toBeCloseTo(1, 9);
    expect(riff.endS).toBeCloseTo(1 + 8 * 0.6, 9);
    expect(riff.bpm).toBeCloseTo(100, 6);
  });

  it('is nothing while no section plays what is written, and no turn where the song pauses between', () => {
    expect(practiceItems({ ...SONG, sections: [] })).toEqual([]);
    const [first, second] = SONG.sections;
    const apart: SongDocument = { ...SONG, sections: [first, { ...second, startBar: 10 }] };
    expect(practiceItems(apart).filter((i) => i.kind === 'turn')).toEqual([]);
  });
});

describe('difficulty', () => {
  const strums = strumsInPasses(SONG).filter((s) => s.pass.index === 0 && s.section.id === 's');

  it('measures strokes, the way of the hand, the stretch and the strings crossed', () => {
    const measures = measureDifficulty(strums, 4.8);
    expect(measures.strokesHz).toBeCloseTo(5 / 4.8, 9);
    expect(measures.crossingsHz).toBe(0);
    expect(measures.stretchMm).toBe(0);
    // From fret 1 to 4, by the rule of the twelfth root on 647.7 mm: 118.3 - 18.2; the open string leaves the hand where it is.
    expect(measures.shiftMmPerS).toBeCloseTo(100.1 / 4.8, 1);
  });

  it('grows with the tempo and stays within its ends', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 20, noNaN: true }), (seconds) => {
        const slow = difficultyOf(measureDifficulty(strums, seconds));
        const fast = difficultyOf(measureDifficulty(strums, seconds / 2));
        expect(totalOf(fast)).toBeGreaterThanOrEqual(totalOf(slow));
        for (const one of Object.values(fast)) expect(one >= 0 && one <= 5).toBe(true);
      }),
    );
  });
});

describe('the stair', () => {
  const after = (answers: string, from = 60, slipsBack = 3) =>
    answers
      .split('')
      .reduce(
        (state, a) => answerRound(state, { ...DEFAULT_STAIR, slipsBack }, a === 'c' ? 'clean' : 'slip'),
        standOn(from),
      );

  // Answers, percent before; percent, clean rounds and slips after.
  it.each([
    ['', 60, 60, 0, 0],
    ['c', 60, 60, 1, 0],
    ['cc', 60, 60, 2, 0],
    ['ccc', 60, 65, 0, 0],
    ['ccs', 60, 60, 1, 1],
    ['ccsc', 60, 60, 2, 0],
    ['ccscc', 60, 65, 0, 0],
    ['s', 80, 80, 0, 1],
    ['ss', 80, 80, 0, 2],
    ['sss', 80, 75, 0, 0],
    ['sss', 60, 60, 0, 0],
    ['sscss', 80, 80, 0, 2],
    ['ccc', 95, 100, 0, 0],
    ['ccccc', 100, 100, 3, 0],
  ])(
    'after "%s" from %i per cent stands at %i with %i clean and %i slips',
    (answers, from, percent, clean, slips) => {
      expect(after(answers, from)).toEqual({ percent, clean, slips });
    },
  );

  it('without a step back only takes clean rounds away', () => {
    expect(after('ssssss', 80, 0)).toEqual({ percent: 80, clean: 0, slips: 6 });
  });

  it('has its last step at the top, whatever the height of a step', () => {
    expect(stepsOf({ ...DEFAULT_STAIR, byPercent: 15 })).toEqual([60, 75, 90, 100]);
    expect(stepsOf(DEFAULT_STAIR)).toHaveLength(9);
  });
});

describe('ways to practise', () => {
  const so = { bars: 4, percent: 80, rounds: 0, clean: 0, chance: 0 };

  it('put a bar at full speed between slow rounds, another one each time', () => {
    const bursts = [0, 1, 2, 3, 4, 5].map((rounds) => planRound('bursts', { ...so, rounds }));
    expect(bursts.map((r) => [r.fromBar, r.bars, r.percent])).toEqual([
      [0, 4, 80],
      [0, 4, 80],
      [0, 1, 100],
      [0, 4, 80],
      [0, 4, 80],
      [1, 1, 100],
    ]);
  });

  it('chain backwards: the last bar first, one more after each clean round', () => {
    const chained = [0, 1, 2, 3, 9].map((clean) => planRound('backwards', { ...so, clean }));
    expect(chained.map((r) => [r.fromBar, r.bars])).toEqual([
      [3, 1],
      [2, 2],
      [1, 3],
      [0, 4],
      [0, 4],
    ]);
  });

  it('stay within the part, whatever the chance', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...WAYS),
        fc.record({
          bars: fc.integer({ min: 1, max: 40 }),
          percent: fc.constantFrom(60, 100),
          rounds: fc.nat(100),
          clean: fc.nat(100),
          chance: fc.double({ min: 0, max: 1, noNaN: true }),
        }),
        (way, soFar) => {
          const { fromBar, bars } = planRound(way, soFar);
          expect(fromBar >= 0 && bars >= 1 && fromBar + bars <= soFar.bars).toBe(true);
        },
      ),
    );
    expect(isWhole(planRound('whole', so), 4)).toBe(true);
    expect(isWhole(planRound('random', so), 4)).toBe(false);
  });
});

describe('the log', () => {
  it('counts a step as reached when as many rounds were clean at it or above as the stair wants', () => {
    const rounds = [...thrice(0, 70), round(0, { percent: 80 }), round(0, { percent: 75 })];
    expect(bestCleanPercent(rounds)).toBe(70);
    expect(bestCleanPercent([...rounds, round(0, { percent: 90, answer: 'slip' })])).toBe(70);
    expect(bestCleanPercent([...rounds, round(0, { percent: 90, isWhole: false })])).toBe(70);
    expect(bestCleanPercent([...rounds, round(0, { percent: 85 })])).toBe(75);
    expect(bestCleanPercent([])).toBeNull();
  });

  it('says what is due: never played, kept clean over longer and longer, or slipped', () => {
    expect(recordOf([], 9)).toEqual({ bestPercent: null, lastDay: null, dueInDays: null });
    expect(recordOf(thrice(5, 70), 5)).toEqual({ bestPercent: 70, lastDay: 5, dueInDays: 1 });
    const kept = [5, 6, 8, 12, 20].flatMap((day) => thrice(day, 70));
    expect(recordOf(kept, 20).dueInDays).toBe(16);
    const slipped = [...kept, round(36, { answer: 'slip' })];
    expect(recordOf(slipped, 37).dueInDays).toBe(0);
    // Played before its day: no test of how long it lasts.
    expect(
      recordOf([...thrice(5, 70), ...thrice(5, 75), ...thrice(6, 80), ...thrice(7, 80)], 7).dueInDays,
    ).toBe(2);
    expect(recordOf([round(5, { answer: null })], 6).dueInDays).toBeNull();
  });

  it('has a day for each, with the minutes of everything and the tempo of one part', () => {
    const rounds = [...thrice(3, 70), round(3, { item: 'song', seconds: 90 }), ...thrice(5, 75)];
    expect(practisedDays(rounds, 'riff:r', 6, 4)).toEqual([
      { day: 3, minutes: 3, bestPercent: 70 },
      { day: 4, minutes: 0, bestPercent: null },
      { day: 5, minutes: 1.5, bestPercent: 75 },
      { day: 6, minutes: 0, bestPercent: null },
    ]);
  });
});

describe('weeks of the log', () => {
  it('sum the minutes and keep the best tempo, the last week up to today', () => {
    const days = Array.from({ length: 10 }, (_, day) => ({
      day,
      minutes: 2,
      bestPercent: day === 4 ? 80 : day === 8 ? 70 : null,
    }));
    expect(byWeek(days)).toEqual([
      { day: 2, minutes: 6, bestPercent: null },
      { day: 9, minutes: 14, bestPercent: 80 },
    ]);
    expect(byWeek([])).toEqual([]);
  });
});

describe('the plan', () => {
  const options = { today: 20, minutes: 20, cleanRounds: 3 };

  it('has riffs only at first, and the turns and the whole when something was played', () => {
    expect(
      planOf(SONG, { ...options, rounds: [] })
        .map((i) => i.id)
        .sort(),
    ).toEqual(['riff:r', 'riff:r+2']);
    const begun = planOf(SONG, { ...options, rounds: [round(19)] });
    expect(begun.map((i) => i.id).sort()).toEqual(['riff:r', 'riff:r+2', 'song', 'turn:r>r+2']);
  });

  it('puts what is due first and gives it the minutes, most to what is hardest and furthest from its tempo', () => {
    const upToTempo = [...thrice(19, 100), ...thrice(19, 100).map((r) => ({ ...r, item: 'song' }))];
    const plan = planOf(SONG, { ...options, rounds: [...upToTempo, round(20, { item: 'riff:r+2' })] });
    expect(plan.findIndex((i) => i.id === 'riff:r+2')).toBeGreaterThan(2);
    const due = plan.filter((i) => i.minutes > 0);
    expect(due.map((i) => i.id)[0]).toBe('turn:r>r+2');
    expect(due[0].minutes).toBeGreaterThan(due[1].minutes);
    expect(due.reduce((sum, i) => sum + i.minutes, 0)).toBeLessThanOrEqual(22);
  });

  it('fits the minutes: with few of them only what needs it most', () => {
    const plan = planOf(SONG, { ...options, minutes: 4, rounds: [round(10)] });
    expect(plan.filter((i) => i.minutes > 0)).toHaveLength(1);
    expect(plan[0].minutes).toBeLessThanOrEqual(4);
  });
});

it('the log is a table that a CSV package reads back, also with commas and quotes in it', () => {
  const row = {
    ...{ at: '2026-02-03T10:00:00.000Z', part: 'Verse, "up"', way: 'whole', percent: 80, bpm: 106 },
    ...{ answer: 'clean', seconds: 4.5, written: 12, played: 11, right: 11, meanMs: 14.2 },
  };
  const { data } = Papa.parse<Record<string, string>>(
    writeLogCsv([row, { ...row, bpm: null, played: null }]).trimEnd(),
    {
      header: true,
    },
  );
  expect(data[0]).toEqual(Object.fromEntries(Object.entries(row).map(([k, v]) => [k, String(v)])));
  expect(data[1]).toMatchObject({ bpm: '', played: '' });
});

it('boxes double (Leitner 1972)', () => {
  expect(LEITNER_DAYS.slice(1).every((days, i) => days === 2 * LEITNER_DAYS[i])).toBe(true);
});
