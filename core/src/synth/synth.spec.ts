import { describe, expect, it } from 'vitest';
import { createRandom } from '../units';
import { spectrumAnalyserOf, parabolicPeak } from '../dsp';
import {
  performDocument,
  PLAIN_SONG,
  type SongDocument,
  PLAIN_RIFF,
  NO_MARKS,
  PLAIN_STRUM,
  PLAIN_SECTION,
  type Marks,
  type Strum,
} from '../riff';
import { midiToHz } from '../theory';
import { amplify } from './amplifier';
import { renderBand } from './band';
import { renderDrum } from './drums';
import { addDeadStroke, addPluck, movedPitch } from './plucked-string';
import { createTabPlayer } from './tab';

const RATE = 44100;

/** Frequency of the strongest partial near `aroundHz`, refined between bins. */
function partialNear(samples: Float32Array, aroundHz: number): { hz: number; level: number } {
  const analyser = spectrumAnalyserOf(32768);
  const m = new Float32Array(analyser.bins);
  analyser.magnitudes(samples, 2000, m);
  const bin = RATE / 32768;
  let best = Math.round((aroundHz * 0.97) / bin);
  for (let k = best; k < (aroundHz * 1.03) / bin; k++) if (m[k] > m[best]) best = k;
  const { offset } = parabolicPeak(Math.log(m[best - 1]), Math.log(m[best]), Math.log(m[best + 1]));
  return { hz: (best + offset) * bin, level: m[best] };
}

function pluck(midi: number, palmMute: boolean): Float32Array {
  const out = new Float32Array(RATE * 2);
  addPluck(out, 0, RATE, { freqHz: midiToHz(midi), durationS: 1.5, level: 0.5, palmMute }, createRandom(1));
  return out;
}

function energy(samples: Float32Array, fromS: number, toS: number): number {
  return samples.subarray(fromS * RATE, toS * RATE).reduce((s, v) => s + v * v, 0);
}

describe('plucked string', () => {
  it.each([35, 40, 47, 55, 64, 76])('sounds MIDI note %i within 3 cents', (midi) => {
    const { hz } = partialNear(pluck(midi, false), midiToHz(midi));
    expect(Math.abs(1200 * Math.log2(hz / midiToHz(midi)))).toBeLessThan(3);
  });

  it('is over soon under the palm, and stops when the hand stops it', () => {
    const ringing = pluck(40, false);
    const muted = pluck(40, true);
    const share = (s: Float32Array): number => energy(s, 0.3, 0.5) / energy(s, 0, 0.2);
    expect(share(muted)).toBeLessThan(0.05 * share(ringing));
    expect(energy(ringing, 1.6, 2)).toBe(0);
  });

  it('leaves out what does not fit', () => {
    const short = new Float32Array(100);
    expect(() =>
      addPluck(short, 90, RATE, { freqHz: 110, durationS: 1, level: 1, palmMute: false }, createRandom(1)),
    ).not.toThrow();
    addDeadStroke(short, 50, RATE, 1, createRandom(1));
    expect(short.every(Number.isFinite)).toBe(true);
  });
});

describe('amplifier', () => {
  const fifth = Float32Array.from(
    { length: RATE },
    (_, i) => 0.3 * Math.sin((2 * Math.PI * 220 * i) / RATE) + 0.3 * Math.sin((2 * Math.PI * 330 * i) / RATE),
  );

  it('makes the difference tone an octave below the root of a fifth, more with more drive', () => {
    const clean = partialNear(amplify(fifth, RATE, { drive: 0.5 }), 110).level;
    const driven = partialNear(amplify(fifth, RATE, { drive: 10 }), 110).level;
    expect(driven).toBeGreaterThan(3 * clean);
  });

  it('takes away what a guitar loudspeaker does not play', () => {
    const high = Float32Array.from(
      { length: RATE },
      (_, i) => 0.3 * Math.sin((2 * Math.PI * 12000 * i) / RATE),
    );
    expect(energy(amplify(high, RATE, { drive: 1 }), 0.2, 0.9)).toBeLessThan(0.02 * energy(high, 0.2, 0.9));
  });
});

