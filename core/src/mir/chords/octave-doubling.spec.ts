import { describe, expect, it } from 'vitest';
import { CHORD_SHAPES } from './chord-shapes.data';
import { BASS_NOTES, SHAPES, LOWEST_BASS } from './chord-network';
import {
  doubtStrings,
  doublingPulls,
  pullDoubling,
  STRINGS_LEAST_WRONG,
  type DoublingPlace,
} from './octave-doubling';

const shape = (notes: readonly number[]): number =>
  CHORD_SHAPES.findIndex((f) => f.notes?.join() === notes.join());
const at = (midi: number, notes: readonly number[]): number => (midi - LOWEST_BASS) * SHAPES + shape(notes);

/** A power chord on E2 with this probability of three strings; `share` of it is a power chord at all. */
function fifth(three: number, share = 1): Float32Array {
  const log = new Float32Array(BASS_NOTES * SHAPES).fill(Math.log(1e-9));
  log[at(40, [0, 7])] = Math.log(share * (1 - three));
  log[at(40, [0, 7, 12])] = Math.log(share * three);
  log[at(40, [0])] = Math.log(1 - share + 1e-9);
  return log;
}
const ringing = (riff: string): DoublingPlace => ({ riff, palmMuted: false });
const muted = (riff: string): DoublingPlace => ({ riff, palmMuted: true });
const threeOf = (log: Float32Array): number =>
  Math.exp(log[at(40, [0, 7, 12])]) / (Math.exp(log[at(40, [0, 7])]) + Math.exp(log[at(40, [0, 7, 12])]));

/** Share of three strings behind the pull of the riffs. */
function pulled(strums: readonly Float32Array[], places: readonly DoublingPlace[]): number[] {
  const pulls = doublingPulls(strums, places);
  return strums.map((s, k) => {
    const log = s.slice();
    pullDoubling(log, pulls[k]);
    return threeOf(log);
  });
}

describe('grips of a riff', () => {
  it('lets the strums of a riff decide together what each says faintly', () => {
    const strums = [0.7, 0.65, 0.75, 0.4, 0.7, 0.7].map((p) => fifth(p));
    const shares = pulled(
      strums,
      strums.map(() => ringing('A')),
    );
    for (const share of shares) expect(share).toBeGreaterThan(0.5);
  });

  it('keeps what is clear against all others', () => {
    const strums = [...Array.from({ length: 60 }, () => fifth(0.05)), fifth(0.9999)];
    const shares = pulled(
      strums,
      strums.map(() => ringing('A')),
    );
    expect(shares[60]).toBeGreaterThan(0.9);
    expect(shares[0]).toBeLessThan(0.05);
  });

  it('asks each riff for itself, and the muted strums for themselves', () => {
    const strums = [fifth(0.8), fifth(0.8), fifth(0.2), fifth(0.2), fifth(0.5), fifth(0.5)];
    const pulls = doublingPulls(strums, [
      ringing('A'),
      ringing('A'),
      ringing('B'),
      muted('A'),
      ringing('A'),
      ringing('B'),
    ]);
    expect(pulls[4]).toBeGreaterThan(0.5);
    expect(pulls[5]).toBeLessThan(-0.3);
    expect(pulls[3]).toBeLessThan(pulls[2]);
  });

  it('leaves strums outside of all riffs as they are, but for the hand that mutes', () => {
    const strums = [fifth(0.8), fifth(0.8), fifth(0.8)];
    expect(doublingPulls(strums, [ringing(''), ringing(''), muted('')])).toEqual([0, 0, -1]);
  });

  it('hardly asks strums that are no power chords', () => {
    const strums = [fifth(0.95, 0.01), fifth(0.3)];
    expect(doublingPulls(strums, [ringing('A'), ringing('A')])[1]).toBeLessThan(0);
  });

  it('moves nothing but two strings against three', () => {
    const log = fifth(0.4, 0.6);
    const before = log.slice();
    pullDoubling(log, 2);
    const sum = (l: Float32Array): number => Math.exp(l[at(40, [0, 7])]) + Math.exp(l[at(40, [0, 7, 12])]);
    expect(sum(log)).toBeCloseTo(sum(before), 5);
    expect(log[at(40, [0])]).toBe(before[at(40, [0])]);
    expect(threeOf(log)).toBeCloseTo(1 / (1 + Math.exp(-(Math.log(0.4 / 0.6) + 2))), 5);
  });

  it('is never surer of the number of strings than riffs are right', () => {
    const posterior = new Float32Array(BASS_NOTES * SHAPES);
    posterior[at(40, [0, 7, 12])] = 0.95;
    posterior[at(45, [0])] = 0.05;
    doubtStrings(posterior);
    expect(posterior[at(40, [0, 7])]).toBeCloseTo(0.08 * 0.95, 5);
    expect(posterior[at(40, [0, 7, 12])]).toBeCloseTo(0.92 * 0.95, 5);
    expect(posterior[at(45, [0])]).toBeCloseTo(0.05, 6);
  });

  it('tells apart which is surer where that is asked, and stays under what it may be wrong', () => {
    const wrongOf = (plain: number): number => {
      const posterior = new Float32Array(BASS_NOTES * SHAPES);
      posterior[at(40, [0, 7, 12])] = 1 - plain;
      posterior[at(40, [0, 7])] = plain;
      doubtStrings(posterior, STRINGS_LEAST_WRONG);
      return posterior[at(40, [0, 7])];
    };
    expect(wrongOf(0.3)).toBeCloseTo(0.3, 5);
    expect(wrongOf(1e-3)).toBeLessThan(wrongOf(1e-2));
    expect(wrongOf(1e-6)).toBeLessThan(wrongOf(1e-3));
    expect(wrongOf(1e-6)).toBeGreaterThan(STRINGS_LEAST_WRONG);
  });

  it('knows the same grip with a fourth, a flat fifth and a flat sixth', () => {
    for (const above of [5, 6, 8]) {
      const log = new Float32Array(BASS_NOTES * SHAPES).fill(-20);
      log[at(45, [0, above])] = log[at(45, [0, above, 12])] = Math.log(0.5);
      pullDoubling(log, 3);
      expect(log[at(45, [0, above, 12])]).toBeGreaterThan(log[at(45, [0, above])] + 2.9);
    }
  });
});
