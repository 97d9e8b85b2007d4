import { describe, expect, it } from 'vitest';
import { createRandom } from '../units';
import { createChordCommittee } from './chord-committee';
import { createChordSpectrum, SPECTRUM_SIZE } from './chord-spectrum';
import { decodeChords } from './chord-decoding';
import { findSections, toOnePassLength } from './form';
import { estimateKey } from './key-estimate';
import { gridOfMeter, type MeterStrum } from './meter';
import { computeOnsetStrength } from './onset-strength';
import { findOnsetCandidates } from './onsets';
import { extendPulse, findPulses } from './pulse';
import { rankMeters } from './rank-meters';
import { estimateReferenceOffset } from './reference-offset';
import { findSoundingEnds } from './sounding-end';
import { splitStereo } from './stereo';
import { addChord, addClick, RATE, strumOf } from './test-sounds';
import type { HeardSection, HeardStrum } from './types';
import chordWeights from './weights/chords.json';
import meterWeights from './weights/meter.json';

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

describe('onset candidates', () => {
  it('hold every strum within 10 ms', () => {
    const out = new Float32Array(5 * RATE);
    const times = [0.5, 1.0, 1.25, 1.5, 2.4, 3.3];
    for (const [i, t] of times.entries())
      addChord(out, t, (times[i + 1] ?? 4.5) - t, [40 + (i % 3), 47 + (i % 3)]);
    const found = findOnsetCandidates([out], RATE, computeOnsetStrength(out, RATE));
    for (const time of times) expect(found.some((t) => Math.abs(t - time) < 0.01)).toBe(true);
  });

  it('are the same instants when the recording begins a little later', () => {
    const random = createRandom(8);
    const out = new Float32Array(4 * RATE).map(() => 0.02 * (random() - 0.5));
    for (let k = 0; k < 20; k++) addChord(out, 0.3 + 0.17 * k, 0.17, [40 + (k % 5), 47 + (k % 5)]);
    const instants = (samples: Float32Array): number[] =>
      findOnsetCandidates([samples], RATE, computeOnsetStrength(samples, RATE));
    const whole = instants(out);
    // Neither a whole number of frames nor of milliseconds.
    const later = instants(out.subarray(1333)).map((t) => t + 1333 / RATE);
    const kept = whole.filter((t) => later.some((u) => Math.abs(t - u) < 0.002));
    expect(whole.length).toBeGreaterThan(20);
    expect(kept.length / whole.length).toBeGreaterThan(0.85);
  });

  it('are none in silence', () => {
    const silence = new Float32Array(2 * RATE);
    expect(findOnsetCandidates([silence], RATE, computeOnsetStrength(silence, RATE))).toEqual([]);
  });
});

