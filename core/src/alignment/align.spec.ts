import { describe, expect, it } from 'vitest';
import { createRandom } from '../units';
import { addChord, RATE } from '../mir/test-sounds';
import { align } from './align';
import type { MonoSignal } from './sound-features';
import { timeMapOf } from './time-map';

/** Chords of four seeded progressions, `secondsEach`. */
function played(seed: number, secondsEach: number, leadS = 0, up = 0): MonoSignal {
  const random = createRandom(seed);
  const chords = Array.from({ length: 48 }, () => 40 + Math.floor(random() * 12) + up);
  const noise = createRandom(seed + leadS);
  const samples = new Float32Array(Math.ceil((leadS + 48 * secondsEach + 1) * RATE)).map(
    () => 0.004 * (noise() - 0.5),
  );
  chords.forEach((root, n) =>
    addChord(samples, leadS + n * secondsEach, secondsEach, [root, root + 7, root + 12]),
  );
  return { samples, sampleRate: RATE };
}
const lengthS = ({ samples }: MonoSignal): number => samples.length / RATE;

describe('another recording', () => {
  const reference = played(1, 0.5);

  it('is laid along the reference to 20 ms: later, slower and in another key', () => {
    const other = played(1, 0.54, 3, 2);
    const result = align(reference, other);
    if ('unrelated' in result) throw new Error('they are the same song');
    expect(result.semitones).toBe(2);
    const map = timeMapOf(result, { referenceS: lengthS(reference), otherS: lengthS(other) });
    for (let n = 4; n < 44; n++) {
      expect(Math.abs(map.toOther(n * 0.5) - (3 + n * 0.54))).toBeLessThan(0.02);
    }
  });

  it('that is another song is told, not bent', () => {
    expect(align(reference, played(9, 0.47))).toMatchObject({ unrelated: true });
  });

  it('that is silent, or too short for anything, is told too', () => {
    expect(align(reference, { samples: new Float32Array(20 * RATE), sampleRate: RATE })).toMatchObject({
      unrelated: true,
    });
    expect(align(reference, { samples: new Float32Array(100), sampleRate: RATE })).toMatchObject({
      unrelated: true,
    });
  });
});
