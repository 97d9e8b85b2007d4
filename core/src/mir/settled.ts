/**
 * What the user has settled by ear, for hearing the rest of the song better: inside of its spans the strokes are those
 * that it names and no others, and each sounds the notes that it names. Outside, the same song is played on the same
 * guitar, so kinds of stroke and forms of chord that the networks mistook inside are corrected by as much everywhere (an intercept per
 * class, fitted by penalised logistic regression; Hastie, Tibshirani and Friedman 2009, "The elements of statistical
 * learning", section 4.4).
 */
import type { MidiNote } from '../units';
import { CHORD_FORMS } from './chord-forms.data';
import { BASS_NOTES, FORMS, LOWEST_BASS, PRESENCES, type ChordEvidence } from './chord-network';
import { strokeProbability, type StrokeProbabilities } from './strokes';

export interface SettledStrum {
  readonly timeS: number;
  /** Sounding notes, lowest first; empty for a dead stroke. */
  readonly midi: readonly MidiNote[];
  readonly palmMuted: boolean;
  readonly dead: boolean;
}

export interface Settled {
  /** Pitch of the recording that the notes are counted from; measured anew when null. */
  readonly referenceCents: number | null;
  readonly spans: readonly { readonly startS: number; readonly endS: number }[];
  /** In order of time; those outside of all spans count too. */
  readonly strums: readonly SettledStrum[];
}

export const NOTHING_SETTLED: Settled = { referenceCents: null, spans: [], strums: [] };

/** What is settled of a candidate: the strum that it is, `'none'` where nothing is struck, null where nothing is. */
export type Said = SettledStrum | 'none' | null;

/** A candidate this near is the settled stroke; the tab says where it stands, the recording when it sounds. */
const SAME_STROKE_S = 0.05;
/** Log-probability of what was ruled out: certain, yet finite, so that pooled evidence stays a number. */
const RULED_OUT = -12;
/** Strength of the penalty on the intercepts: about two strums that say the opposite. */
const PENALTY = 2;
const ROUNDS = 40;

export interface SettledCandidates {
  readonly timesS: readonly number[];
  readonly probabilities: readonly StrokeProbabilities[];
  readonly says: readonly Said[];
}

function certain({ palmMuted, dead }: SettledStrum): StrokeProbabilities {
  return { ring: !dead && !palmMuted ? 1 : 0, palmMute: !dead && palmMuted ? 1 : 0, dead: dead ? 1 : 0 };
}

/** Candidates with what is settled put in: missed strokes added, wrong ones ruled out, and the rest corrected. */
export function settleStrokes(
  timesS: readonly number[],
  probabilities: readonly StrokeProbabilities[],
  { spans, strums }: Settled,
): SettledCandidates {
  const taken = new Map<number, SettledStrum>();
  const missed: SettledStrum[] = [];
  for (const strum of strums) {
    let best = -1;
    let nearest = SAME_STROKE_S;
    timesS.forEach((timeS, k) => {
      const distance = Math.abs(timeS - strum.timeS);
      if (!taken.has(k) && distance < nearest) [nearest, best] = [distance, k];
    });
    if (best < 0) missed.push(strum);
    else taken.set(best, strum);
  }
  const isInside = (timeS: number): boolean => spans.some((s) => timeS >= s.startS && timeS < s.endS);
  const says = timesS.map((timeS, k) => taken.get(k) ?? (isInside(timeS) ? ('none' as const) : null));
  const correct = fitStrokeIntercepts(probabilities, says);
  const all = timesS.map((timeS, k) => {
    const said = says[k];
    const nothing = { ring: 0, palmMute: 0, dead: 0 };
    const p = said === null ? correct(probabilities[k]) : said === 'none' ? nothing : certain(said);
    return { timeS, p, said };
  });
  for (const strum of missed) all.push({ timeS: strum.timeS, p: certain(strum), said: strum });
  all.sort((a, b) => a.timeS - b.timeS);
  return {
    timesS: all.map((c) => c.timeS),
    probabilities: all.map((c) => c.p),
    says: all.map((c) => c.said),
  };
}

