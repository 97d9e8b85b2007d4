/**
 * The strums of one guitar, or of all together: candidates, which of them are strokes, what sounds in each. Heard once
 * from what each instant says alone, and again with what repeated passes say (`strokes/metrical-prior.ts`,
 * `strokes/stroke-pooling.ts`, `chords/chord-decoding.ts`).
 */
import { bisector } from 'd3-array';
import { identifyChord } from '../theory';
import { decodeChords, type DecodedChord } from './chords/chord-decoding';
import { createEvidence } from './chords/chord-evidence';
import { CHORD_SHAPES } from './chords/chord-shapes.data';
import chordWeights from './chords/chords.json';
import { confirmChords, correctShapes } from './chords/confirmed-chords';
import type { ChordEvidence } from './chords/chord-network';
import { doublingPulls } from './chords/octave-doubling';
import type { Annotation, Confirmed } from './confirmed';
import type { OnsetStrength } from './onsets/onset-strength';
import { confirmStrokes } from './strokes/confirmed-strokes';
import { applyMetricalPrior } from './strokes/metrical-prior';
import { findNoteReleases, spansFrom } from './strokes/note-release';
import { findStrokeCandidates } from './strokes/stroke-candidates';
import { chooseStrokes, createStrokeNetwork } from './strokes/stroke-classifier';
import {
  decideKind,
  isPalmMuted,
  kindOf,
  NO_STROKE,
  strokeProbability,
  type StrokeProbabilities,
} from './strokes/stroke-kinds';
import { poolStrokes } from './strokes/stroke-pooling';
import strokeWeights from './strokes/strokes.json';
import type { MidiNote } from '../units';
import type { HeardStrum, MidSide, RepetitionGroup, StrumSpan } from './types';

export interface StrumHearing {
  /** Of everything that sounds: for beats and bars. */
  readonly strength: OnsetStrength;
  /** With what is known of the song, or null at first. */
  hear(known: KnownForm | null, onShare?: (share: number) => void): HeardStrums;
  /**
   * What sounds in spans that a tab names, in order of time. `midi`, what it says that sounds there, is believed on the whole and of no
   * strum for itself: shapes that the network takes for others all over the song are corrected by it.
   */
  ask(spans: readonly AskedSpan[], known: KnownForm | null): DecodedChord[];
}

export interface AskedSpan extends StrumSpan {
  readonly midi: readonly MidiNote[];
}

/** What a first hearing has told of the song. */
export interface KnownForm {
  readonly beatsS: readonly number[];
  /** For ascending instants, those at the same position of repeated passes. */
  repetitionsOf(timesS: readonly number[]): readonly RepetitionGroup[];
}

export interface HeardStrums {
  readonly strums: readonly HeardStrum[];
  /** Of each of them, that it is a stroke at all. */
  readonly strokeProbabilities: readonly number[];
  /** Every instant at which something may have been struck, and as what. */
  readonly candidates: readonly StrokeCandidate[];
}

export interface StrokeCandidate {
  readonly timeS: number;
  readonly stroke: StrokeProbabilities;
}

const byTime = bisector((timeS: number) => timeS);

function describe(
  { timeS, endS }: StrumSpan,
  stroke: StrokeProbabilities,
  chord: DecodedChord,
  annotation: Annotation,
): HeardStrum {
  const confirmed = annotation === 'none' ? null : annotation;
  const kind = confirmed ? kindOf(confirmed) : decideKind(stroke);
  if (kind === 'dead') {
    return {
      timeS,
      endS,
      midi: [],
      rootPc: null,
      quality: null,
      palmMuted: false,
      dead: true,
      confidence: stroke.dead,
      alternatives: [],
    };
  }
  const midi = confirmed?.midi ?? chord.midi;
  const named = identifyChord(midi);
  return {
    timeS,
    endS,
    midi,
    rootPc: confirmed && named ? named.rootPc : (chord.bass + CHORD_SHAPES[chord.shape].rootAbove) % 12,
    quality: named?.quality ?? 'other',
    palmMuted: kind === 'palmMute',
    dead: false,
    confidence: confirmed ? 1 : strokeProbability(stroke) * chord.probability,
    alternatives: confirmed ? [] : chord.alternatives,
  };
}

