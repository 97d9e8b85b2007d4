/**
 * From what each strum's spectrum says to one reading of all strums: songs keep to few chords and few ways to play
 * them, so what was clear in one place decides what was doubtful in another. Expectation maximisation over the
 * song's own vocabulary (Dempster, Laird and Rubin 1977), after pooling the evidence of strums that are alike (`chord-pooling.ts`).
 */
import { identifyChord } from '../../theory';
import type { MidiNote } from '../../units';
import { withoutBassGuitar } from './bass-guitar';
import { CHORD_SHAPES } from './chord-shapes.data';
import { spareFullChords } from './full-chords';
import { doubtStrings, pullDoubling, STRINGS_LEAST_WRONG } from './octave-doubling';
import { poolPasses, poolSoundingAlike } from './chord-pooling';
import { BASS_NOTES, SHAPES, LOWEST_BASS, type ChordEvidence } from './chord-network';

export interface DecodedChord {
  /** Lowest first. */
  readonly midi: readonly MidiNote[];
  readonly bass: MidiNote;
  readonly shape: number;
  /** Of this reading against all others. */
  readonly probability: number;
  /** Readings that come next, likeliest first. */
  readonly alternatives: readonly { readonly midi: readonly MidiNote[]; readonly probability: number }[];
  /** Of exactly these notes, lowest first. */
  readonly probabilityOf: (midi: readonly MidiNote[]) => number;
}

const CLASSES = BASS_NOTES * SHAPES;
/**
 * Fifths with the fifth lowest are drawn for training as one in six of those with the root lowest. On records they are rarer,
 * and where a bass guitar plays the root they are what a full power chord is most easily mistaken for.
 */
const FIFTH_LOWEST_RARER = 30;
const LOG_PRIOR = CHORD_SHAPES.map(({ notes }) =>
  notes?.[1] === 5 && notes.every((n) => n === 0 || n === 5 || n === 12) ? -Math.log(FIFTH_LOWEST_RARER) : 0,
);
/** Forms that are the same chord on the same lowest note; those that can't be named, each by itself. */
const SHAPES_OF_CHORD: readonly (readonly number[])[] = groupShapes();
const ROUNDS = 4;
/** Weight of the song's vocabulary against the evidence of one strum. */
const VOCABULARY_WEIGHT = 0.7;
/** What a chord that the song has not shown yet counts, in strums; shapes that it has shown count more. */
const UNSEEN = 0.004;
const SEEN_SHAPE = 0.03;
/** A chord that a tab has counts as one that was heard once: rare ones are not ruled out for being rare. */
const WRITTEN = 1;
/** Readings that are kept beside the best one, and how likely they must be. */
const ALTERNATIVES = 3;
const LEAST_LIKELY = 0.01;
/** A note of an unnamed shape sounds from this probability on. */
const PRESENT = 0.5;

function groupShapes(): number[][] {
  const groups = new Map<string, number[]>();
  CHORD_SHAPES.forEach(({ notes, rootAbove }, shape) => {
    const quality = notes && identifyChord(notes)?.quality;
    const chord = quality ? `${rootAbove} ${quality}` : String(shape);
    groups.set(chord, [...(groups.get(chord) ?? []), shape]);
  });
  return [...groups.values()];
}

function vocabularyOf(posteriors: readonly Float32Array[], written: ReadonlySet<number>): Float32Array {
  const counts = new Float32Array(CLASSES);
  for (const c of written) counts[c] = WRITTEN;
  const shapes = new Float32Array(SHAPES);
  for (const posterior of posteriors) {
    for (let c = 0; c < CLASSES; c++) counts[c] += posterior[c];
  }
  for (let c = 0; c < CLASSES; c++) shapes[c % SHAPES] += counts[c];
  const total = posteriors.length;
  return counts.map((n, c) => Math.log((n + UNSEEN + (SEEN_SHAPE * shapes[c % SHAPES]) / total) / total));
}

function posteriorOf(evidence: Float32Array, prior: Float32Array | null): Float32Array {
  const p = evidence.slice();
  let top = -Infinity;
  for (let c = 0; c < CLASSES; c++) {
    p[c] += LOG_PRIOR[c % SHAPES];
    if (prior) p[c] += prior[c];
    if (p[c] > top) top = p[c];
  }
  let sum = 0;
  for (let c = 0; c < CLASSES; c++) sum += p[c] = Math.exp(p[c] - top);
  for (let c = 0; c < CLASSES; c++) p[c] /= sum;
  return p;
}

/** Readings of all strums, each weighed by how often the song plays it. */
function withVocabulary(evidence: readonly Float32Array[], written: ReadonlySet<number>): Float32Array[] {
  let posteriors = evidence.map((e) => posteriorOf(e, null));
  for (let round = 0; round < ROUNDS; round++) {
    const prior = vocabularyOf(posteriors, written).map((log) => VOCABULARY_WEIGHT * log);
    spareFullChords(prior);
    posteriors = evidence.map((e) => posteriorOf(e, prior));
  }
  return posteriors;
}

