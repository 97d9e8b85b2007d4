import { describe, expect, it } from 'vitest';
import { estimateReferenceOffset } from './reference-offset';
import { addChord, RATE } from './test-sounds';

/** Chords for `seconds`, each ten seconds at another offset. */
function recording(offsetsCents: readonly number[]): Float32Array {
  const out = new Float32Array(offsetsCents.length * 10 * RATE);
  offsetsCents.forEach((cents, block) => {
    for (let i = 0; i < 5; i++) {
      addChord(
        out,
        10 * block + 2 * i,
        1.9,
        [40, 47, 52, 57].map((m) => m + (i % 3) + cents / 100),
      );
    }
  });
  return out;
}

describe('the pitch of a recording over time', () => {
  it('stays where the tape runs evenly', () => {
    const { cents, overTime } = estimateReferenceOffset(recording([12, 12, 12]), RATE)!;
    expect(cents).toBeCloseTo(12, 0);
    expect(overTime.map((o) => o.timeS)).toEqual([5, 15, 25]);
    for (const block of overTime) expect(Math.abs(block.cents - 12)).toBeLessThan(1);
  });

  it('is read from partials that lie around it', () => {
    const { histogram, partials } = estimateReferenceOffset(recording([12]), RATE)!;
    expect(histogram).toHaveLength(100);
    expect(histogram.reduce((sum, v) => sum + v, 0)).toBeCloseTo(1, 6);
    // Index 0 is -49 cents.
    const near = histogram.slice(49 + 12 - 5, 49 + 12 + 6).reduce((sum, v) => sum + v, 0);
    expect(near).toBeGreaterThan(0.5);
    expect(partials).toBeGreaterThan(100);
  });

  it('follows a tape that slows down', () => {
    const { overTime } = estimateReferenceOffset(recording([8, 4, 0, -4]), RATE)!;
    overTime.forEach(({ cents }, i) => expect(Math.abs(cents - (8 - 4 * i))).toBeLessThan(1.5));
  });

  it.each([
    [48, true],
    [-47, true],
    [30, false],
  ])('of %i cents lies between two notes: %s', (cents, isNear) => {
    expect(estimateReferenceOffset(recording([cents]), RATE)?.isNearQuarterTone).toBe(isNear);
  });
});

describe('reference offset', () => {
  it.each([
    [0, 22050],
    [38, 22050],
    [-27, 44100],
    [12, 48000],
  ])('measures %i cents at %i Hz within one cent', (cents, sampleRate) => {
    const out = new Float32Array(3 * sampleRate);
    for (const note of [40, 47, 52, 57]) {
      addChord(out, 0, 3, [note + cents / 100], sampleRate);
    }
    expect(Math.abs((estimateReferenceOffset(out, sampleRate)?.cents ?? 99) - cents)).toBeLessThan(1);
  });

  it('finds nothing in silence', () => {
    expect(estimateReferenceOffset(new Float32Array(RATE), RATE)).toBeNull();
  });
});
