import { describe, expect, it } from 'vitest';
import { integratedLoudness } from '../dsp';
import { addChord } from '../mir/test-sounds';
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG, PLAIN_STRUM, type SongDocument } from '../riff';
import { toInt16 } from '../units';
import { holdSound, type StereoPair } from './held-sound';
import { notesAt, stageAt } from './listen-in';
import { createMix } from './mix';
import { partsFrom } from './order';
import { createTabInStep } from './tab-in-step';

const RATE = 22_050;
const held = (left: Float32Array, right = left) => holdSound([toInt16(left), toInt16(right)], RATE);
const tone = (hz: number, seconds: number, level = 0.5): Float32Array =>
  Float32Array.from({ length: seconds * RATE }, (_, n) => level * Math.sin((2 * Math.PI * hz * n) / RATE));
const rms = (samples: Float32Array): number =>
  Math.sqrt(samples.reduce((sum, v) => sum + v * v, 0) / samples.length);
const asItIs = { isolation: null, toEars: (pair: StereoPair): StereoPair => pair, tab: null };

/** Four power chords from second 1 on. */
const SONG: SongDocument = {
  ...PLAIN_SONG,
  grid: { beatsS: [1, 2, 3, 4, 5], bars: [{ beat: 0, beats: 4, unit: 4 }] },
  riffs: [
    {
      ...PLAIN_RIFF,
      id: 'r',
      letter: 'A',
      name: 'R',
      bars: [{ beats: 4, unit: 4 }],
      strums: [0, 960, 1920, 2880].map((startTicks) => ({
        ...PLAIN_STRUM,
        id: String(startTicks),
        startTicks,
        durationTicks: 960,
        frets: [
          { string: 6, fret: 3 },
          { string: 5, fret: 5 },
        ],
        trust: 'heard',
      })),
    },
  ],
  sections: [{ ...PLAIN_SECTION, id: 's', name: 'S', riffId: 'r', startBar: 0, passes: 1, transpose: 0 }],
};

describe('a held sound', () => {
  it('gives back what it was given, to the last of 16 bits, and clips what is over full scale', () => {
    const [left, right] = held(Float32Array.of(0.25, -1, 7), Float32Array.of(0, 0.5, NaN)).cut(0, 3);
    [0.25, -1, 1].forEach((v, n) => expect(left[n]).toBeCloseTo(v, 4));
    [0, 0.5, 0].forEach((v, n) => expect(right[n]).toBeCloseTo(v, 4));
  });

  it('is copied whole into arrays of any kind', () => {
    const into = [new Float32Array(3), new Float64Array(3)] as const;
    held(Float32Array.of(0.25, -1, 2)).copyInto(into);
    for (const channel of into) [0.25, -1, 1].forEach((v, n) => expect(channel[n]).toBeCloseTo(v, 4));
  });

  it('ends where it ends', () => {
    expect(held(new Float32Array(100)).cut(90, 200)[0]).toHaveLength(10);
  });

  it('draws columns against its loudest sample, and nothing beyond its ends', () => {
    const sound = held(Float32Array.from({ length: RATE }, (_, n) => (n < RATE / 2 ? 0.1 : -0.4)));
    const { lows, highs } = sound.peaks(0, 2, 4);
    expect([...highs].map((v) => Number(v.toFixed(2)))).toEqual([0.25, -1, 0, 0]);
    expect(lows[1]).toBeCloseTo(-1, 3);
  });

  it('refuses channels of two lengths', () => {
    expect(() => holdSound([new Int16Array(3), new Int16Array(4)], RATE)).toThrow('3 and 4 samples');
  });
});

