/**
 * The strums of one guitar, or of all together: candidates, which of them are strokes, what sounds in each. Heard once
 * from what each instant says alone, and again with what repeated passes say (`strokes/metrical-prior.ts`,
 * `strokes/stroke-pooling.ts`, `chords/chord-decoding.ts`).
 */
import { identifyChord } from '../theory';
import type { DecodedChord } from './chords/chord-decoding';
import { CHORD_SHAPES } from './chords/chord-shapes.data';
import { confirmChords } from './chords/confirmed-chords';
import type { Annotation, Confirmed } from './confirmed';
import {
  createChordReading,
  strokesAt,
  type AskedSpan,
  type KnownForm,
  type StagedLevels,
} from './read-chords';
import type { OnsetStrength } from './onsets/onset-strength';
import { confirmStrokes } from './strokes/confirmed-strokes';
import { applyMetricalPrior } from './strokes/metrical-prior';
import { findNoteReleases, spansFrom } from './strokes/note-release';
import { findStrokesOf } from './strokes/strokes-of-band';
import { chooseStrokes } from './strokes/stroke-classifier';
import { decideKind, kindOf, strokeProbability, type StrokeProbabilities } from './strokes/stroke-kinds';
import { poolStrokes } from './strokes/stroke-pooling';
import type { HeardStrum, SplitBand, StrumSpan } from './types';

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
  /** How loud pitches are in a span, in the middle and in the sides. */
  readonly levels: (span: StrumSpan) => StagedLevels;
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
  band: SplitBand,
  sampleRate: number,
  offsetCents: number,
  durationS: number,
  confirmed: Confirmed,
): StrumHearing {
  const { whole, guitars } = band;
  const found = findStrokesOf(band, sampleRate);
  const { timesS, probabilities, annotations } = confirmStrokes(found.timesS, found.probabilities, confirmed);
  const chords = createChordReading(band, sampleRate, offsetCents);
  const { mid, side } = guitars ?? whole;
  const released = side ?? mid;
  const strokesWith = (known: KnownForm | null): readonly StrokeProbabilities[] =>
    known
      ? poolStrokes(
          applyMetricalPrior(timesS, probabilities, known.beatsS, annotations),
          known.repetitionsOf(timesS),
          annotations,
        )
      : probabilities;
  /** Of what is known; it does not change while a song is asked about. */
  let pooled: { readonly known: KnownForm | null; readonly strokes: readonly StrokeProbabilities[] } | null =
    null;
  return {
    strength: found.strength,
    levels: chords.levels,
    ask(spans, known) {
      if (pooled?.known !== known) pooled = { known, strokes: strokesWith(known) };
      const { strokes } = pooled;
      return chords.ask(spans, strokesAt(timesS, strokes, spans), known);
    },
    hear(known, onShare) {
      const strokes = strokesWith(known);
      const chosen = chooseStrokes(timesS, strokes);
      const spans = spansFrom(
        chosen.map((k) => timesS[k]),
        durationS,
      );
      const endsS = findNoteReleases(released, sampleRate, spans);
      const ofChosen = chosen.map((k) => annotations[k]);
      const heard = spans.map((span, k) => {
        onShare?.(k / spans.length);
        return chords.evidenceOf(span, strokes[chosen[k]], known);
      });
      const named = chords.read(
        spans,
        confirmChords(heard, ofChosen),
        chosen.map((k) => strokes[k]),
        known,
      );
      return {
        strums: named.map((chord, k) =>
          describe({ timeS: spans[k].timeS, endS: endsS[k] }, strokes[chosen[k]], chord, ofChosen[k]),
        ),
        strokeProbabilities: chosen.map((k) => strokeProbability(strokes[k])),
        candidates: timesS.map((timeS, k) => ({ timeS, stroke: strokes[k] })),
      };
    },
  };
}
