import { describe, expect, it } from 'vitest';
import { createRandom } from '../units';
import { midiToHz } from '../theory';
import { listen, type Heard } from './listen';
import { addChord, addClick, RATE } from './test-sounds';

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

function expectNumbers({ strums, grid, sections }: Heard): void {
  for (const { timeS, endS, confidence, midi } of strums) {
    for (const value of [timeS, endS, confidence, ...midi]) expect(Number.isFinite(value)).toBe(true);
    expect(endS).toBeGreaterThan(timeS);
    expect(confidence).toBeLessThanOrEqual(1.0001);
  }
  for (const value of [...(grid?.beatsS ?? []), ...(grid?.tempoMap ?? []).map((t) => t.bpm)]) {
    expect(Number.isFinite(value)).toBe(true);
  }
  for (const { startS, endS } of sections) expect(endS).toBeGreaterThan(startS);
}

const SLOW = 30_000;

describe('listen', () => {
  it.each<readonly [string, readonly Float32Array[]]>([
    ['noise', [noise(4)]],
    ['a constant', [new Float32Array(4 * RATE).fill(0.4)]],
    ['a click track', [clickTrack(8, 120)]],
    ['a voice alone', [voice(8)]],
    ['a piano', [piano(8)]],
    ['a clipped riff', [riff(6).map((v) => Math.max(-0.1, Math.min(0.1, 3 * v)))]],
    ['a riff of eight bits', [riff(6).map((v) => Math.round(v * 127) / 127)]],
    ['a riff with an offset', [riff(6).map((v) => v + 0.3)]],
    ['one dead channel', [riff(6), new Float32Array(6 * RATE)]],
    ['channels turned against each other', [riff(6), riff(6).map((v) => -v)]],
    ['two seconds', [riff(2)]],
    ['40 beats a minute', [riff(16, 1.5)]],
    ['260 beats a minute', [riff(8, 60 / 260)]],
  ])(
    'answers in numbers for %s',
    (_, channels) => expectNumbers(listen({ channels, sampleRate: RATE })),
    SLOW,
  );

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
    'keeps what is settled, and says what it does meanwhile',
    () => {
      const doing = new Set<string>();
      const parts: boolean[][] = [];
      const strums = [1, 1.5].map((timeS) => ({ timeS, midi: [38, 45, 50], palmMuted: true, dead: false }));
      const heard = listen(
        { channels: [riff(8)], sampleRate: RATE },
        {
          settled: { referenceCents: 0, spans: [{ startS: 0.9, endS: 1.9 }], strums },
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
