/**
 * The chords of spans: what the network says of each, then all of them together, with what passes, shapes and the doubling bass say
 * (`chords/chord-decoding.ts`). What was read once is kept, since the same spans are read again when the form of the song is known,
 * and when a tab that changes is held against them.
 */
import { bisector } from 'd3-array';
import type { MidiNote } from '../units';
import { decodeChords, type DecodedChord } from './chords/chord-decoding';
import { createEvidence } from './chords/chord-evidence';
import { bothSay, type ChordEvidence } from './chords/chord-network';
import chordWeights from './chords/chords.json';
import { correctShapes } from './chords/confirmed-chords';
import { createPitchLevels } from './chords/heard-notes';
import { doublingPulls } from './chords/octave-doubling';
import type { LowerGuitar } from './lower-guitar';
import { isPalmMuted, NO_STROKE, type StrokeProbabilities } from './strokes/stroke-kinds';
import type { SplitBand, RepetitionGroup, StrumSpan } from './types';

export interface AskedSpan extends StrumSpan {
  readonly midi: readonly MidiNote[];
}

/** What a first hearing has told of the song. */
export interface KnownForm {
  readonly beatsS: readonly number[];
  /** For ascending instants, those at the same position of repeated passes. */
  repetitionsOf(timesS: readonly number[]): readonly RepetitionGroup[];
  /** Where a guitar on one side plays an octave over the other. */
  readonly lowerGuitar: LowerGuitar | null;
}

/** How loud pitches are in the middle and in the sides, see `createPitchLevels`; no sides in a mono recording. */
export interface StagedLevels {
  readonly mid: Float32Array;
  readonly side: Float32Array | null;
}

export interface ChordReading {
  readonly levels: (span: StrumSpan) => StagedLevels;
  readonly evidenceOf: (
    span: StrumSpan,
    stroke: StrokeProbabilities,
    known: KnownForm | null,
  ) => ChordEvidence;
  /** The chords of spans in order of time; `strokes` says which are muted. */
  read(
    spans: readonly StrumSpan[],
    evidence: readonly ChordEvidence[],
    strokes: readonly StrokeProbabilities[],
    known: KnownForm | null,
    written?: readonly (readonly MidiNote[])[],
  ): DecodedChord[];
  /** The same for spans that a tab names: see `StrumHearing.ask`. */
  ask(
    spans: readonly AskedSpan[],
    strokes: readonly StrokeProbabilities[],
    known: KnownForm | null,
  ): DecodedChord[];
}

/** More of a strum tells no more of its pitches. */
const LEVELS_S = 0.45;

const byTime = bisector((timeS: number) => timeS);

/** What was struck nearest to the start of each span. */
export function strokesAt(
  timesS: readonly number[],
  strokes: readonly StrokeProbabilities[],
  spans: readonly StrumSpan[],
): StrokeProbabilities[] {
  return spans.map(({ timeS }) => strokes.at(byTime.center(timesS, timeS)) ?? NO_STROKE);
}

/** Where the band was taken apart, what its guitars say alone counts as much as what all of it says. */
function createListening(
  { whole, guitars }: SplitBand,
  sampleRate: number,
  offsetCents: number,
): (span: StrumSpan) => ChordEvidence {
  const ofAll = createEvidence(whole, sampleRate, offsetCents, chordWeights);
  const ofGuitars = guitars && createEvidence(guitars, sampleRate, offsetCents, chordWeights);
  return (span) => (ofGuitars ? bothSay(ofAll(span), ofGuitars(span)) : ofAll(span));
}

export function createChordReading(band: SplitBand, sampleRate: number, offsetCents: number): ChordReading {
  const { mid, side } = band.whole;
  const listen = createListening(band, sampleRate, offsetCents);
  const levelsIn = createPitchLevels(sampleRate, offsetCents);
  const kept = new Map<string, ChordEvidence>();
  const evidenceOf: ChordReading['evidenceOf'] = (span, stroke, known) => {
    const key = `${span.timeS} ${span.endS}`;
    const evidence = kept.get(key) ?? listen(span);
    kept.set(key, evidence);
    return known?.lowerGuitar?.(evidence, span, isPalmMuted(stroke)) ?? evidence;
  };
  const read: ChordReading['read'] = (spans, evidence, strokes, known, written) => {
    const groups = known?.repetitionsOf(spans.map((s) => s.timeS));
    const pulls = doublingPulls(
      evidence.map((e) => e.logProbabilities),
      strokes.map((stroke, k) => ({ riff: groups?.[k].riff ?? '', palmMuted: isPalmMuted(stroke) })),
    );
    return decodeChords(evidence, {
      groups: groups?.map((group) => group.members),
      pulls,
      timesS: spans.map((span) => span.timeS),
      ...(written && { written }),
    });
  };
  return {
    evidenceOf,
    levels: ({ timeS, endS }) => {
      const span = { startS: timeS, endS: Math.min(endS, timeS + LEVELS_S) };
      return { mid: levelsIn(mid, span), side: side && levelsIn(side, span) };
    },
    read,
    ask: (spans, strokes, known) => {
      const evidence = correctShapes(
        spans.map((span, k) => evidenceOf(span, strokes[k], known)),
        spans,
      );
      const written = spans.map((span) => span.midi);
      return read(spans, evidence, strokes, known, written);
    },
  };
}
