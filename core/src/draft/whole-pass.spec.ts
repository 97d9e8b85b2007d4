import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../guitar';
import { isEnding, riffTicks } from '../riff';
import { comparePass } from './compare';
import type { HeardStroke } from './place';
import { AS_WRITTEN, fifth, heardAs, RIFF, withAt, without } from './test-riff';
import { wholeMoveOf, wholePassVariation, type WholeMove } from './whole-pass';

const moved = ({ semitones, ticks }: WholeMove, strokes = AS_WRITTEN): HeardStroke[] =>
  strokes.map((s) => ({
    ...s,
    ticks: s.ticks + ticks,
    endTicks: s.endTicks + ticks,
    midi: s.midi.map((note) => note + semitones),
  }));
const found = (strokes: readonly HeardStroke[]): WholeMove | null =>
  wholeMoveOf(RIFF, strokes, STANDARD_TUNING);
const variation = (move: WholeMove) => {
  let n = 0;
  const [id, name, note] = ['v', 'Moved', 'one stroke before'];
  return wholePassVariation(RIFF, move, STANDARD_TUNING, { id, name, note, newId: () => `v${n++}` });
};

describe('a pass that is the riff moved as a whole', () => {
  it.each<WholeMove>([
    { semitones: 2, ticks: 0 },
    { semitones: -3, ticks: 0 },
    { semitones: 5, ticks: 0 },
    { semitones: 0, ticks: -480 },
    { semitones: 0, ticks: 480 },
    { semitones: 0, ticks: -240 },
  ])('is told as such: %o', (move) => {
    expect(found(moved(move))).toEqual(move);
    // One strum that is misheard does not hide it.
    expect(found(moved(move).with(3, { ...moved(move)[3], midi: [48, 55] }))).toEqual(move);
    // And as a variation it is what was heard.
    const strums = variation(move).strums;
    const heard = moved(move).filter(({ ticks }) => ticks > -200 && ticks < riffTicks(RIFF) - 200);
    expect(comparePass({ ...RIFF, strums }, heard, STANDARD_TUNING).differences).toEqual([]);
  });

  it('is nothing else: as written, other chords here and there, half of it, or hardly heard', () => {
    expect(found(AS_WRITTEN)).toBeNull();
    expect(found(withAt(3, { midi: [48, 55] }))).toBeNull();
    expect(found(without(4, 5))).toBeNull();
    expect(found(moved({ semitones: 2, ticks: 0 }).slice(0, 3))).toBeNull();
    expect(found([40, 46, 41, 47, 44, 42].map((low, i) => heardAs(960 * i, low)))).toBeNull();
    expect(found([])).toBeNull();
  });

  it('keeps the shapes, and notes what sounds beyond its edge', () => {
    const up = variation({ semitones: 2, ticks: 0 });
    expect(up.strums[0]).toMatchObject({ frets: fifth(5), trust: 'heard', note: '' });
    expect(isEnding(RIFF, up)).toBe(true);
    const early = variation({ semitones: 0, ticks: -480 });
    expect(early.strums.map((s) => s.startTicks)).toEqual([480, 1440, 2400, 3360, 5280]);
    expect(early.strums[0].note).toBe('one stroke before');
    // Where the neck ends: G5 a fifth down is C5, from the fifth string.
    expect(variation({ semitones: -7, ticks: 0 }).strums[0].frets).toEqual([]);
  });
});
