import { describe, expect, it } from 'vitest';
import { addChord, RATE } from '../test-sounds';
import { findNoteReleases } from './note-release';

describe('the release of a note', () => {
  it('is where the sound has gone, at the latest with the next strum', () => {
    const out = new Float32Array(4 * RATE);
    addChord(out, 0.5, 0.8, [45, 52]);
    addChord(out, 2, 1.9, [45, 52]);
    const [first, second] = findNoteReleases(out, RATE, [
      { timeS: 0.5, endS: 2 },
      { timeS: 2, endS: 3 },
    ]);
    expect(Math.abs(first - 1.3)).toBeLessThan(0.05);
    expect(second).toBe(3);
  });
});
