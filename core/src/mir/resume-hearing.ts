/**
 * A recording that was listened to before, to be asked on: strokes and form are taken from then, only the chords that are asked about
 * are read. What takes a song's length of work is not done twice.
 */
import { bisector } from 'd3-array';
import type { DecodedChord } from './chords/chord-decoding';
import { findLowerGuitar } from './lower-guitar';
import { barContents } from './form/bar-contents';
import { groupRepetitions } from './form/repetition-groups';
import type { StrokeCandidate } from './hear-strums';
import type { SongHearing } from './listen';
import {
  createChordReading,
  strokesAt,
  type AskedSpan,
  type KnownForm,
  type StagedLevels,
} from './read-chords';
import { splitStereo } from './stereo';
import type { HeardSection, HeardStrum, StereoSignal, StrumSpan } from './types';

/** What was heard before, on the clock and at the pitch of this recording. */
export interface HeardBefore {
  readonly durationS: number;
  readonly referenceCents: number;
  readonly strums: readonly HeardStrum[];
  readonly strokes: readonly StrokeCandidate[];
  readonly sections: readonly HeardSection[];
  /** Empty in analyses of before. */
  readonly sameAsBar: readonly number[];
  readonly beatsS: readonly number[];
  readonly downbeatsS: readonly number[];
}

/** A song that can be asked what sounds where something is written. */
export interface AskableSong {
  readonly durationS: number;
  readonly strums: readonly HeardStrum[];
  readonly candidates: readonly StrokeCandidate[];
  /** See `StrumHearing.ask`. */
  ask(spans: readonly AskedSpan[]): DecodedChord[];
  /** See `StrumHearing.levels`; null while there is no sound. */
  levels: ((span: StrumSpan) => StagedLevels) | null;
}

/** What listening to a whole song leaves, to be asked on. */
export function askableOf({ durationS, strums, heardStrums, hearing, known }: SongHearing): AskableSong {
  return {
    durationS,
    strums,
    candidates: heardStrums.candidates,
    ask: (spans) => hearing.ask(spans, known),
    levels: hearing.levels,
  };
}

export function resumeHearing(signal: StereoSignal, before: HeardBefore): AskableSong {
  const { durationS, referenceCents, strums, strokes, beatsS, downbeatsS } = before;
  const chords = createChordReading(
    { whole: splitStereo(signal), guitars: null },
    signal.sampleRate,
    referenceCents,
  );
  const bars = barContents(strums, downbeatsS, durationS);
  const known: KnownForm | null =
    downbeatsS.length === 0
      ? null
      : {
          beatsS,
          repetitionsOf: (timesS) => groupRepetitions(timesS, before, downbeatsS, bars),
          lowerGuitar: findLowerGuitar(signal, strums, referenceCents),
        };
  const timesS = strokes.map((s) => s.timeS);
  const kinds = strokes.map((s) => s.stroke);
  return {
    durationS,
    strums,
    candidates: strokes,
    ask: (spans) => chords.ask(spans, strokesAt(timesS, kinds, spans), known),
    levels: chords.levels,
  };
}

const byTime = bisector((strum: HeardStrum) => strum.timeS);
/** Of a reading that is not among those that were kept; and where nothing was heard. */
const UNLIKELY = 0.01;

/** As it was heard then, without its sound: what the strum nearest to each span was taken for, and what else it may have been. */
export function recallHearing({
  durationS,
  strums,
  strokes,
}: Omit<HeardBefore, 'referenceCents'>): AskableSong {
  const chordAt = (strum: HeardStrum | undefined): DecodedChord => {
    const { midi = [], confidence = 0, alternatives = [] } = strum ?? {};
    const readings = new Map(alternatives.map((a) => [a.midi.join(), a.probability]));
    return {
      midi,
      bass: midi[0] ?? 0,
      shape: 0,
      probability: confidence,
      alternatives,
      probabilityOf: (notes) =>
        notes.join() === midi.join() ? confidence : (readings.get(notes.join()) ?? UNLIKELY),
    };
  };
  return {
    durationS,
    strums,
    candidates: strokes,
    ask: (spans) => spans.map(({ timeS }) => chordAt(strums.at(byTime.center(strums, timeS)))),
    levels: null,
  };
}
