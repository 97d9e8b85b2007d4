import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addRiff, setBarNote } from './riff-edit';
import { PLAIN_SONG } from './document';
import { barTimesS } from './grid';
import { layTapped, tappedBeats, type Tapped } from './tapped';
import { SONG, timesOf } from './test-grid-song';

/** Attacks on the beats and between them, of a band that slows down. */
const BEATS = Array.from({ length: 80 }, (_, i) => 2 + 0.5 * i + 0.0008 * i * i);
const ONSETS = BEATS.flatMap((t, i) => (i + 1 < BEATS.length ? [t, (t + BEATS[i + 1]) / 2] : [t]));
const DURATION_S = BEATS[79] + 0.3;

const farthest = (beats: readonly number[], truth: readonly number[]): number =>
  Math.max(...beats.map((t) => Math.min(...truth.map((b) => Math.abs(b - t)))));

describe('taps', () => {
  it('mean the attacks beside them: late by habit, scattered, and with the drift of the band', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.08, max: 0.08, noNaN: true }),
        fc.array(fc.double({ min: -0.035, max: 0.035, noNaN: true }), { minLength: 16, maxLength: 16 }),
        (habit, scatter) => {
          const taps = scatter.map((s, i) => BEATS[i + 8] + habit + s);
          const beats = tappedBeats(taps, ONSETS)!;
          expect(beats).toHaveLength(16);
          beats.forEach((t, i) => expect(t).toBeCloseTo(BEATS[i + 8], 6));
        },
      ),
      { seed: 19, numRuns: 60 },
    );
  });

  it('that were missed are filled in, and a bounce of the finger is one tap', () => {
    const taps = BEATS.slice(4, 14).filter((_, i) => i !== 5);
    taps.push(taps.at(-1)! + 0.05);
    expect(tappedBeats(taps, ONSETS)).toHaveLength(10);
  });

  it.each(Array.from({ length: 12 }, (_, k) => k))('are no worse when tap %i hesitates', (late) => {
    for (const delayS of [0.2, 0.25, 0.3]) {
      const taps = BEATS.slice(8, 20).map((t, k) => t + 0.04 + (k === late ? delayS : 0));
      const beats = tappedBeats(taps, ONSETS)!;
      expect(beats[0]).toBeCloseTo(BEATS[8], 6);
      expect(beats.length).toBeGreaterThanOrEqual(11);
      expect(farthest(beats, BEATS)).toBeLessThan(0.03);
      expect(farthest(BEATS.slice(8, 19), beats)).toBeLessThan(0.03);
    }
  });

  it('are evened out where nothing sounds', () => {
    const beats = tappedBeats([10.02, 10.49, 11.01, 11.52, 11.98, 12.5], [])!;
    expect(farthest(beats, [10, 10.5, 11, 11.5, 12, 12.5])).toBeLessThan(0.03);
  });

  it('say nothing when they are fewer than four', () => {
    expect(tappedBeats([1, 2, 3], ONSETS)).toBeNull();
    expect(tappedBeats([1, 1, 1, 1], ONSETS)).toBeNull();
  });
});

const TAPPED: Tapped = {
  beatsS: BEATS.slice(8, 16),
  meter: { beats: 4, unit: 4 },
  rest: 'keeps',
  onsetsS: ONSETS,
  durationS: DURATION_S,
};

describe('tapped beats', () => {
  it('are followed through the whole recording, as it drifts', () => {
    const { grid } = layTapped(PLAIN_SONG, { ...TAPPED, rest: 'follows' });
    const played = grid.beatsS.filter((t) => t > 1.9);
    expect(played.length).toBeGreaterThanOrEqual(80);
    expect(farthest(played.slice(0, 80), BEATS)).toBeLessThan(0.03);
    // The first tap begins a bar, and so does every fourth beat to both sides.
    const lines = barTimesS(grid).filter((t) => t > 1.9);
    expect(
      farthest(
        lines.slice(0, -1),
        BEATS.filter((_, i) => i % 4 === 0),
      ),
    ).toBeLessThan(0.03);
  });

  it('are the beats of their stretch, and the rest keeps its own', () => {
    const tapped = { ...TAPPED, beatsS: Array.from({ length: 9 }, (_, i) => 20 + 0.55 * i), durationS: 41 };
    const { grid } = layTapped(SONG, tapped);
    expect(grid.beatsS.filter((t) => t >= 20 && t <= 24.4)).toEqual(tapped.beatsS);
    expect(grid.beatsS.slice(0, 32)).toEqual(SONG.grid.beatsS.slice(0, 32));
    expect(grid.beatsS.at(-1)).toBe(SONG.grid.beatsS.at(-1));
    grid.beatsS.forEach((t, i) => i > 0 && expect(t - grid.beatsS[i - 1]).toBeGreaterThan(0.2));
    expect(barTimesS(grid).slice(0, 8)).toEqual(barTimesS(SONG.grid).slice(0, 8));
    expect(barTimesS(grid)).toContain(20);
  });

  it('leave written strums where they sound', () => {
    const truth = timesOf(SONG);
    // Heard at two thirds of the tempo: the same song on beats of .4 s.
    const beatsS = Array.from({ length: 16 }, (_, i) => 1 + 0.4 * i);
    const after = layTapped(SONG, { ...TAPPED, rest: 'follows', beatsS, onsetsS: [], durationS: 40 });
    expect(after.riffs[0].bars).toHaveLength(3);
    expect(farthest(timesOf(after), truth)).toBeLessThan(0.06);
    const counted = layTapped(
      SONG,
      { ...TAPPED, beatsS, rest: 'follows', onsetsS: [], durationS: 40 },
      'counts',
    );
    expect(counted.riffs).toBe(SONG.riffs);
  });

  it('keep the notes on bars, two on one where bars come together', () => {
    const noted = [0, 1].reduce((d, bar) => setBarNote(d, 'r', bar, `note ${bar}`, bar === 1), SONG);
    const beatsS = Array.from({ length: 16 }, (_, i) => 1 + 1.2 * i);
    const after = layTapped(noted, { ...TAPPED, rest: 'follows', beatsS, onsetsS: [], durationS: 40 });
    expect(after.riffs[0].barNotes).toEqual([{ bar: 0, text: 'note 0; note 1', todo: true }]);
  });

  it('do nothing to a riff that nothing plays', () => {
    const spare = addRiff(SONG, 'spare', 2);
    expect(layTapped(spare, { ...TAPPED, rest: 'follows' }).riffs[1]).toBe(spare.riffs[1]);
  });
});
