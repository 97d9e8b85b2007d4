import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../guitar';
import { AS_WRITTEN, fifth, heardAs, RIFF } from './test-riff';
import { strumsAsHeard } from './write';

/** Its bars, before anything is written in them. */
const EMPTY = { ...RIFF, strums: [] };

describe('a riff from what was heard', () => {
  it('is on the grid, in one fingering, to be checked', () => {
    let n = 0;
    const strums = strumsAsHeard(EMPTY, AS_WRITTEN, STANDARD_TUNING, () => `h${n++}`);
    expect(strums.map((s) => s.startTicks)).toEqual(RIFF.strums.map((s) => s.startTicks));
    expect(strums.map((s) => s.palmMute)).toEqual(RIFF.strums.map((s) => s.palmMute));
    expect(strums.map((s) => s.dead)).toEqual(RIFF.strums.map((s) => s.dead));
    expect(strums[3].frets).toEqual(fifth(5));
    expect(strums.every((s) => s.trust === 'heard')).toBe(true);
  });

  it('puts triplets on thirds, and two strokes on one place once', () => {
    const ids = (): string => 'x';
    const ticks = (...at: number[]): number[] =>
      strumsAsHeard(
        EMPTY,
        at.map((t) => heardAs(t, 43)),
        STANDARD_TUNING,
        ids,
      ).map((s) => s.startTicks);
    expect(ticks(0, 322, 638)).toEqual([0, 320, 640]);
    // A single stroke on a third may as well be late: it stands on the sixteenth.
    expect(ticks(322)).toEqual([240]);
    expect(ticks(5, 20, 475)).toEqual([0, 480]);
  });

  it('calls a guess what was hardly heard', () => {
    const heard = [heardAs(0, 43, { confidence: 0.44 }), heardAs(960, 43, { confidence: 0.5 })];
    const strums = strumsAsHeard(EMPTY, heard, STANDARD_TUNING, () => 'x');
    expect(strums.map((s) => s.trust)).toEqual(['guessed', 'heard']);
  });

  it('leaves what was checked by ear as it is, and puts nothing beside it', () => {
    const [checked, ...rest] = RIFF.strums;
    const riff = { ...RIFF, strums: [checked, ...rest.map((s) => ({ ...s, trust: 'heard' as const }))] };
    const heard = [heardAs(20, 45), heardAs(100, 45), heardAs(960, 45)];
    const strums = strumsAsHeard(riff, heard, STANDARD_TUNING, () => 'x');
    expect(strums[0]).toBe(checked);
    expect(strums.slice(1).map((s) => s.startTicks)).toEqual([960]);
  });

  it('leaves blank what the tuning can not play', () => {
    const [low, fits] = strumsAsHeard(EMPTY, [heardAs(0, 30), heardAs(960, 43)], STANDARD_TUNING, () => 'x');
    expect(low).toMatchObject({ startTicks: 0, frets: [], dead: false });
    expect(fits.frets).toEqual(fifth(3));
  });

  it('lets a strum sound as long as it was heard, at least a sixteenth, not over the end of the riff', () => {
    const lengths = [
      heardAs(0, 43, { endTicks: 700 }),
      heardAs(960, 43, { endTicks: 970 }),
      heardAs(7440, 43, { endTicks: 9000 }),
    ];
    const strums = strumsAsHeard(EMPTY, lengths, STANDARD_TUNING, () => 'x');
    expect(strums.map((s) => s.durationTicks)).toEqual([720, 240, 240]);
  });
});
