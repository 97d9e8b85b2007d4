import { describe, expect, it } from 'vitest';
import { CHORD_FORMS } from './chord-forms.data';
import { BASS_NOTES, FORMS, LOWEST_BASS, type ChordEvidence } from './chord-network';
import { decodeChords } from './chord-decoding';
import { settleChords, settleStrokes, type Settled, type SettledStrum } from './settled';
import { strokeProbability, type StrokeProbabilities } from './strokes';

const settledStrum = (timeS: number, marks: Partial<SettledStrum> = {}): SettledStrum => ({
  timeS,
  midi: [40, 47],
  palmMuted: false,
  dead: false,
  ...marks,
});
const settled = (startS: number, endS: number, strums: readonly SettledStrum[]): Settled => ({
  referenceCents: null,
  spans: [{ startS, endS }],
  strums,
});
const doubtful: StrokeProbabilities = { ring: 0.3, palmMute: 0.2, dead: 0.05 };

describe('settled strokes', () => {
  it('are certain, and nothing else is struck inside of their spans', () => {
    const found = settleStrokes(
      [0.5, 1, 1.5],
      [doubtful, doubtful, doubtful],
      settled(0, 2, [settledStrum(1.02)]),
    );
    expect(found.timesS).toEqual([0.5, 1, 1.5]);
    expect(found.probabilities.map(strokeProbability)).toEqual([0, 1, 0]);
    expect(found.says.map((s) => (typeof s === 'object' ? 'strum' : s))).toEqual(['none', 'strum', 'none']);
  });

  it('are added where nothing was heard, in order of time', () => {
    const found = settleStrokes([0.5, 1.5], [doubtful, doubtful], settled(0, 2, [settledStrum(1)]));
    expect(found.timesS).toEqual([0.5, 1, 1.5]);
    expect(strokeProbability(found.probabilities[1])).toBe(1);
  });

  it('teach that this player mutes where the network hears ringing', () => {
    const times = [0, 1, 2, 3, 4, 5, 10];
    const ringing: StrokeProbabilities = { ring: 0.55, palmMute: 0.4, dead: 0 };
    const strums = times.slice(0, 6).map((t) => settledStrum(t, { palmMuted: true }));
    const { probabilities } = settleStrokes(
      times,
      times.map(() => ringing),
      settled(-1, 6, strums),
    );
    const outside = probabilities[6];
    expect(outside.palmMute).toBeGreaterThan(outside.ring);
    // Whether it is a stroke at all is not their say.
    expect(strokeProbability(outside)).toBeCloseTo(0.95, 6);
  });

  it('change nothing when nothing is settled', () => {
    const found = settleStrokes([1], [doubtful], { referenceCents: null, spans: [], strums: [] });
    expect(found.probabilities).toEqual([doubtful]);
  });
});

describe('settled chords', () => {
  const indexOf = (bass: number, notes: string): number =>
    (bass - LOWEST_BASS) * FORMS + CHORD_FORMS.findIndex((f) => f.notes?.join() === notes);
  /** Evidence for some classes; all others are far away. */
  const evidence = (shares: Readonly<Record<number, number>>): ChordEvidence => {
    const logProbabilities = new Float32Array(BASS_NOTES * FORMS).fill(-14);
    for (const [index, share] of Object.entries(shares)) logProbabilities[Number(index)] = Math.log(share);
    return { logProbabilities, presence: () => new Float32Array(29) };
  };
  const threeStrings = (bass: number): ChordEvidence =>
    evidence({ [indexOf(bass, '0,7,12')]: 0.6, [indexOf(bass, '0,7')]: 0.4 });

  it('stay as they are settled, whatever is heard', () => {
    const [chord] = decodeChords(settleChords([threeStrings(40)], [settledStrum(0, { midi: [45, 52] })]));
    expect(chord.midi).toEqual([45, 52]);
  });

  it('teach how many strings this player strikes, on other roots too', () => {
    const heard = [40, 43, 45, 47, 50].map(threeStrings);
    const says = [40, 43, 45, 47].map((bass) => settledStrum(0, { midi: [bass, bass + 7] }));
    const before = decodeChords(heard);
    const after = decodeChords(settleChords(heard, [...says, null]));
    expect(before[4].midi).toEqual([50, 57, 62]);
    expect(after[4].midi).toEqual([50, 57]);
  });

  it('keep sets of notes that have no name', () => {
    const [chord] = decodeChords(settleChords([threeStrings(40)], [settledStrum(0, { midi: [40, 47, 59] })]));
    expect(chord.midi).toEqual([40, 47, 59]);
  });
});
