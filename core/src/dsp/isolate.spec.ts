import { describe, expect, it } from 'vitest';
import { createRandom } from '../units';
import { isolate, type Isolation } from './isolate';
import type { PanWindow } from './pan-window';

const RATE = 44100;
const LENGTH = 2 * RATE;
const NOTHING: Isolation = { pan: null, band: null, isWithoutHits: false };

/** A tone with partials, so that sources share no bin for long. */
function tone(freqHz: number): Float32Array {
  return Float32Array.from({ length: LENGTH }, (_, n) =>
    [1, 2, 3, 4].reduce((sum, h) => sum + (0.2 / h) * Math.sin((2 * Math.PI * freqHz * h * n) / RATE + h), 0),
  );
}

function noise(seed: number): Float32Array {
  const random = createRandom(seed);
  return Float32Array.from({ length: LENGTH }, () => 0.2 * (2 * random() - 1));
}

/** Constant power; -1 left, 1 right. */
function panned(mono: Float32Array, pan: number): [Float32Array, Float32Array] {
  const angle = ((pan + 1) * Math.PI) / 4;
  return [mono.map((v) => v * Math.cos(angle)), mono.map((v) => v * Math.sin(angle))];
}

function mixed(...sources: (readonly [Float32Array, Float32Array])[]): [Float32Array, Float32Array] {
  const add = (c: 0 | 1): Float32Array =>
    Float32Array.from({ length: LENGTH }, (_, n) => sources.reduce((s, x) => s + x[c][n], 0));
  return [add(0), add(1)];
}

/** Level of a source in the output, dB against its level in the input: its share by projection. */
function levelDb(out: readonly Float32Array[], source: readonly Float32Array[]): number {
  let [dot, own] = [0, 0];
  for (let c = 0; c < 2; c++) {
    for (let n = RATE / 2; n < LENGTH - RATE / 2; n++) {
      dot += out[c][n] * source[c][n];
      own += source[c][n] ** 2;
    }
  }
  return 20 * Math.log10(Math.max(1e-9, Math.abs(dot) / own));
}

const through = (input: readonly Float32Array[], change: Partial<Isolation>) =>
  isolate(input, RATE, { ...NOTHING, ...change }, 0, LENGTH);

describe('isolation', () => {
  it('that keeps all gives the sound back', () => {
    const input = panned(noise(1), -0.3);
    const out = through(input, {});
    for (let n = 5000; n < LENGTH - 5000; n += 97) expect(out[0][n]).toBeCloseTo(input[0][n], 5);
  });

  it.each<readonly [string, number, PanWindow]>([
    ['half left', -0.5, { position: -0.5, width: 0.4, isInside: true }],
    ['in the centre', 0, { position: 0, width: 0.4, isInside: true }],
    ['far right', 1, { position: 1, width: 0.5, isInside: true }],
  ])('keeps what is panned %s and lowers the rest by 12 dB', (_, place, pan) => {
    const kept = panned(tone(110), place);
    const others = [-1, -0.5, 0, 0.5, 1]
      .filter((p) => Math.abs(p - place) >= 0.5)
      .map((p, i) => panned(tone([147, 208, 277, 349, 415][i]), p));
    const out = through(mixed(kept, ...others), { pan });
    expect(levelDb(out, kept)).toBeGreaterThan(-2.2);
    for (const other of others) expect(levelDb(out, other)).toBeLessThan(-12);
  });

  it('takes the centre out and leaves the sides', () => {
    const centre = panned(tone(110), 0);
    const side = panned(tone(208), -1);
    const out = through(mixed(centre, side), { pan: { position: 0, width: 0.5, isInside: false } });
    expect(levelDb(out, side)).toBeGreaterThan(-1.5);
    expect(levelDb(out, centre)).toBeLessThan(-12);
  });

  it('does not take two sides that differ for a centre', () => {
    const sides: [Float32Array, Float32Array] = [noise(3), noise(4)];
    const out = through(sides, { pan: { position: 0, width: 0.5, isInside: true } });
    expect(levelDb(out, sides)).toBeLessThan(-4);
  });

  it('keeps a band', () => {
    const [low, high] = [panned(tone(55), 0), panned(tone(1500), 0)];
    const out = through(mixed(low, high), { band: [1200, 8000] });
    expect(levelDb(out, high)).toBeGreaterThan(-1.5);
    expect(levelDb(out, low)).toBeLessThan(-18);
  });

  it('lowers hits and leaves what rings', () => {
    const rings = panned(tone(110), 0);
    const random = createRandom(5);
    const hit = new Float32Array(LENGTH);
    for (let at = RATE / 4; at < LENGTH - 2000; at += RATE / 4) {
      for (let n = 0; n < 1500; n++) hit[at + n] += 0.8 * (2 * random() - 1) * Math.exp(-n / 300);
    }
    const hits = panned(hit, 0);
    const out = through(mixed(rings, hits), { isWithoutHits: true });
    expect(levelDb(out, rings)).toBeGreaterThan(-1.5);
    expect(levelDb(out, hits)).toBeLessThan(-9);
  });

  it('joins blocks without a seam', () => {
    const input = mixed(panned(tone(110), -0.5), panned(noise(2), 0.4));
    const change = { pan: { position: -0.5, width: 0.5, isInside: true } };
    const whole = through(input, change);
    const half = 40_000;
    const parts = [
      isolate(input, RATE, { ...NOTHING, ...change }, 0, half),
      isolate(input, RATE, { ...NOTHING, ...change }, half, LENGTH),
    ];
    for (let n = half - 20; n < half; n++) expect(parts[0][0][n]).toBeCloseTo(whole[0][n], 4);
    for (let n = 0; n < 20; n++) expect(parts[1][0][n]).toBeCloseTo(whole[0][half + n], 3);
  });

  it('refuses one channel', () => {
    expect(() => isolate([noise(1)], RATE, NOTHING, 0, 10)).toThrow(/two channels/);
  });
});
