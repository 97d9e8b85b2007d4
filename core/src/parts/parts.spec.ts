import { describe, expect, it } from 'vitest';
import { gainsOf, setLevel, toggleAlone, toggleSilent, WHOLE_BAND } from './part-mix';
import { missingParts, powersOf } from './missing';
import {
  interleaveParts,
  KEPT_SAMPLES,
  MARGIN_S,
  PIECE_S,
  pieceCount,
  pieceOrder,
  piecesOf,
  SEPARATION_RATE,
  windowStart,
} from './pieces';

describe('how loud the parts are', () => {
  it('is the recording at first', () => {
    expect(gainsOf(WHOLE_BAND)).toEqual({ drums: 1, bass: 1, voice: 1, guitars: 1 });
  });

  it('leaves out what is silent, and all but what is alone, also where that is silent', () => {
    const quiet = toggleSilent(toggleSilent(WHOLE_BAND, 'voice'), 'drums');
    expect(quiet.silent).toEqual(['drums', 'voice']);
    expect(gainsOf(quiet)).toEqual({ drums: 0, bass: 1, voice: 0, guitars: 1 });
    const alone = toggleAlone(quiet, 'drums');
    expect(gainsOf(alone)).toEqual({ drums: 1, bass: 0, voice: 0, guitars: 0 });
    expect(toggleAlone(alone, 'drums')).toEqual(quiet);
    expect(toggleSilent(quiet, 'drums').silent).toEqual(['voice']);
  });

  it('is a factor of decibels, between what is heard and what clips', () => {
    expect(gainsOf(setLevel(WHOLE_BAND, 'drums', -20)).drums).toBeCloseTo(0.1, 9);
    expect(setLevel(WHOLE_BAND, 'bass', 99).levelsDb.bass).toBe(6);
    expect(setLevel(WHOLE_BAND, 'bass', -99).levelsDb.bass).toBe(-40);
  });
});

describe('the pieces of a recording', () => {
  it('are taken apart from the loop on, then from the start, each once', () => {
    expect(pieceCount(25)).toBe(5);
    expect(pieceOrder(5, 13)).toEqual([2, 3, 4, 0, 1]);
    expect(pieceOrder(5, 900)).toEqual([4, 0, 1, 2, 3]);
    expect(pieceCount(0.5)).toBe(1);
  });

  it('follow each other without a gap, their margins over each other', () => {
    const [from, to] = [0, 1].map((i) => windowStart(i));
    expect(to - from).toBe(PIECE_S * SEPARATION_RATE);
    const kept = (i: number): [number, number] => [
      windowStart(i) + KEPT_SAMPLES.from,
      windowStart(i) + KEPT_SAMPLES.to,
    ];
    expect(kept(0)[0]).toBe(-MARGIN_S * SEPARATION_RATE);
    expect(kept(0)[1] - kept(1)[0]).toBe(2 * MARGIN_S * SEPARATION_RATE);
  });

  it('that a stretch needs are those around it', () => {
    expect(piecesOf(0, 48_000, 48_000)).toEqual([0]);
    expect(piecesOf(5.95 * 48_000, 6.1 * 48_000, 48_000)).toEqual([0, 1]);
    expect(piecesOf(6.1 * 48_000, 12.1 * 48_000, 48_000)).toEqual([1, 2]);
  });

  it('have whole samples at every rate that is played', () => {
    for (const rate of [44_100, 48_000, 24_000, 22_050, 12_000, 11_025]) {
      expect(Number.isInteger(MARGIN_S * rate)).toBe(true);
    }
  });

  it('are stored with a sample of each channel after the other', () => {
    const one = (v: number): readonly [Float32Array, Float32Array] => [
      Float32Array.of(v / 32768),
      Float32Array.of(-v / 32768),
    ];
    const stored = interleaveParts({ drums: one(100), bass: one(200), voice: one(300), guitars: one(400) });
    expect([...stored]).toEqual([100, -100, 200, -200, 300, -300, 400, -400]);
  });
});

describe('a part that the band does not have', () => {
  const quiet = { drums: 1, bass: 1, voice: 1, guitars: 100 };

  it('is one that is quieter than what the engine leaks, over the whole song', () => {
    expect(missingParts([quiet], { drums: -10, bass: -25 })).toEqual(['drums']);
    const loud = { ...quiet, drums: 100 };
    expect(missingParts([quiet, quiet, loud], { drums: -10, bass: -25 })).toEqual([]);
  });

  it('is not told of a part whose leakage says nothing, nor of silence', () => {
    expect(missingParts([quiet], {})).toEqual([]);
    expect(missingParts([{ drums: 0, bass: 0, voice: 0, guitars: 0 }], { drums: -10 })).toEqual([]);
  });

  it('is measured of both channels of each part', () => {
    expect(powersOf(Int16Array.of(1, 2, 0, 3, 4, 0, 0, 0, 1, 0, 0, 0, 0, 0, 5, 5))).toEqual({
      drums: 6,
      bass: 9,
      voice: 16,
      guitars: 50,
    });
  });
});