describe('tempo, meter and bars', () => {
  /** Kick on the first beat of each bar, clicks on all; strums on the beats with a new chord per bar. */
  function clickTrack(bpm: number, beatsPerBar: number): { out: Float32Array; strums: MeterStrum[] } {
    const random = createRandom(5);
    const out = new Float32Array(24 * RATE);
    const strums: MeterStrum[] = [];
    const period = 60 / bpm;
    for (let i = 0; 0.4 + i * period < 23; i++) {
      const timeS = 0.4 + i * period;
      addClick(out, timeS, random);
      addClick(out, timeS + period / 2, random);
      if (i % beatsPerBar === 0) addChord(out, timeS, 0.2, [28]);
      strums.push({ timeS, rootPc: [4, 9, 7, 11][Math.floor(i / beatsPerBar) % 4], weight: 1 });
    }
    return { out, strums };
  }

  it.each([
    [90, 4],
    [120, 4],
    [150, 4],
    [120, 3],
  ])('follows %i bpm in bars of %i', (bpm, beatsPerBar) => {
    const { out, strums } = clickTrack(bpm, beatsPerBar);
    const ranked = rankMeters(computeOnsetStrength(out, RATE), strums, 24, meterWeights);
    const grid = ranked && gridOfMeter(ranked.reading);
    expect(grid?.tempoBpm).toBeGreaterThan(bpm * 0.98);
    expect(grid?.tempoBpm).toBeLessThan(bpm * 1.02);
    expect(grid?.meter.beats).toBe(beatsPerBar);
    const bar = (60 / bpm) * beatsPerBar;
    for (const downbeat of grid?.downbeatsS.slice(1, -1) ?? []) {
      const miss = Math.abs((downbeat - 0.4) / bar - Math.round((downbeat - 0.4) / bar)) * bar;
      expect(miss).toBeLessThan(0.03);
    }
    const all = ranked?.alternatives ?? [];
    const shares = all.map((a) => a.confidence);
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
    // Half or double of it stays, however unlikely.
    const octaves = all.filter((a) => Math.abs(Math.abs(Math.log2(a.tempoBpm / bpm)) - 1) < 0.06);
    expect(octaves.length).toBeGreaterThan(0);
  });

  it.each([40, 260])('keeps %i bpm among the readings of nothing but quarter notes', (bpm) => {
    const out = new Float32Array(24 * RATE);
    const strums: MeterStrum[] = [];
    for (let i = 0; 0.4 + (60 / bpm) * i < 23.5; i++) {
      const timeS = 0.4 + (60 / bpm) * i;
      addChord(out, timeS, 0.2, [[28, 33][Math.floor(i / 4) % 2]]);
      strums.push({ timeS, rootPc: [4, 9][Math.floor(i / 4) % 2], weight: 1 });
    }
    const ranked = rankMeters(computeOnsetStrength(out, RATE), strums, 24, meterWeights);
    const tempi = ranked?.alternatives.map((a) => a.tempoBpm) ?? [];
    expect(Math.min(...tempi.map((t) => Math.abs(t / bpm - 1)))).toBeLessThan(0.04);
  });

  it('has no pulse for silence or a moment of sound', () => {
    expect(findPulses(computeOnsetStrength(new Float32Array(10 * RATE), RATE), 10)).toEqual([]);
    expect(rankMeters(computeOnsetStrength(new Float32Array(RATE), RATE), [], 1, meterWeights)).toBeNull();
  });

  it('goes on to both ends of the recording', () => {
    const pulse = extendPulse([2, 2.5, 3, 3.5], 6);
    expect(pulse[0]).toBeCloseTo(0.5, 9);
    expect(pulse.at(-1)).toBeCloseTo(5.5, 9);
  });
});

describe('middle and sides', () => {
  const tone = Float32Array.from({ length: 2000 }, (_, i) => Math.sin(i / 9));
  const other = Float32Array.from({ length: 2000 }, (_, i) => Math.sin(i / 7));

  it('are told apart for two guitars, and not for one channel or two that are the same', () => {
    expect(splitStereo({ channels: [tone], sampleRate: RATE }).side).toBeNull();
    expect(splitStereo({ channels: [tone, tone], sampleRate: RATE }).side).toBeNull();
    expect(splitStereo({ channels: [tone, other], sampleRate: RATE }).side).not.toBeNull();
  });

  it('lose nothing when one channel is turned over', () => {
    const { mid, side } = splitStereo({ channels: [tone, tone.map((v) => -v)], sampleRate: RATE });
    expect(side).toBeNull();
    expect(mid[100]).toBeCloseTo(tone[100], 6);
  });
});

describe('sounding', () => {
  it('ends where the sound has gone, at the latest with the next strum', () => {
    const out = new Float32Array(4 * RATE);
    addChord(out, 0.5, 0.8, [45, 52]);
    addChord(out, 2, 1.9, [45, 52]);
    const [first, second] = findSoundingEnds(out, RATE, [
      { timeS: 0.5, endS: 2 },
      { timeS: 2, endS: 3 },
    ]);
    expect(Math.abs(first - 1.3)).toBeLessThan(0.05);
    expect(second).toBe(3);
  });
});

