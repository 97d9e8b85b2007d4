import { describe, expect, it } from 'vitest';
import { createRandom } from '../units';
import { midiToHz } from '../theory';
import { extendBeats, trackTempo } from './beats';
import { findBars } from './bars';
import { createChordRecogniser } from './chord-recognition';
import { CHORD_SHAPES } from './chord-templates';
import { findSections } from './form';
import { estimateKey } from './key-estimate';
import { listen } from './listen';
import { computeOnsetStrength } from './onset-strength';
import { detectOnsets } from './onsets';
import { estimateReferenceOffset } from './reference-offset';
import type { HeardStrum } from './types';

const RATE = 22050;

/** Notes with ten partials each, struck at `timeS` with a sharp attack and decaying. */
function addChord(
  out: Float32Array,
  timeS: number,
  seconds: number,
  notes: readonly number[],
  sampleRate = RATE,
): void {
  const start = Math.round(timeS * sampleRate);
  const length = Math.min(out.length - start, Math.round(seconds * sampleRate));
  for (const note of notes) {
    for (let h = 1; h <= 10; h++) {
      const step = (2 * Math.PI * midiToHz(note) * h) / sampleRate;
      for (let i = 0; i < length; i++) {
        out[start + i] +=
          (0.2 / h) *
          Math.sin(step * i + h) *
          Math.exp((-2 * i) / sampleRate) *
          Math.min(1, i / 40, (length - i) / 400);
      }
    }
  }
}

function click(out: Float32Array, timeS: number, random: () => number): void {
  const start = Math.round(timeS * RATE);
  for (let i = 0; i < 600 && start + i < out.length; i++)
    out[start + i] += 0.6 * (2 * random() - 1) * Math.exp(-i / 90);
}

function strum(timeS: number, endS: number, root: number): HeardStrum {
  const midi = [root, root + 7];
  return { timeS, endS, midi, rootPc: root % 12, quality: '5', palmMuted: false, dead: false, confidence: 1 };
}

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

describe('onsets', () => {
  it('finds every strum within 10 ms', () => {
    const out = new Float32Array(5 * RATE);
    const times = [0.5, 1.0, 1.25, 1.5, 2.4, 3.3];
    for (const [i, t] of times.entries())
      addChord(out, t, (times[i + 1] ?? 4.5) - t, [40 + (i % 3), 47 + (i % 3)]);
    const found = detectOnsets(out, RATE, computeOnsetStrength(out, RATE));
    expect(found).toHaveLength(times.length);
    found.forEach((t, i) => expect(Math.abs(t - times[i])).toBeLessThan(0.01));
  });

  it('finds none in silence', () => {
    const silence = new Float32Array(2 * RATE);
    expect(detectOnsets(silence, RATE, computeOnsetStrength(silence, RATE))).toEqual([]);
  });
});

describe('tempo and beats', () => {
  it.each([90, 120, 150])('follows clicks at %i bpm', (bpm) => {
    const random = createRandom(5);
    const out = new Float32Array(20 * RATE);
    const period = 60 / bpm;
    for (let t = 0.4; t < 19.5; t += period) click(out, t, random);
    const track = trackTempo(computeOnsetStrength(out, RATE));
    expect(track?.tempoBpm).toBeGreaterThan(bpm * 0.98);
    expect(track?.tempoBpm).toBeLessThan(bpm * 1.02);
    for (const beat of track?.beatsS.slice(2, -2) ?? []) {
      const miss = Math.abs((beat - 0.4) / period - Math.round((beat - 0.4) / period)) * period;
      expect(miss).toBeLessThan(0.03);
    }
  });

  it('has no pulse for silence or a moment of sound', () => {
    expect(trackTempo(computeOnsetStrength(new Float32Array(10 * RATE), RATE))).toBeNull();
    expect(trackTempo(computeOnsetStrength(new Float32Array(RATE), RATE))).toBeNull();
  });

  it('goes on to both ends of the recording', () => {
    const beats = extendBeats([2, 2.5, 3, 3.5], 6);
    expect(beats[0]).toBeCloseTo(0.5, 9);
    expect(beats.at(-1)).toBeCloseTo(5.5, 9);
  });
});

