import { describe, expect, it } from 'vitest';
import { playedFast, tapeSpeed, truthPlayedFast } from './tape-speed';

const RATE = 22_050;

/** A second of an A of 440 Hz, in one channel. */
const TONE = Buffer.from(
  Int16Array.from({ length: RATE }, (_, n) => 20_000 * Math.sin((2 * Math.PI * 440 * n) / RATE)).buffer,
);

/** From the upward crossings of zero. */
function hertzOf(samples: Buffer): number {
  const crossings: number[] = [];
  for (let n = 1; n < samples.length / 2; n++) {
    if (samples.readInt16LE(2 * n - 2) < 0 && samples.readInt16LE(2 * n) >= 0) crossings.push(n);
  }
  return ((crossings.length - 1) * RATE) / (crossings[crossings.length - 1] - crossings[0]);
}

describe('a tape that runs fast', () => {
  it('sounds a fifth higher and is over in two thirds of the time at seven semitones', () => {
    const fast = playedFast(TONE, 1, RATE, 7);
    // Equal temperament: A4 = 440 Hz, E5 = 659.26 Hz (ISO 16, and any table of note frequencies).
    expect(hertzOf(fast)).toBeCloseTo(659.26, 0);
    expect(fast.length / TONE.length).toBeCloseTo(0.667, 2);
  });

  it('is the same sound at full speed', () => {
    expect(playedFast(TONE, 1, RATE, 0)).toBe(TONE);
  });

  it('moves what is true along', () => {
    const strum = { timeS: 3, endS: 6, midi: [40, 47], rootPc: 4, palmMuted: true, dead: false };
    const truth = truthPlayedFast(
      {
        offsetCents: -12,
        bpm: 100,
        meter: { beats: 4, unit: 4 },
        barsS: [0, 2.4],
        sections: [{ startS: 1.2, riff: 0, transpose: 0 }],
        strums: [strum, { ...strum, midi: [], rootPc: null, dead: true }],
      },
      12,
    );
    expect(truth).toMatchObject({ offsetCents: -12, bpm: 200, barsS: [0, 1.2], sections: [{ startS: 0.6 }] });
    expect(truth.strums[0]).toEqual({ ...strum, timeS: 1.5, endS: 3, midi: [52, 59] });
    expect(truth.strums[1]).toMatchObject({ midi: [], rootPc: null });
  });

  it('plays half of all songs as they are, the others from a tone lower to two tones higher', () => {
    const speeds = Array.from({ length: 1000 }, (_, seed) => tapeSpeed(seed));
    expect(speeds.filter((s) => s === 0).length / 1000).toBeCloseTo(0.5, 1);
    expect([Math.min(...speeds), Math.max(...speeds)]).toEqual([-2, 4]);
    expect(tapeSpeed(17)).toBe(speeds[17]);
  });
});
