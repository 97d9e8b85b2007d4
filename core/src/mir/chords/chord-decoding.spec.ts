import { describe, expect, it } from 'vitest';
import { decodeChords } from './chord-decoding';
import { CHORD_SHAPES } from './chord-shapes.data';
import { BASS_NOTES, SHAPES, LOWEST_BASS, ACTIVATIONS, type ChordEvidence } from './chord-network';

const shape = (notes: readonly number[] | null): number =>
  CHORD_SHAPES.findIndex((f) => f.notes?.join() === notes?.join());
const FIFTH = shape([0, 7]);
const WITH_OCTAVE = shape([0, 7, 12]);
const UNNAMED = shape(null);

/** Probabilities of some readings; the rest shares what is left. */
function evidence(
  readings: readonly (readonly [bass: number, shape: number, p: number])[],
  sounding: readonly number[] = [],
): ChordEvidence {
  const logProbabilities = new Float32Array(BASS_NOTES * SHAPES).fill(Math.log(1e-6));
  for (const [bass, f, p] of readings) logProbabilities[(bass - LOWEST_BASS) * SHAPES + f] = Math.log(p);
  return {
    logProbabilities,
    activation: () =>
      Float32Array.from({ length: ACTIVATIONS }, (_, i) => (sounding.includes(i) ? 0.9 : 0.1)),
  };
}

describe('decoding of chords', () => {
  it('takes the likeliest reading where nothing else speaks', () => {
    const [chord] = decodeChords([evidence([[40, FIFTH, 0.9]])]);
    expect(chord).toMatchObject({ midi: [40, 47], bass: 40 });
    expect(chord.probability).toBeGreaterThan(0.9);
    // A third string is never ruled out.
    expect(chord.alternatives.map((a) => a.midi)).toEqual([[40, 47, 52]]);
  });

  it('keeps what comes next, likeliest first, with its probability', () => {
    const [chord] = decodeChords([
      evidence([
        [40, FIFTH, 0.6],
        [40, WITH_OCTAVE, 0.3],
        [45, FIFTH, 0.08],
      ]),
    ]);
    expect(chord.alternatives.map((a) => a.midi)).toEqual([
      [40, 47, 52],
      [45, 52],
    ]);
    const sum = chord.probability + chord.alternatives.reduce((s, a) => s + a.probability, 0);
    expect(sum).toBeGreaterThan(0.95);
    expect(sum).toBeLessThan(1.0001);
  });

  it('names the chord by all shapes that play it, before it chooses among them', () => {
    const [chord] = decodeChords([
      evidence([
        [43, WITH_OCTAVE, 0.3],
        [43, shape([0, 7, 12, 16]), 0.2],
        [43, shape([0, 7, 12, 16, 19]), 0.25],
        [43, shape([0, 7, 12, 16, 19, 24]), 0.23],
      ]),
    ]);
    expect(chord.midi).toEqual([43, 50, 55, 59, 62]);
    // The power chord stays the likeliest single reading beside it.
    expect(chord.alternatives[0].midi).toEqual([43, 50, 55]);
  });

  it('lets the vocabulary of the song decide what is doubtful', () => {
    const clear = evidence([[40, WITH_OCTAVE, 0.95]]);
    const doubtful = evidence([
      [40, FIFTH, 0.5],
      [40, WITH_OCTAVE, 0.45],
    ]);
    const chords = decodeChords([clear, clear, clear, doubtful]);
    expect(chords[3].midi).toEqual([40, 47, 52]);
  });

  it('does not rule out a rare chord that a tab has, and not take it for heard either', () => {
    const barre = shape([0, 7, 12, 16, 19, 24]);
    const common = evidence([[40, FIFTH, 0.99]]);
    const told = evidence([
      [44, WITH_OCTAVE, 0.5],
      [44, barre, 0.5],
    ]);
    const strums = [...Array.from({ length: 30 }, () => common), told];
    const midi = [44, 51, 56, 60, 63, 68];
    const of = (written?: readonly (readonly number[])[]): number =>
      decodeChords(strums, written ? { written } : {})[30].probabilityOf(midi);
    expect(of([midi])).toBeGreaterThan(1.2 * of([[44, 51, 56]]));
    const unlike = decodeChords([...strums.slice(0, 30), evidence([[44, WITH_OCTAVE, 0.99]])], {
      written: [midi],
    });
    expect(unlike[30].probabilityOf(midi)).toBeLessThan(0.01);
  });

  it('keeps a clear chord that the song plays only once', () => {
    const usual = evidence([[40, FIFTH, 0.95]]);
    const once = evidence([[46, WITH_OCTAVE, 0.98]]);
    expect(decodeChords([...Array<ChordEvidence>(12).fill(usual), once]).at(-1)?.midi).toEqual([46, 53, 58]);
  });

  it('pools what passes of the same riff say', () => {
    const mostly = evidence([
      [43, FIFTH, 0.6],
      [45, FIFTH, 0.4],
    ]);
    const misheard = evidence([
      [43, FIFTH, 0.4],
      [45, FIFTH, 0.6],
    ]);
    const group = [0, 1, 2];
    expect(
      decodeChords([mostly, misheard, mostly], { groups: [group, group, group] }).map((c) => c.bass),
    ).toEqual([43, 43, 43]);
  });

  it('keeps a strum that is clear and unlike those of the other passes', () => {
    const others = evidence([[43, FIFTH, 0.95]]);
    const clear = evidence([[46, FIFTH, 0.95]]);
    const group = [0, 1, 2, 3];
    const heard = decodeChords([others, others, clear, others], {
      groups: [group, group, [2, 0, 1, 3], group],
    });
    expect(heard.map((c) => c.bass)).toEqual([43, 43, 46, 43]);
  });

  it('reads the notes of an unnamed shape one by one', () => {
    const [chord] = decodeChords([evidence([[43, UNNAMED, 0.9]], [0, 7, 16, 21])]);
    expect(chord.midi).toEqual([43, 50, 59, 64]);
  });

  it('has nothing to say of no strums', () => {
    expect(decodeChords([])).toEqual([]);
  });
});
