import { describe, expect, it } from 'vitest';
import { PARTS, type BandParts, type Part } from '../parts';
import { separateRoughly } from './rough';
import { siSdrDb } from './si-sdr';

const RATE = 44_100;
const SECONDS = 3;
type Pair = readonly [Float32Array, Float32Array];
const made = (of: (timeS: number) => number): Float32Array =>
  Float32Array.from({ length: SECONDS * RATE }, (_, n) => of(n / RATE));
const saw = (hz: number, timeS: number, partials: number): number => {
  let sum = 0;
  for (let k = 1; k <= partials; k++) sum += Math.sin(2 * Math.PI * k * hz * timeS) / k;
  return sum;
};

/** Noise that is struck four times a second, a deep tone in the middle, one that wanders in the middle, and two at the sides. */
const SOURCES: Readonly<Record<Part, Pair>> = (() => {
  let state = 1;
  const noise = (): number => ((state = (state * 16807) % 2147483647) / 2147483647) * 2 - 1;
  const hits = made((s) => 0.5 * noise() * Math.exp(-(s % 0.25) / 0.02));
  const deep = made((s) => 0.3 * Math.sin(2 * Math.PI * 55 * s));
  // Vibrato of a semitone, five times a second.
  const wanders = made((s) => 0.08 * saw(440, s + 0.0018 * Math.sin(2 * Math.PI * 5 * s), 6));
  const [left, right] = [made((s) => 0.1 * saw(164.8, s, 12)), made((s) => 0.1 * saw(246.9, s, 12))];
  return { drums: [hits, hits], bass: [deep, deep], voice: [wanders, wanders], guitars: [left, right] };
})();
const MIX = [0, 1].map((c) =>
  Float32Array.from({ length: SECONDS * RATE }, (_, n) => PARTS.reduce((s, p) => s + SOURCES[p][c][n], 0)),
) as unknown as Pair;

/** Away from the ends of the sound. */
const inside = (pair: Pair): Float32Array[] => pair.map((c) => c.subarray(RATE / 2, (SECONDS - 0.5) * RATE));

describe('a band taken apart roughly', () => {
  const parts: BandParts = separateRoughly(MIX, RATE, 0, MIX[0].length);

  it.each(PARTS)('has more of the %s in its part than the mix has', (part) => {
    const [own, mix] = [parts[part], MIX].map((sound) =>
      siSdrDb(inside(SOURCES[part]), inside(sound as Pair)),
    );
    expect(own! - mix!).toBeGreaterThan(6);
  });

  it('adds up to the recording', () => {
    for (let n = 0; n < MIX[0].length; n += 31) {
      const sum = PARTS.reduce((s, part) => s + parts[part][1][n], 0);
      expect(sum).toBeCloseTo(MIX[1][n], 5);
    }
  });

  it('is the same from a stretch on its own, as long as what it depends on is there', () => {
    const [from, to] = [2048 * 20, 2048 * 30];
    const part = separateRoughly(MIX, RATE, from, to);
    const around = MIX.map((c) => c.subarray(from - 2048 * 16, to + 2048 * 16)) as unknown as Pair;
    const alone = separateRoughly(around, RATE, 2048 * 16, 2048 * 26);
    for (let n = 0; n < to - from; n += 17) {
      expect(part.voice[0][n]).toBeCloseTo(parts.voice[0][from + n], 5);
      expect(alone.drums[0][n]).toBeCloseTo(part.drums[0][n], 5);
    }
  });

  it('refuses channels of two lengths', () => {
    expect(() => separateRoughly([MIX[0], MIX[1].subarray(1)], RATE, 0, 10)).toThrow('equal length');
  });
});
