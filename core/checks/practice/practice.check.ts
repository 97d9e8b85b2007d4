/**
 * Practising against the outside: the schedule against the rules of the Leitner system (Sebastian Leitner, "So lernt man lernen", Herder 1972:
 * a card that is known moves to the next compartment, one that is not goes back to the first, and the compartments come up more and more
 * rarely; from memory, the doubling of their intervals is common practice), and the figures of a round against `d3-array`.
 */
import { deviation, mean } from 'd3-array';
import { describe, expect, it } from 'vitest';
import { judgeTake, placeTake, recordOf, type LoggedRound } from '../../src/practice';
import { createRandom, gaussian } from '../../src/units';

const day = (n: number, answer: 'clean' | 'slip'): LoggedRound[] => [
  { day: n, item: 'i', percent: 80, answer, seconds: 10, isWhole: true },
];

describe('the Leitner system', () => {
  // A card by hand, compartment by compartment: known, known, known, not known, known.
  it.each([
    [[[0, 'clean']], 1],
    [
      [
        [0, 'clean'],
        [1, 'clean'],
      ],
      2,
    ],
    [
      [
        [0, 'clean'],
        [1, 'clean'],
        [3, 'clean'],
      ],
      4,
    ],
    [
      [
        [0, 'clean'],
        [1, 'clean'],
        [3, 'clean'],
        [7, 'slip'],
      ],
      1,
    ],
    [
      [
        [0, 'clean'],
        [1, 'clean'],
        [3, 'clean'],
        [7, 'slip'],
        [8, 'clean'],
      ],
      2,
    ],
  ] as const)('after %j is due in %i days', (answers, dueInDays) => {
    const rounds = answers.flatMap(([at, answer]) => day(at, answer));
    expect(recordOf(rounds, answers.at(-1)![0]).dueInDays).toBe(dueInDays);
  });
});

it('mean and spread of a round are those of d3-array', () => {
  const random = createRandom(8);
  const written = Array.from({ length: 40 }, (_, i) => ({
    ...{ timeS: 1 + i / 3, endS: 1 + (i + 1) / 3, midi: [40, 47], palmMuted: false, dead: false },
  }));
  const offsets = written.map(() => 0.012 + 0.015 * gaussian(random));
  const delayS = 0.05;
  const heard = written.map((w, i) => ({ timeS: w.timeS + delayS + offsets[i] - 0.004, probability: 0.95 }));
  const samples = new Float32Array(22_050 * 16).fill(0.1);
  const placed = placeTake(written, { samples, sampleRate: 22_050, beatsS: [], delayS }, heard);
  const evidence = placed.played.map(() => ({
    ...{ notes: 0.9, struck: 1, kind: 0.9, offsetS: 0, cover: null, elsewhere: null, heard: null },
  }));
  const { summary } = judgeTake(written, placed, { strums: evidence, extra: [] });
  expect(summary.played).toBe(40);
  expect(summary.meanOffsetS).toBeCloseTo(mean(offsets)!, 9);
  // d3 divides by one less than there are.
  expect(summary.spreadS).toBeCloseTo(deviation(offsets)! * Math.sqrt(39 / 40), 9);
});
