import { describe, expect, it } from 'vitest';
import { createRandom } from '../units';
import { midiToHz } from '../theory';
import { listen, type Heard } from './listen';
import { addChord, addClick, RATE } from './test-sounds';
import type { StereoSignal } from './types';

function riff(seconds: number, stepS = 0.5): Float32Array {
  const out = new Float32Array(Math.round(seconds * RATE));
  for (let i = 0; (i + 1) * stepS < seconds; i++) {
    addChord(out, i * stepS, 0.96 * stepS, [40 + (i % 4), 47 + (i % 4)]);
  }
  return out.map((v) => Math.tanh(3 * v));
}

function noise(seconds: number): Float32Array {
  const random = createRandom(8);
  return Float32Array.from({ length: seconds * RATE }, () => 0.5 * (2 * random() - 1));
}

/** Glides with vibrato, as a voice alone makes them. */
function voice(seconds: number): Float32Array {
  let phase = 0;
  return Float32Array.from({ length: seconds * RATE }, (_, n) => {
    const timeS = n / RATE;
    const midi = 60 + 3 * Math.sin(timeS) + 0.5 * Math.sin(35 * timeS);
    phase += (2 * Math.PI * midiToHz(midi)) / RATE;
    return 0.3 * (0.6 + 0.4 * Math.sin(1.7 * timeS)) * (Math.sin(phase) + 0.4 * Math.sin(2 * phase));
  });
}

function clickTrack(seconds: number, bpm: number): Float32Array {
  const out = new Float32Array(seconds * RATE);
  for (let t = 0.3; t < seconds - 0.1; t += 60 / bpm) addClick(out, t);
  return out;
}

function piano(seconds: number): Float32Array {
  const out = new Float32Array(seconds * RATE);
  for (let i = 0; i < seconds - 1; i++)
    addChord(
      out,
      i,
      1.4,
      [48, 64, 67, 72].map((m) => m + [0, 5, 7, 0][i % 4]),
    );
  return out;
}

/** What holds of whatever is heard: finite, in order, within the recording, probabilities at most 1. */
function expectSound({ strums, grid, sections, meters, durationS }: Heard): void {
  strums.forEach(({ timeS, endS, confidence, midi, dead, alternatives }, k) => {
    expect(timeS).toBeGreaterThan(strums[k - 1]?.timeS ?? -1);
    expect(endS).toBeGreaterThan(timeS);
    expect(endS).toBeLessThanOrEqual(durationS + 1e-6);
    for (const p of [confidence, ...alternatives.map((a) => a.probability)]) {
      expect(p).toBeGreaterThanOrEqual(0);
      expect(p).toBeLessThan(1.0001);
    }
    expect(midi.length === 0).toBe(dead);
    expect(midi).toEqual([...midi].sort((a, b) => a - b));
  });
  const beatsS = grid?.beatsS ?? [];
  expect(beatsS.every((t, i) => Number.isFinite(t) && (i === 0 || t > beatsS[i - 1]))).toBe(true);
  expect(grid?.downbeatsS.every((t) => beatsS.includes(t)) ?? true).toBe(true);
  const shares = meters.map((m) => m.probability);
  expect(shares.reduce((sum, p) => sum + p, 0)).toBeLessThan(1.0001);
  sections.forEach(({ startS, endS }, i) => {
    expect(endS).toBeGreaterThan(startS);
    expect(startS).toBeGreaterThanOrEqual(sections[i - 1]?.endS ?? 0);
  });
}

const SLOW = 30_000;
const hear = (...channels: readonly Float32Array[]): Heard => listen({ channels, sampleRate: RATE });
/** Share of the strums of a riff that are heard with their lowest note, at their time. */
function shareHeard({ strums }: Heard, seconds: number, stepS = 0.5): number {
  const count = Math.ceil(seconds / stepS) - 1;
  const found = Array.from({ length: count }, (_, i) =>
    strums.some((s) => Math.abs(s.timeS - i * stepS) < 0.05 && s.midi[0] === 40 + (i % 4)),
  );
  return found.filter(Boolean).length / count;
}
const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