describe('bars', () => {
  it.each([3, 4])('finds bars of %i beats by the change of chord', (beatsPerBar) => {
    const beatsS = Array.from({ length: beatsPerBar * 12 }, (_, i) => 1 + i * 0.5);
    const strums = beatsS.map((t, i) => strum(t, t + 0.5, [40, 45, 43, 47][Math.floor(i / beatsPerBar) % 4]));
    const silent = computeOnsetStrength(new Float32Array(RATE), RATE);
    const { meter, downbeatsS } = findBars(beatsS, strums, silent);
    expect(meter.beats).toBe(beatsPerBar);
    expect(downbeatsS[0]).toBe(1);
  });
});

describe('chord recognition', () => {
  it('names clean chords by root, kind and lowest note', () => {
    const chords = [[40, 47, 52], [45, 52], [43, 50, 55], [50], [40, 46, 52]];
    const out = new Float32Array(6 * RATE);
    chords.forEach((notes, i) => addChord(out, i, 0.95, notes));
    const recognise = createChordRecogniser(RATE);
    const spans = chords.map((_, i) => ({ timeS: i, endS: i + 0.95 }));
    const found = recognise([{ samples: out, weight: 1, hasBass: false }], spans, 0);
    expect(found.map((c) => c.bass)).toEqual([40, 45, 43, 50, 40]);
    expect(found.map((c) => CHORD_SHAPES[c.shapeIndex].quality)).toEqual(['5', '5', '5', 'single', 'b5']);
  }, 30_000);
});

describe('key', () => {
  it('hears E minor in E, G, A and B', () => {
    const strums = [40, 43, 45, 40, 47, 40].map((root, i) => strum(i, i + 1, root));
    expect(estimateKey(strums)?.key).toEqual({ tonic: 'E', mode: 'minor' });
  });

  it('has no key without a pitch', () => {
    expect(estimateKey([])).toBeNull();
  });
});

describe('form', () => {
  const bar = (start: number, roots: readonly number[]): HeardStrum[] =>
    roots.map((root, i) => strum(start + i * 0.5, start + i * 0.5 + 0.5, root));
  const downbeats = (bars: number): number[] => Array.from({ length: bars }, (_, i) => i * 2);
  const riffA = [40, 40, 43, 45];
  const riffB = [47, 52, 47, 50];

  it('finds two riffs, their passes and where they change', () => {
    const plan = [riffA, riffA, riffA, riffA, riffB, riffB, riffB, riffB];
    const strums = plan.flatMap((roots, i) => bar(i * 2, roots));
    const sections = findSections(strums, downbeats(8), 16);
    expect(sections.map((s) => [s.label, s.startS, s.passes])).toEqual([
      ['A', 0, 4],
      ['B', 8, 4],
    ]);
  });

  it('hears a riff that comes back two frets higher', () => {
    const plan = [
      riffA,
      riffA,
      riffA,
      riffA,
      riffA.map((r) => r + 2),
      riffA.map((r) => r + 2),
      riffA.map((r) => r + 2),
    ];
    const strums = plan.flatMap((roots, i) => bar(i * 2, roots));
    const sections = findSections(strums, downbeats(7), 14);
    expect(sections.at(-1)).toMatchObject({ label: 'A+2', transposeOf: { label: 'A', semitones: 2 } });
  });

  it('says nothing about silence', () => {
    expect(findSections([], downbeats(4), 8)).toEqual([]);
  });
});

describe('listen', () => {
  it('gets through silence and through one sample', () => {
    for (const length of [RATE, 1]) {
      const heard = listen({ channels: [new Float32Array(length)], sampleRate: RATE });
      expect(heard).toMatchObject({ reference: null, grid: null, strums: [], key: null, sections: [] });
    }
  }, 30_000);
});