function softmaxWith(logits: readonly number[], intercepts: readonly number[]): number[] {
  const shifted = logits.map((l, i) => l + intercepts[i]);
  const top = Math.max(...shifted);
  const e = shifted.map((s) => Math.exp(s - top));
  const sum = e.reduce((a, b) => a + b, 0);
  return e.map((v) => v / sum);
}

/** Intercepts that make the true classes likelier, by gradient ascent; all 0 without examples. */
function fitIntercepts(
  examples: readonly { logits: readonly number[]; truth: number }[],
  classes: number,
): number[] {
  const intercepts = new Array<number>(classes).fill(0);
  const step = 1 / (PENALTY + examples.length / 2);
  for (let round = 0; round < ROUNDS && examples.length > 0; round++) {
    const gradient = intercepts.map((b) => -PENALTY * b);
    for (const { logits, truth } of examples) {
      softmaxWith(logits, intercepts).forEach((p, c) => (gradient[c] += (c === truth ? 1 : 0) - p));
    }
    gradient.forEach((g, c) => (intercepts[c] += step * g));
  }
  return intercepts;
}

/** Which kind of stroke it is; whether it is one at all stays as it was heard. */
function fitStrokeIntercepts(
  probabilities: readonly StrokeProbabilities[],
  says: readonly Said[],
): (p: StrokeProbabilities) => StrokeProbabilities {
  const logitsOf = ({ ring, palmMute, dead }: StrokeProbabilities): number[] =>
    [ring, palmMute, dead].map((p) => Math.log(Math.max(1e-5, p)));
  const examples = probabilities.flatMap((p, k) => {
    const said = says[k];
    if (said === null || said === 'none') return [];
    return [{ logits: logitsOf(p), truth: said.dead ? 2 : said.palmMuted ? 1 : 0 }];
  });
  if (examples.length === 0) return (p) => p;
  const intercepts = fitIntercepts(examples, 3);
  return (p) => {
    const [ring, palmMute, dead] = softmaxWith(logitsOf(p), intercepts);
    const stroke = strokeProbability(p);
    return { ring: stroke * ring, palmMute: stroke * palmMute, dead: stroke * dead };
  };
}

function formOf(midi: readonly MidiNote[]): number {
  const above = midi.map((m) => m - midi[0]).join();
  const named = CHORD_FORMS.findIndex((form) => form.notes?.join() === above);
  return named >= 0 ? named : CHORD_FORMS.findIndex((form) => form.notes === null);
}

function isReadable({ midi }: SettledStrum): boolean {
  return midi.length > 0 && midi[0] >= LOWEST_BASS && midi[0] < LOWEST_BASS + BASS_NOTES;
}

function certainChord({ midi }: SettledStrum): ChordEvidence {
  const logProbabilities = new Float32Array(BASS_NOTES * FORMS).fill(RULED_OUT);
  logProbabilities[(midi[0] - LOWEST_BASS) * FORMS + formOf(midi)] = 0;
  const presence = Float32Array.from({ length: PRESENCES }, (_, i) => (midi.includes(midi[0] + i) ? 1 : 0));
  return { logProbabilities, presence: () => presence };
}

/**
 * Evidence with what is settled put in. `says[k]` is the settled strum that strum k is; forms that the network took for
 * others in settled strums are corrected in all.
 */
export function settleChords(evidence: readonly ChordEvidence[], says: readonly Said[]): ChordEvidence[] {
  const settled = says.map((said) => (said !== null && said !== 'none' && isReadable(said) ? said : null));
  const examples = evidence.flatMap(({ logProbabilities }, k) => {
    const strum = settled[k];
    if (!strum) return [];
    const from = (strum.midi[0] - LOWEST_BASS) * FORMS;
    return [{ logits: Array.from(logProbabilities.subarray(from, from + FORMS)), truth: formOf(strum.midi) }];
  });
  if (examples.length === 0) return [...evidence];
  const intercepts = fitIntercepts(examples, FORMS);
  return evidence.map((own, k) => {
    const strum = settled[k];
    if (strum) return certainChord(strum);
    const shifted = own.logProbabilities.map((l, c) => l + intercepts[c % FORMS]);
    const top = shifted.reduce((m, v) => Math.max(m, v), -Infinity);
    const total = top + Math.log(shifted.reduce((sum, v) => sum + Math.exp(v - top), 0));
    return { ...own, logProbabilities: shifted.map((v) => v - total) };
  });
}
