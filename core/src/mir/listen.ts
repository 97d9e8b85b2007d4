/**
 * Everything that is measured of a recording, in order: pitch offset, strokes, chords, pulse, bars, form, and the
 * chords once more with what the form says. Pure and synchronous; run it in a worker.
 */
import { identifyChord } from '../theory';
import { groupAlike } from './alike';
import { decodeChords, type DecodedChord } from './chord-decoding';
import { CHORD_FORMS } from './chord-forms.data';
import type { ChordEvidence } from './chord-network';
import { findSections } from './form';
import { estimateKey } from './key-estimate';
import { poolStrokes } from './pool-strokes';
import { rankMeters } from './rank-meters';
import { estimateReferenceOffset } from './reference-offset';
import { findSoundingEnds, spansFrom, type StrumSpan } from './sounding-end';
import { splitStereo } from './stereo';
import { findStrokeCandidates } from './stroke-candidates';
import { chooseStrokes, createStrokeNetwork, strokeProbability, type StrokeProbabilities } from './strokes';
import { createEvidence } from './strum-evidence';
import type {
  BeatGrid,
  HeardSection,
  HeardStrum,
  KeyEstimate,
  MeterAlternative,
  ReferenceOffset,
  StereoSignal,
} from './types';
import chordWeights from './weights/chords.json';
import meterWeights from './weights/meter.json';
import strokeWeights from './weights/strokes.json';

export interface Heard {
  readonly durationS: number;
  /** Null when nothing tonal sounds. */
  readonly reference: ReferenceOffset | null;
  /** Null when there is no pulse to follow. */
  readonly grid: BeatGrid | null;
  /** Readings of tempo and meter, most likely first; empty without a pulse. */
  readonly meters: readonly MeterAlternative[];
  readonly strums: readonly HeardStrum[];
  readonly key: KeyEstimate | null;
  readonly sections: readonly HeardSection[];
}

/** What is being done, in words for the screen, and the share of the whole, 0 to 1. */
export type OnProgress = (share: number, doing: string) => void;

/** Strokes that were chosen, and what sounds in them. */
interface Picked {
  readonly strokes: readonly StrokeProbabilities[];
  readonly sounding: readonly StrumSpan[];
  readonly evidence: readonly ChordEvidence[];
}

function describe({ timeS, endS }: StrumSpan, stroke: StrokeProbabilities, chord: DecodedChord): HeardStrum {
  const sure = strokeProbability(stroke);
  if (stroke.dead > stroke.ring + stroke.palmMute) {
    const confidence = stroke.dead;
    return { timeS, endS, midi: [], rootPc: null, quality: null, palmMuted: false, dead: true, confidence };
  }
  return {
    timeS,
    endS,
    midi: chord.midi,
    rootPc: (chord.bass + CHORD_FORMS[chord.form].rootAbove) % 12,
    quality: identifyChord(chord.midi)?.quality ?? 'other',
    palmMuted: stroke.palmMute > stroke.ring,
    dead: false,
    confidence: sure * chord.confidence,
  };
}

export function listen(signal: StereoSignal, onProgress: OnProgress = () => undefined): Heard {
  const { sampleRate } = signal;
  const durationS = signal.channels[0].length / sampleRate;
  const midSide = splitStereo(signal);
  const guitars = midSide.side ?? midSide.mid;

  onProgress(0.02, 'Listening for the pitch of the recording');
  const reference = estimateReferenceOffset(guitars, sampleRate);

  onProgress(0.15, 'Listening for the strokes');
  const { timesS, features, strength } = findStrokeCandidates(midSide, sampleRate);
  const alone = createStrokeNetwork(strokeWeights)(features);

  onProgress(0.4, 'Naming the chords');
  const evidenceOf = createEvidence(midSide, sampleRate, reference?.cents ?? 0, chordWeights);
  const pick = (probabilities: readonly StrokeProbabilities[]): Picked => {
    const chosen = chooseStrokes(timesS, probabilities);
    const spans = spansFrom(
      chosen.map((k) => timesS[k]),
      durationS,
    );
    const endsS = findSoundingEnds(guitars, sampleRate, spans);
    return {
      strokes: chosen.map((k) => probabilities[k]),
      sounding: spans.map(({ timeS }, k) => ({ timeS, endS: endsS[k] })),
      evidence: spans.map((span, k) => {
        onProgress(0.4 + (0.45 * k) / spans.length, 'Naming the chords');
        return evidenceOf(span);
      }),
    };
  };
  const first = pick(alone);
  const chords = decodeChords(first.evidence);
  const read = ({ sounding, strokes }: Picked, decoded: readonly DecodedChord[]): HeardStrum[] =>
    decoded.map((chord, k) => describe(sounding[k], strokes[k], chord));
  const heard = read(first, chords);

  onProgress(0.88, 'Counting beats and bars');
  const struck = heard.map((s, k) => ({
    timeS: s.timeS,
    rootPc: s.rootPc,
    weight: strokeProbability(first.strokes[k]),
  }));
  const ranked = rankMeters(strength, struck, durationS, meterWeights);
  if (!ranked) {
    onProgress(1, 'Done');
    return {
      durationS,
      reference,
      grid: null,
      meters: [],
      strums: heard,
      key: estimateKey(heard),
      sections: [],
    };
  }
  const { grid, alternatives } = ranked;

  onProgress(0.95, 'Comparing the riffs');
  const drafted = findSections(heard, grid.downbeatsS, durationS, strength);
  const second = pick(poolStrokes(alone, groupAlike(timesS, drafted, grid.downbeatsS)));
  const alike = groupAlike(
    second.sounding.map((s) => s.timeS),
    drafted,
    grid.downbeatsS,
  );
  const pooled = decodeChords(
    second.evidence,
    alike.map((group) => group.members),
  );
  const strums = read(second, pooled);
  const sections = findSections(strums, grid.downbeatsS, durationS, strength);
  onProgress(1, 'Done');
  return { durationS, reference, grid, meters: alternatives, strums, key: estimateKey(strums), sections };
}
