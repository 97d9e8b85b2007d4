import { describe, expect, it } from 'vitest';
import { interleaveParts, MARGIN_S, PIECE_S, type BandParts } from '../parts';
import { toInt16 } from '../units';
import { holdSound } from './held-sound';
import { bandSignal, withParts } from './parts-sound';

const RATE = 12_000;
const SECONDS = 14;
const wave = Float32Array.from({ length: SECONDS * RATE }, (_, n) => 0.4 * Math.sin(n / 9));
const sound = holdSound([toInt16(wave), toInt16(wave)], RATE);

/** Pieces of which the drums are three quarters, and the guitars the rest. */
function pieceOf(index: number): Int16Array {
  const from = Math.round((index * PIECE_S - MARGIN_S) * RATE);
  const length = Math.round((PIECE_S + 2 * MARGIN_S) * RATE);
  const share = (of: number): BandParts['drums'] => {
    const part = Float32Array.from({ length }, (_, n) => of * (wave[from + n] ?? 0));
    return [part, part];
  };
  return interleaveParts({ drums: share(0.75), bass: share(0), voice: share(0), guitars: share(0.25) });
}
const ALL = { drums: 1, bass: 1, voice: 1, guitars: 1 };

describe('a recording whose parts are apart', () => {
  it('is the recording when all sound, over the seams of the pieces too', () => {
    const [left] = withParts(sound, pieceOf, ALL).cut(0, SECONDS * RATE);
    for (let n = 0; n < left.length; n += 7) expect(left[n]).toBeCloseTo(wave[n], 3);
  });

  it('leaves out what is silent', () => {
    const [left, right] = withParts(sound, pieceOf, { ...ALL, drums: 0 }).cut(3 * RATE, 8 * RATE);
    for (let n = 0; n < left.length; n += 7) {
      expect(left[n]).toBeCloseTo(0.25 * wave[3 * RATE + n], 3);
      expect(right[n]).toBeCloseTo(left[n], 6);
    }
  });

  it('is as it was where the band is not apart yet, without a step on the way there', () => {
    const only = (index: number): Int16Array | null => (index === 0 ? pieceOf(0) : null);
    const mixed = withParts(sound, only, { ...ALL, drums: 0, guitars: 0 });
    const into = [new Float32Array(SECONDS * RATE), new Float32Array(SECONDS * RATE)] as const;
    mixed.copyInto(into);
    expect(into[0][3 * RATE]).toBeCloseTo(0, 5);
    expect(into[0][10 * RATE + 3]).toBeCloseTo(wave[10 * RATE + 3], 3);
    const edge = PIECE_S * RATE;
    for (let n = edge - 1000; n < edge + 1000; n++) {
      expect(Math.abs(into[0][n] - into[0][n - 1])).toBeLessThan(0.06);
    }
  });

  it('is measured at its own place', () => {
    const cut = wave.subarray(4 * RATE, 8 * RATE);
    const gains = { ...ALL, drums: 0 };
    const only = (index: number): Int16Array | null => (index === 0 ? pieceOf(0) : null);
    const { channels } = bandSignal({ channels: [cut], sampleRate: RATE }, 4, only, gains);
    expect(channels).toHaveLength(2);
    expect(channels[0][RATE]).toBeCloseTo(0.25 * cut[RATE], 3);
    expect(channels[1][3 * RATE]).toBeCloseTo(cut[3 * RATE], 3);
  });
});
