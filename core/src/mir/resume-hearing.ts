/**
 * A recording that was listened to before, to be asked on: strokes and form are taken from then, only the chords that are asked about
 * are read. What takes a song's length of work is not done twice.
 */
import type { DecodedChord } from './chords/chord-decoding';
import { barContents } from './form/bar-contents';
import { groupRepetitions } from './form/repetition-groups';
import type { StrokeCandidate } from './hear-strums';
import type { SongHearing } from './listen';
import { createChordReading, strokesAt, type AskedSpan, type KnownForm } from './read-chords';
import { splitStereo } from './stereo';
import type { HeardSection, HeardStrum, StereoSignal } from './types';

/** What was heard before, on the clock and at the pitch of this recording. */
export interface HeardBefore {
  readonly durationS: number;
  readonly referenceCents: number;
  readonly strums: readonly HeardStrum[];
  readonly strokes: readonly StrokeCandidate[];
  readonly sections: readonly HeardSection[];
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
}

/** What listening to a whole song leaves, to be asked on. */
export function askableOf({ durationS, strums, heardStrums, hearing, known }: SongHearing): AskableSong {
  return { durationS, strums, candidates: heardStrums.candidates, ask: (spans) => hearing.ask(spans, known) };
}

export function resumeHearing(signal: StereoSignal, before: HeardBefore): AskableSong {
  const { durationS, referenceCents, strums, strokes, sections, beatsS, downbeatsS } = before;
  const chords = createChordReading(splitStereo(signal), signal.sampleRate, referenceCents);
  const bars = barContents(strums, downbeatsS, durationS);
  const known: KnownForm | null =
    downbeatsS.length === 0
      ? null
      : { beatsS, repetitionsOf: (timesS) => groupRepetitions(timesS, sections, downbeatsS, bars) };
  const timesS = strokes.map((s) => s.timeS);
  const kinds = strokes.map((s) => s.stroke);
  return {
    durationS,
    strums,
    candidates: strokes,
    ask: (spans) => chords.ask(spans, strokesAt(timesS, kinds, spans), known),
  };
}