describe('chords', () => {
  const chords = [
    [40, 47, 52],
    [45, 52],
    [43, 50, 55],
    [40, 46, 52],
  ];

  it('are named from overdriven sounds by root and lowest note', () => {
    const strings = new Float32Array(6 * RATE);
    chords.forEach((notes, i) => addChord(strings, i, 0.95, notes));
    const out = strings.map((v) => Math.tanh(6 * v + 0.1));
    const network = createChordCommittee(chordWeights);
    const extract = createChordSpectrum(RATE);
    const evidence = chords.map((_, i) => {
      const spectrum = new Float32Array(SPECTRUM_SIZE);
      extract(out, i * RATE, (i + 0.95) * RATE, 0, spectrum);
      return network(spectrum, null);
    });
    expect(decodeChords(evidence).map((c) => c.bass)).toEqual([40, 45, 43, 40]);
  });
});

describe('key', () => {
  it('hears E minor in E, G, A and B', () => {
    const strums = [40, 43, 45, 40, 47, 40].map((root, i) => strumOf(i, i + 1, root));
    expect(estimateKey(strums)?.key).toEqual({ tonic: 'E', mode: 'minor' });
  });

  it('has no key without a pitch', () => {
    expect(estimateKey([])).toBeNull();
  });
});

describe('form', () => {
  const bar = (start: number, roots: readonly number[]): HeardStrum[] =>
    roots.map((root, i) => strumOf(start + i * 0.5, start + i * 0.5 + 0.5, root));
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

  it('gives a riff one length, at whatever height it is played', () => {
    const section = (label: string, startBar: number, barsPerPass: number, passes: number): HeardSection => ({
      label,
      startBar,
      barsPerPass,
      passes,
      startS: 2 * startBar,
      endS: 2 * (startBar + barsPerPass * passes),
      transposeOf: label === 'A+2' ? { label: 'A', semitones: 2 } : null,
      startSureness: 1,
      orElseBars: null,
      likeRiff: null,
    });
    const passes = (sections: readonly HeardSection[]): unknown =>
      toOnePassLength(sections).map((s) => [s.label, s.startBar, s.barsPerPass, s.passes]);
    expect(passes([section('A', 0, 4, 2), section('B', 8, 2, 3), section('A+2', 14, 8, 1)])).toEqual([
      ['A', 0, 4, 2],
      ['B', 8, 2, 3],
      ['A+2', 14, 4, 2],
    ]);
    expect(passes([section('A', 0, 8, 1), section('A', 8, 4, 2)])).toEqual([
      ['A', 0, 8, 1],
      ['A', 8, 8, 1],
    ]);
    // Half of it is played: then that half is the riff.
    expect(passes([section('A', 0, 8, 1), section('A', 8, 4, 1)])).toEqual([
      ['A', 0, 4, 2],
      ['A', 8, 4, 1],
    ]);
  });

  it('says nothing about silence', () => {
    expect(findSections([], downbeats(4), 8)).toEqual([]);
  });

  it('never says that a section may begin where another one does', () => {
    const riffC = [38, 36, 33, 41];
    const plan = [riffA, riffB, riffC].flatMap((riff) => [riff, riff, riff, riff]);
    const strums = plan.flatMap((roots, i) => bar(i * 2, roots));
    const sections = findSections(strums, downbeats(plan.length), 2 * plan.length);
    const starts = new Set(sections.map((s) => s.startBar));
    expect(starts.size).toBeGreaterThan(1);
    for (const { startBar, orElseBars, startSureness } of sections) {
      if (orElseBars !== null) expect(starts.has(startBar + orElseBars)).toBe(false);
      expect(startSureness).toBeGreaterThan(0);
      expect(startSureness).toBeLessThanOrEqual(1);
    }
  });
});