export function createStrumHearing(
  midSide: MidSide,
  sampleRate: number,
  offsetCents: number,
  durationS: number,
  confirmed: Confirmed,
): StrumHearing {
  const found = findStrokeCandidates(midSide, sampleRate);
  const heardAlone = createStrokeNetwork(strokeWeights)(found.features);
  const { timesS, probabilities, annotations } = confirmStrokes(found.timesS, heardAlone, confirmed);
  const evidenceOf = createEvidence(midSide, sampleRate, offsetCents, chordWeights);
  const strokesWith = (known: KnownForm | null): readonly StrokeProbabilities[] =>
    known
      ? poolStrokes(
          applyMetricalPrior(timesS, probabilities, known.beatsS, annotations),
          known.repetitionsOf(timesS),
          annotations,
        )
      : probabilities;
  /** The chords of spans in order of time; `strokes` says which are muted. */
  const readSpans = (
    spans: readonly StrumSpan[],
    evidence: readonly ChordEvidence[],
    strokes: readonly StrokeProbabilities[],
    known: KnownForm | null,
  ): DecodedChord[] => {
    const groups = known?.repetitionsOf(spans.map((s) => s.timeS));
    const pulls = doublingPulls(
      evidence.map((e) => e.logProbabilities),
      strokes.map((stroke, k) => ({ riff: groups?.[k].riff ?? '', palmMuted: isPalmMuted(stroke) })),
    );
    return decodeChords(evidence, {
      groups: groups?.map((group) => group.members),
      pulls,
      timesS: spans.map((span) => span.timeS),
    });
  };
  /** What the networks said when they were asked before: a tab that changes is asked about again at most of its places. */
  const asked = new Map<string, ChordEvidence>();
  const keptEvidence = (span: StrumSpan): ChordEvidence => {
    const key = `${span.timeS} ${span.endS}`;
    const evidence = asked.get(key) ?? evidenceOf(span);
    asked.set(key, evidence);
    return evidence;
  };
  /** Of what is known; it does not change while a song is asked about. */
  let pooled: { readonly known: KnownForm | null; readonly strokes: readonly StrokeProbabilities[] } | null =
    null;
  return {
    strength: found.strength,
    ask(spans, known) {
      if (pooled?.known !== known) pooled = { known, strokes: strokesWith(known) };
      const { strokes } = pooled;
      const struck = spans.map(({ timeS }) => strokes.at(byTime.center(timesS, timeS)) ?? NO_STROKE);
      return readSpans(spans, correctShapes(spans.map(keptEvidence), spans), struck, known);
    },
    hear(known, onShare) {
      const strokes = strokesWith(known);
      const chosen = chooseStrokes(timesS, strokes);
      const spans = spansFrom(
        chosen.map((k) => timesS[k]),
        durationS,
      );
      const endsS = findNoteReleases(midSide.side ?? midSide.mid, sampleRate, spans);
      const ofChosen = chosen.map((k) => annotations[k]);
      const heard = spans.map((span, k) => {
        onShare?.(k / spans.length);
        return evidenceOf(span);
      });
      const chords = readSpans(
        spans,
        confirmChords(heard, ofChosen),
        chosen.map((k) => strokes[k]),
        known,
      );
      return {
        strums: chords.map((chord, k) =>
          describe({ timeS: spans[k].timeS, endS: endsS[k] }, strokes[chosen[k]], chord, ofChosen[k]),
        ),
        strokeProbabilities: chosen.map((k) => strokeProbability(strokes[k])),
        candidates: timesS.map((timeS, k) => ({ timeS, stroke: strokes[k] })),
      };
    },
  };
}
