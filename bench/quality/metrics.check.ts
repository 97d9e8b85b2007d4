/** The metrics against examples worked by hand from their published definitions (sources in `metrics.ts`). */
import { describe, expect, it } from 'vitest';
import {
  areaUnderCurve,
  brierScore,
  fMeasure,
  matchTimes,
  pairwiseF,
  timesF,
  weightedRecall,
} from './metrics';

describe('onsets within 50 ms, one to one (Böck, Krebs and Schedl 2012)', () => {
  it('count two detections of one onset as one hit and one false alarm', () => {
    // TP 2, FP 1, FN 1: precision 2/3, recall 2/3.
    expect(timesF([1.0, 1.03, 2.04], [1.01, 2.0, 3.0], 0.05)).toBeCloseTo(2 / 3, 12);
  });

  it('count detections just outside of the window as wrong', () => {
    expect(timesF([1.051], [1], 0.05)).toBe(0);
    expect(timesF([1.05], [1], 0.0501)).toBe(1);
  });

  it('pair as many as possible', () => {
    // Nearest first would pair 1.04 with 1.05 and leave 1.0 and 1.09 without partners.
    expect(matchTimes([1.04, 1.09], [1.0, 1.05], 0.05)).toEqual([
      [0, 0],
      [1, 1],
    ]);
  });
});

describe('beats within 70 ms (Davies, Degara and Plumbley 2009)', () => {
  const beats = Array.from({ length: 8 }, (_, i) => i / 2);

  it('give two thirds for a track at twice the tempo', () => {
    // All 8 are hit, 8 of 16 are right: 2 · 8 / (16 + 8).
    const double = Array.from({ length: 16 }, (_, i) => i / 4);
    expect(timesF(double, beats, 0.07)).toBeCloseTo(2 / 3, 12);
  });

  it('give nothing for a track half a beat off', () => {
    expect(
      timesF(
        beats.map((t) => t + 0.25),
        beats,
        0.07,
      ),
    ).toBe(0);
  });
});

describe('F-measure', () => {
  it('is the harmonic mean of precision and recall', () => {
    const [precision, recall] = [6 / 8, 6 / 10];
    expect(fMeasure(6, 8, 10)).toBeCloseTo((2 * precision * recall) / (precision + recall), 12);
  });
});

describe('weighted chord symbol recall (Harte 2010)', () => {
  it('is the share of time with the right chord', () => {
    const truth = [
      { startS: 0, endS: 3, label: 'E5' },
      { startS: 3, endS: 4, label: 'G5' },
    ];
    const heard = [
      { startS: 0, endS: 2, label: 'E5' },
      { startS: 2, endS: 4, label: 'G5' },
    ];
    expect(weightedRecall(heard, truth)).toBe(0.75);
  });
});

describe('pairwise frames (Levy and Sandler 2008)', () => {
  const truth = [
    { startS: 0, endS: 10, label: 'verse' },
    { startS: 10, endS: 20, label: 'chorus' },
  ];

  it('do not mind what labels are called', () => {
    expect(
      pairwiseF(
        [
          { ...truth[0], label: 'A' },
          { ...truth[1], label: 'B' },
        ],
        truth,
      ),
    ).toBeCloseTo(1, 12);
  });

  it('give two thirds when two equal parts are taken for one', () => {
    // 2 · C(n/2, 2) true pairs among C(n, 2) claimed: precision about 1/2, recall 1.
    expect(pairwiseF([{ startS: 0, endS: 20, label: 'A' }], truth)).toBeCloseTo(2 / 3, 2);
  });
});

describe('the area under the curve (Hanley and McNeil 1982)', () => {
  it('is .893 for the 109 CT images that they rate by hand', () => {
    // Table 1, from memory: ratings 1 (definitely normal) to 5 (definitely abnormal).
    const rated = (counts: readonly number[]): number[] =>
      counts.flatMap((count, i) => Array<number>(count).fill(i + 1));
    expect(areaUnderCurve(rated([3, 2, 2, 11, 33]), rated([33, 6, 6, 11, 2]))).toBeCloseTo(0.893, 3);
  });

  it('is one half for an answer that is always the same', () => {
    expect(areaUnderCurve([0.3, 0.3], [0.3])).toBe(0.5);
  });
});

describe('the score of Brier (1950)', () => {
  it('is .19 for the ten forecasts of rain that he works through, summed over both outcomes', () => {
    // Table 1, from memory: it rained on the second, third and fourth occasion.
    const said = [0.7, 0.9, 0.8, 0.4, 0.2, 0, 0, 0, 0, 0.1];
    const rained = said.map((_, i) => i >= 1 && i <= 3);
    expect(2 * brierScore(said, rained)).toBeCloseTo(0.19, 12);
  });
});