describe('a mix', () => {
  it('of the recording is the recording, through the ears that are wanted', () => {
    const sound = held(tone(220, 1), tone(330, 1));
    const [left, right] = createMix(sound, { ...asItIs, source: 'recording', toEars: ([l]) => [l, l] })(
      0,
      500,
    );
    expect(left).toEqual(right);
    expect(left).toEqual(sound.cut(0, 500)[0]);
  });

  it('is the same whichever way it is cut, isolated too', () => {
    const sound = held(tone(110, 8), tone(990, 8));
    const isolation = { pan: null, band: [90, 300] as const, isWithoutHits: false };
    const mix = createMix(sound, { ...asItIs, source: 'recording', isolation });
    const whole = mix(0, sound.length)[0];
    const part = mix(3 * RATE, 4 * RATE)[0];
    for (let n = 0; n < part.length; n += 97) expect(part[n]).toBeCloseTo(whole[3 * RATE + n], 4);
    expect(rms(mix(2 * RATE, 3 * RATE)[1])).toBeLessThan(0.2 * rms(sound.cut(2 * RATE, 3 * RATE)[1]));
  });

  it('of one in each ear has the recording left and the tab right; without a tab that ear is silent', () => {
    const sound = held(tone(220, 6, 0.4), tone(220, 6, 0.2));
    const tab = createTabInStep(SONG, sound);
    const [left, right] = createMix(sound, { ...asItIs, source: 'each', tab })(RATE, 2 * RATE);
    expect(rms(left)).toBeCloseTo(0.3 / Math.SQRT2, 2);
    expect(rms(right)).toBeGreaterThan(0.01);
    expect(rms(createMix(sound, { ...asItIs, source: 'each' })(RATE, 2 * RATE)[1])).toBe(0);
  });
});

describe('the tab in step', () => {
  it('is as loud as its recording', () => {
    for (const level of [0.5, 0.02]) {
      const sound = held(tone(196, 6, level));
      const played = createTabInStep(SONG, sound)(RATE, 5 * RATE);
      const [own, wanted] = [
        integratedLoudness([played, played], RATE),
        integratedLoudness(sound.cut(RATE, 5 * RATE), RATE),
      ];
      expect(Math.abs(own! - wanted!)).toBeLessThan(1.5);
    }
  });

  it('is silent where nothing is written', () => {
    const sound = held(tone(196, 2));
    expect(rms(createTabInStep(PLAIN_SONG, sound)(0, RATE))).toBe(0);
  });
});

describe('the parts of a song', () => {
  it.each([
    [0, 100],
    [35, 100],
    [100, 100],
    [-5, 40],
    [500, 33],
  ])('from %i on hold all %i samples once, the needle first', (needle, length) => {
    const parts = partsFrom(needle, length, 10, 16);
    const covered = parts.flatMap(({ from, to }) => Array.from({ length: to - from }, (_, i) => from + i));
    expect([...covered].sort((a, b) => a - b)).toEqual(Array.from({ length }, (_, i) => i));
    expect(parts[0].from).toBe(needle > 0 && needle < length ? needle : 0);
    for (const { from, to } of parts) expect(to - from).toBeLessThanOrEqual(16);
  });

  it('are none of a song without length', () => {
    expect(partsFrom(0, 0, 10, 16)).toEqual([]);
  });
});

describe('a closer look', () => {
  it('sees on which side a sound stands', () => {
    const silence = new Float32Array(2 * RATE);
    const shares = stageAt(held(tone(440, 2), silence), 1);
    const left = shares.slice(0, Math.floor(shares.length / 2)).reduce((a, b) => a + b, 0);
    expect(left).toBeGreaterThan(0.9 * shares.reduce((a, b) => a + b, 0));
  });

  it('hears the notes that sound, and has no answer for no place', () => {
    const chord = new Float32Array(2 * RATE);
    addChord(chord, 0.5, 1, [43, 50, 55]);
    const sound = held(chord.map((v) => Math.tanh(3 * v)));
    const notes = notesAt(sound, [{ startS: 0.5, endS: 1.4 }], 0)!;
    // Index 0 is MIDI 31.
    for (const midi of [43, 50]) expect(notes.probability[midi - 31]).toBeGreaterThan(0.5);
    expect(notes.probability[46 - 31]).toBeLessThan(0.2);
    expect(notesAt(sound, [], 0)).toBeNull();
  });
});