/** What is known of strums besides their own evidence. */
export interface Together {
  /** For each strum the indices of those, with itself, at the same position of repeated passes; their evidence is pooled. */
  readonly groups?: readonly (readonly number[])[] | undefined;
  /** What its riff says for one string more, see `octave-doubling.ts`. */
  readonly pulls?: readonly number[] | null;
  /** In order: strums near each other that sound alike decide together (`chord-pooling.ts`); null: each for itself. */
  readonly timesS?: readonly number[] | null;
  /** What a tab has there: its chords are in the vocabulary of the song, whether they are heard or not. */
  readonly written?: readonly (readonly MidiNote[])[];
}

/** The probability of every reading of each strum; index as in {@link ChordEvidence}. */
function readChords(
  strums: readonly ChordEvidence[],
  { groups = strums.map((_, k) => [k]), pulls = null, timesS = null, written = [] }: Together,
): Float32Array[] {
  if (strums.length === 0) return [];
  const known = new Set(written.flatMap((midi) => readingOf(midi) ?? []));
  const said = strums.map((strum) => strum.logProbabilities);
  const passes = poolPasses(said, groups);
  const evidence = timesS ? poolSoundingAlike(passes, said, timesS) : passes;
  if (pulls) evidence.forEach((own, k) => pullDoubling(own, pulls[k]));
  const posteriors = withVocabulary(evidence, known);
  const ofGuitar = withoutBassGuitar(evidence, posteriors);
  return ofGuitar ? withVocabulary(ofGuitar, known) : posteriors;
}

/** The likeliest reading of each strum. */
export function decodeChords(strums: readonly ChordEvidence[], together: Together = {}): DecodedChord[] {
  const { groups } = together;
  return readChords(strums, together).map((posterior, k) => {
    const read = (reading: number): { midi: number[]; bass: MidiNote; shape: number } => {
      const bass = LOWEST_BASS + Math.floor(reading / SHAPES);
      const shape = reading % SHAPES;
      const members = groups?.[k] ?? [k];
      const above = CHORD_SHAPES[shape].notes ?? notesPresent(members.map((i) => strums[i].activation(bass)));
      return { midi: above.map((a) => bass + a), bass, shape };
    };
    const best = likeliest(posterior);
    // Behind the choice: it is doubted how many strings sound, not that it is a power chord.
    doubtStrings(posterior, together.written ? STRINGS_LEAST_WRONG : undefined);
    return {
      ...read(best),
      probability: posterior[best],
      alternatives: likelyBeside(best, posterior).map((c) => ({
        midi: read(c).midi,
        probability: posterior[c],
      })),
      probabilityOf: (midi) => probabilityOf(posterior, midi),
    };
  });
}

/** Exactly these notes, by any shape; for a set that no shape has, the one that stands for all others; null beyond the lowest notes. */
function readingOf(midi: readonly MidiNote[]): number | null {
  const bass = midi[0] - LOWEST_BASS;
  if (!(bass >= 0 && bass < BASS_NOTES)) return null;
  const above = midi.map((note) => note - midi[0]).join();
  const known = CHORD_SHAPES.findIndex(({ notes }) => notes?.join() === above);
  return bass * SHAPES + (known >= 0 ? known : CHORD_SHAPES.length - 1);
}

function probabilityOf(posterior: Float32Array, midi: readonly MidiNote[]): number {
  const reading = readingOf(midi);
  return reading === null ? 0 : posterior[reading];
}

/**
 * First the chord, by the sum of the shapes that play it, then its shape: three ways to play a major chord, each a little doubtful,
 * must not lose to the one power chord.
 */
function likeliest(posterior: Float32Array): number {
  let [best, bestOfChord] = [0, -1];
  for (let bass = 0; bass < CLASSES; bass += SHAPES) {
    for (const shapes of SHAPES_OF_CHORD) {
      let [ofChord, shape] = [0, shapes[0]];
      for (const f of shapes) {
        ofChord += posterior[bass + f];
        if (posterior[bass + f] > posterior[bass + shape]) shape = f;
      }
      if (ofChord > bestOfChord) [best, bestOfChord] = [bass + shape, ofChord];
    }
  }
  return best;
}

/** Readings behind the best one that are worth a thought, likeliest first. */
function likelyBeside(best: number, posterior: Float32Array): number[] {
  const others: number[] = [];
  for (let c = 0; c < CLASSES; c++) if (c !== best && posterior[c] >= LEAST_LIKELY) others.push(c);
  return others.sort((a, b) => posterior[b] - posterior[a]).slice(0, ALTERNATIVES);
}

function notesPresent(activations: readonly Float32Array[]): number[] {
  const above = [0];
  for (let i = 1; i < activations[0].length; i++) {
    const mean = activations.reduce((sum, p) => sum + p[i], 0) / activations.length;
    if (mean >= PRESENT) above.push(i);
  }
  return above;
}
