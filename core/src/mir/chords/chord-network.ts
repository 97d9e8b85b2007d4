/**
 * Which notes a strum sounds, by a network that looks at the same spectrum from every possible lowest note: the same
 * weights see what lies from {@link BELOW} semitones under that note to {@link ABOVE} over it, in the middle and in
 * the sides. What was seen from a note is then compared with what was seen from the {@link CONTEXT_NOTES} around it, since an octave, a fifth
 * or a bass guitar under it explains the same partials; so comes how well each shape of {@link CHORD_SHAPES} fits there. One
 * softmax over all lowest notes and shapes makes probabilities. Trained on amplified chords, it has learned which tones
 * distortion makes.
 */
import type { MidiNote } from '../../units';
import { CHORD_SHAPES } from './chord-shapes.data';
import { BINS_PER_SEMITONE, FIRST_MIDI, SPECTRUM_SIZE } from './chord-spectrum';
import type { DenseLayer } from '../net/dense-kernel';
import { applyLayer, readLayer, type LayerWeights } from '../net/network';
import { logistic, softmax } from '../net/probability';

const BELOW = 14;
const ABOVE = 50;
/** Lowest notes looked for: from a low A to the high F# of the first string. */
export const LOWEST_BASS: MidiNote = 31;
export const HIGHEST_BASS: MidiNote = 66;
export const BASS_NOTES = HIGHEST_BASS - LOWEST_BASS + 1;
export const SHAPES = CHORD_SHAPES.length;
/** Semitones over the lowest note that are answered one by one: whether each sounds. */
export const ACTIVATIONS = 29;

/** Semitones from a lowest note to those that it is mistaken for, itself among them. */
export const CONTEXT_NOTES = [-24, -19, -12, -7, -5, -2, -1, 0, 1, 2, 5, 7, 12, 19, 24];

const WINDOW = (BELOW + ABOVE) * BINS_PER_SEMITONE;
/** Middle, sides, and the height of the lowest note, since low notes have fewer bins. */
export const CHORD_INPUTS = 2 * WINDOW + 2;

export interface ChordNetworkWeights {
  /** What is seen from each lowest note alone. */
  readonly hidden: LayerWeights;
  /** What is seen, brought down to a few values, which other lowest notes are told. */
  readonly bottleneck: LayerWeights;
  /** Reads the bottleneck of each of the {@link CONTEXT_NOTES}; its outputs are added to what was seen alone. */
  readonly context: LayerWeights;
  readonly shapes: LayerWeights;
  readonly activation: LayerWeights;
}

/** Writes what the network sees of two spectra from `bass`; `side` is null where nothing stands in the sides. */
export function writeChordInput(
  mid: Float32Array,
  side: Float32Array | null,
  bass: MidiNote,
  out: Float32Array,
): void {
  const from = (bass - BELOW - FIRST_MIDI) * BINS_PER_SEMITONE;
  for (let i = 0; i < WINDOW; i++) {
    const bin = from + i;
    const inside = bin >= 0 && bin < SPECTRUM_SIZE;
    // Spectra have unit length: times this they are about 1 where a partial is.
    out[i] = inside ? 4 * mid[bin] : 0;
    out[WINDOW + i] = inside && side ? 4 * side[bin] : 0;
  }
  out[2 * WINDOW] = (bass - 45) / 12;
  out[2 * WINDOW + 1] = side ? 1 : 0;
}

export interface ChordEvidence {
  /** Log-probability of each shape on each lowest note: index = (bass - LOWEST_BASS) * SHAPES + shape. */
  readonly logProbabilities: Float32Array;
  /** Probability that each semitone over the lowest note sounds, if that note is the lowest. */
  activation(bass: MidiNote): Float32Array;
}

/** Two recordings of one strum, each believed half: the geometric mean of their probabilities. What sounds one by one is the first's. */
export function bothSay(a: ChordEvidence, b: ChordEvidence): ChordEvidence {
  const mean = a.logProbabilities.map((log, c) => (log + b.logProbabilities[c]) / 2);
  const norm = Math.log(mean.reduce((sum, log) => sum + Math.exp(log), 0));
  return { ...a, logProbabilities: mean.map((log) => log - norm) };
}

export type ChordNetwork = (mid: Float32Array, side: Float32Array | null) => ChordEvidence;

export function createChordNetwork(weights: ChordNetworkWeights): ChordNetwork {
  const hiddenLayer = readLayer(weights.hidden, CHORD_INPUTS);
  const bottleneckLayer = readLayer(weights.bottleneck, hiddenLayer.outputs);
  const contextLayer = readLayer(weights.context, CONTEXT_NOTES.length * bottleneckLayer.outputs);
  const shapes = readLayer(weights.shapes, hiddenLayer.outputs);
  const activation: DenseLayer = readLayer(weights.activation, hiddenLayer.outputs);
  const input = new Float32Array(BASS_NOTES * CHORD_INPUTS);
  const bottlenecks = new Float32Array(BASS_NOTES * bottleneckLayer.outputs);
  const told = new Float32Array(BASS_NOTES * contextLayer.inputs);
  const added = new Float32Array(BASS_NOTES * contextLayer.outputs);
  return (mid, side) => {
    const seen = new Float32Array(BASS_NOTES * hiddenLayer.outputs);
    const all = new Float32Array(BASS_NOTES * SHAPES);
    for (let b = 0; b < BASS_NOTES; b++) {
      writeChordInput(mid, side, LOWEST_BASS + b, rowAt(input, b, CHORD_INPUTS));
    }
    applyLayer(hiddenLayer, input, BASS_NOTES, seen, true);
    applyLayer(bottleneckLayer, seen, BASS_NOTES, bottlenecks, false);
    told.fill(0);
    for (let b = 0; b < BASS_NOTES; b++) {
      CONTEXT_NOTES.forEach((semitones, r) => {
        const other = b + semitones;
        if (other < 0 || other >= BASS_NOTES) return;
        told.set(
          rowAt(bottlenecks, other, bottleneckLayer.outputs),
          b * contextLayer.inputs + r * bottleneckLayer.outputs,
        );
      });
    }
    applyLayer(contextLayer, told, BASS_NOTES, added, true);
    for (let i = 0; i < added.length; i++) seen[i] += added[i];
    applyLayer(shapes, seen, BASS_NOTES, all, false);
    softmax(all);
    for (let c = 0; c < all.length; c++) all[c] = Math.log(Math.max(1e-9, all[c]));
    return {
      logProbabilities: all,
      activation: (bass) => {
        const out = new Float32Array(ACTIVATIONS);
        applyLayer(activation, rowAt(seen, bass - LOWEST_BASS, hiddenLayer.outputs), 1, out, false);
        return out.map(logistic);
      },
    };
  };
}

function rowAt(rows: Float32Array, row: number, width: number): Float32Array {
  return rows.subarray(row * width, (row + 1) * width);
}