describe('listen', () => {
  it.each<readonly [string, readonly Float32Array[]]>([
    ['a clipped riff', [riff(6).map((v) => Math.max(-0.1, Math.min(0.1, 3 * v)))]],
    ['a riff of eight bits', [riff(6).map((v) => Math.round(v * 127) / 127)]],
    ['a riff with an offset', [riff(6).map((v) => v + 0.3)]],
    ['one dead channel', [riff(6), new Float32Array(6 * RATE)]],
    ['channels turned against each other', [riff(6), riff(6).map((v) => -v)]],
  ])(
    'hears the riff in %s',
    (_, channels) => {
      const heard = hear(...channels);
      expectSound(heard);
      expect(shareHeard(heard, 6)).toBeGreaterThan(0.7);
    },
    SLOW,
  );

  it(
    'hears a riff of two seconds, and at 260 beats a minute',
    () => {
      const short = hear(riff(2));
      expectSound(short);
      expect(shareHeard(short, 2)).toBeGreaterThan(0.6);
      const fast = hear(riff(8, 60 / 260));
      expectSound(fast);
      expect(shareHeard(fast, 8, 60 / 260)).toBeGreaterThan(0.7);
      // Counted in half of it: eighths of half the tempo sound the same.
      expect(fast.meters.some((m) => Math.abs(m.tempoBpm / 130 - 1) < 0.04)).toBe(true);
    },
    SLOW,
  );

  it(
    'keeps 40 beats a minute among the readings',
    () => {
      const slow = hear(riff(16, 1.5));
      expectSound(slow);
      expect(slow.meters.some((m) => Math.abs(m.tempoBpm / 40 - 1) < 0.04)).toBe(true);
    },
    SLOW,
  );

  it(
    'is not sure of noise, and hears no chord in a constant',
    () => {
      const noisy = hear(noise(4));
      expectSound(noisy);
      expect(mean(noisy.strums.map((s) => s.confidence))).toBeLessThan(0.5);
      expect(hear(new Float32Array(4 * RATE).fill(0.4)).strums.filter((s) => !s.dead)).toEqual([]);
    },
    SLOW,
  );

  it(
    'hears strokes without a pitch in a click track, in its tempo',
    () => {
      const clicks = hear(clickTrack(8, 120));
      expectSound(clicks);
      expect(clicks.strums.every((s) => s.dead)).toBe(true);
      expect(clicks.meters.some((m) => Math.abs(m.tempoBpm / 120 - 1) < 0.04)).toBe(true);
    },
    SLOW,
  );

  it(
    'strikes nothing in a voice that glides, and hears the lowest notes of a piano',
    () => {
      expect(hear(voice(8)).strums).toEqual([]);
      const played = hear(piano(8));
      expectSound(played);
      expect(played.strums.map((s) => s.midi[0])).toEqual([48, 53, 55, 48, 48, 53, 55]);
    },
    SLOW,
  );

  it('hears in the guitars alone, where the band is apart, what the rest covers', () => {
    const guitars = riff(8);
    const covered = voice(8);
    const signalOf = (samples: Float32Array): StereoSignal => ({ channels: [samples], sampleRate: RATE });
    const onTime = ({ strums }: Heard): number =>
      strums.filter(({ timeS }) => Math.abs(timeS - 0.5 * Math.round(2 * timeS)) < 0.05).length;
    expect(onTime(listen(signalOf(covered)))).toBeLessThan(5);
    const heard = listen(signalOf(covered), { guitars: signalOf(guitars) });
    expect(onTime(heard)).toBeGreaterThan(12);
    expectSound(heard);
  });

  it('refuses a rate that it is not made for, and says which it is', () => {
    expect(() => listen({ channels: [new Float32Array(100)], sampleRate: 44_100 })).toThrow(
      'sampleRate must be 22050 Hz, but was 44100',
    );
  });

  it(
    'gets through silence and through one sample',
    () => {
      for (const length of [RATE, 1]) {
        const heard = listen({ channels: [new Float32Array(length)], sampleRate: RATE });
        const nothing = {
          reference: null,
          grid: null,
          meters: [],
          strums: [],
          guitars: [],
          key: null,
          sections: [],
        };
        expect(heard).toMatchObject(nothing);
      }
    },
    SLOW,
  );

  it(
    'keeps what is confirmed, and says what it does meanwhile',
    () => {
      const doing = new Set<string>();
      const parts: boolean[][] = [];
      const strums = [1, 1.5].map((timeS) => ({ timeS, midi: [38, 45, 50], palmMuted: true, dead: false }));
      const heard = listen(
        { channels: [riff(8)], sampleRate: RATE },
        {
          confirmed: { referenceCents: 0, spans: [{ startS: 0.9, endS: 1.9 }], strums },
          onProgress: (_, words) => doing.add(words),
          onPart: ({ reference, strums: struck, grid }) =>
            parts.push([reference !== null, struck.length > 0, grid !== null]),
        },
      );
      const inside = heard.strums.filter(({ timeS }) => timeS > 0.9 && timeS < 1.9);
      expect(inside.map((s) => [s.midi, s.palmMuted, s.confidence])).toEqual([
        [[38, 45, 50], true, 1],
        [[38, 45, 50], true, 1],
      ]);
      expect(heard.reference?.cents).toBe(0);
      expect(doing.size).toBeGreaterThan(4);
      // Pitch, then strums, then bars.
      expect(parts).toEqual([
        [true, false, false],
        [true, true, false],
        [true, true, true],
      ]);
    },
    SLOW,
  );
});