const DOCUMENT: SongDocument = {
  ...PLAIN_SONG,
  grid: {
    beatsS: [0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5],
    bars: [0, 4].map((beat) => ({ beat, beats: 4, unit: 4 })),
  },
  riffs: [
    {
      id: 'r',
      ...PLAIN_RIFF,
      letter: 'A',
      name: 'R',
      bars: [{ beats: 4, unit: 4 }],
      strums: [
        {
          ...PLAIN_STRUM,
          id: 'a',
          startTicks: 0,
          durationTicks: 960,
          frets: [{ string: 6, fret: 3 }],
          trust: 'checked',
        },
        {
          ...PLAIN_STRUM,
          id: 'b',
          startTicks: 1920,
          durationTicks: 240,
          frets: [],
          dead: true,
          trust: 'checked',
        },
      ],
    },
  ],
  sections: [{ id: 's', name: 'S', riffId: 'r', startBar: 0, passes: 2, transpose: 2, ...PLAIN_SECTION }],
};

describe('performance', () => {
  it('plays every pass at its time, moved where the section is', () => {
    expect(
      performDocument(DOCUMENT).map((s) => [s.timeS, s.notes.map((n) => [n.midi, n.endS]), s.dead]),
    ).toEqual([
      [0.5, [[45, 1]], false],
      [1.5, [], true],
      [2.5, [[45, 3]], false],
      [3.5, [], true],
    ]);
  });

  const withSecond = (marks: Partial<Marks>, changes: Partial<Strum> = {}): SongDocument => ({
    ...DOCUMENT,
    riffs: [
      {
        ...DOCUMENT.riffs[0],
        strums: [
          { ...DOCUMENT.riffs[0].strums[0], durationTicks: 1920 },
          {
            ...DOCUMENT.riffs[0].strums[0],
            id: 'b',
            startTicks: 960,
            frets: [{ string: 6, fret: 5 }],
            marks: { ...NO_MARKS, ...marks },
            ...changes,
          },
        ],
      },
    ],
    sections: [{ ...DOCUMENT.sections[0], passes: 1, transpose: 0 }],
  });

  it.each(['slide', 'hammer', 'tie'] as const)('does not strike again for a %s: the note goes on', (join) => {
    const played = performDocument(withSecond({ join }));
    expect(played).toHaveLength(1);
    expect(played[0].notes).toHaveLength(1);
    expect(played[0].notes[0].endS).toBe(1.5);
    const { moves } = played[0].notes[0];
    expect(movedPitch(moves, 0.2)).toBe(0);
    expect(movedPitch(moves, 0.51)).toBe(join === 'tie' ? 0 : 2);
    // Half way up, a slide is between the frets; a hammer has not fallen yet.
    if (join !== 'tie') expect(movedPitch(moves, 0.455)).toBeCloseTo(join === 'slide' ? 1 : 0, 1);
  });

  it.each<[string, Partial<Marks>, number, number]>([
    ['a bend', { bendCents: 200 }, 0.4, 2],
    ['a slide from below', { slideIn: 'below' }, 0, -3],
    ['a slide down and away', { slideOut: 'down' }, 0.5, -5],
    ['a bar dip', { whammyBar: 'dip' }, 0.12, -2],
    ['a dive', { whammyBar: 'dive' }, 0.5, -9],
  ])('moves the pitch of %s', (_, marks, afterS, semitones) => {
    const [, second] = performDocument(withSecond(marks));
    expect(movedPitch(second.notes[0].moves, afterS)).toBeCloseTo(semitones, 1);
  });

  it('leaves rests and blanks silent, sounds harmonics, strikes accents harder', () => {
    expect(performDocument(withSecond({}, { rest: true }))).toHaveLength(1);
    expect(performDocument(withSecond({}, { frets: [] }))).toHaveLength(1);
    const [plain, harmonic] = performDocument(
      withSecond({ harmonic: 'natural', accent: true }, { frets: [{ string: 6, fret: 12 }] }),
    );
    expect(harmonic.notes[0].midi).toBe(52);
    expect(harmonic.level).toBeGreaterThan(plain.level);
    expect(performDocument(withSecond({ harmonic: 'pinch' }))[1].notes.map((n) => n.midi)).toEqual([45, 69]);
    const vibrato = performDocument(withSecond({ vibrato: true }))[1].notes[0].moves.map((m) => m.semitones);
    expect([Math.max(...vibrato), Math.min(...vibrato)]).toEqual([0.3, -0.3]);
  });

  it('bends a string by what is written, measured in its sound', () => {
    const out = new Float32Array(2 * RATE);
    const moves = [
      { afterS: 0.2, semitones: 0 },
      { afterS: 0.4, semitones: 2 },
    ];
    const bent = { freqHz: 110, durationS: 1.8, level: 1, palmMute: false, moves };
    addPluck(out, 0, RATE, bent, createRandom(4));
    const wanted = 110 * 2 ** (2 / 12);
    const { hz } = partialNear(out.subarray(Math.round(0.6 * RATE)), wanted);
    expect(Math.abs(1200 * Math.log2(hz / wanted))).toBeLessThan(4);
  });

  it('renders a band that is the same for the same seed, loud enough and never clipped', () => {
    const options = { sampleRate: 22050, drive: 8, drums: true, bass: true, guitars: 2 } as const;
    const [left, right] = renderBand(DOCUMENT, 440, { ...options, seed: 1 });
    const [again] = renderBand(DOCUMENT, 440, { ...options, seed: 1 });
    expect(again).toEqual(left);
    const peak = [...left, ...right].reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    expect(peak).toBeCloseTo(0.9, 3);
    expect(left).not.toEqual(right);
  });

  it('plays the tab alone at the pitch of the recording, in time to the sample, the same whichever way it is cut', () => {
    const sharp = { ...DOCUMENT, referenceOffsetCents: 30 };
    const tab = createTabPlayer(sharp, { sampleRate: RATE, seed: 3 });
    expect(tab.startS).toBe(0.5);
    const whole = tab.render(0, 4 * RATE);
    const firstSound = whole.findIndex((v) => Math.abs(v) > 0.01);
    expect(firstSound / RATE).toBeCloseTo(0.5, 2);
    // The G of the sixth string, moved up by two semitones, 30 cents sharp.
    const wanted = midiToHz(45.3);
    const { hz } = partialNear(whole.subarray(Math.round(0.5 * RATE)), wanted);
    expect(Math.abs(1200 * Math.log2(hz / wanted))).toBeLessThan(4);

    const cut = tab.render(Math.round(0.8 * RATE), 2 * RATE);
    const same = whole.subarray(Math.round(0.8 * RATE), 2 * RATE);
    expect(cut).toHaveLength(same.length);
    const apart = cut.reduce((most, v, n) => Math.max(most, Math.abs(v - same[n])), 0);
    expect(apart).toBeLessThan(0.02);
  });

  it('plays nothing where nothing is written', () => {
    const tab = createTabPlayer({ ...DOCUMENT, sections: [] }, { sampleRate: RATE, seed: 3 });
    expect(tab.startS).toBeNull();
    expect(tab.render(0, RATE).every((v) => v === 0)).toBe(true);
  });

  it.each(['kick', 'snare', 'hat', 'crash'] as const)('has a %s that dies away', (sound) => {
    const hit = renderDrum(sound, 22050, createRandom(1));
    const half = Math.floor(hit.length / 2);
    const sum = (a: Float32Array): number => a.reduce((s, v) => s + v * v, 0);
    expect(sum(hit.subarray(half))).toBeLessThan(0.3 * sum(hit.subarray(0, half)));
  });
});
