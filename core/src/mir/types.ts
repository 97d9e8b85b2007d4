/**
 * What is measured of a recording. Times are seconds of the decoded file; notes are sounding MIDI notes after
 * the reference offset has been removed, so that 69 is the recording's own A4.
 */
import type { MidiNote, PitchClass } from '../units';
import type { ChordQuality, Key, Meter } from '../theory';

/** One or two channels of equal length. Analysis expects ANALYSIS_SAMPLE_RATE of `units`. */
export interface StereoSignal {
  readonly channels: readonly Float32Array[];
  readonly sampleRate: number;
}

/** What both channels have in common, and what they differ in. */
export interface MidSide {
  readonly mid: Float32Array;
  /** Null where nothing stands in the sides. */
  readonly side: Float32Array | null;
}

/** What is listened to: all that sounds, and what the guitars play alone; null where the band is not apart. */
export interface SplitBand {
  readonly whole: MidSide;
  readonly guitars: MidSide | null;
}

/** From the onset of a strum to the next one. */
export interface StrumSpan {
  readonly timeS: number;
  readonly endS: number;
}

/** Instants at the same position of repeated passes: those that should sound the same. */
export interface RepetitionGroup {
  /** Indices of its members, the one that is asked about first; at most one of each pass. */
  readonly members: readonly number[];
  /** How many passes play the same bar, its own counted: those without a member have nothing there. */
  readonly passes: number;
  /** Riff that it stands in, at whatever height it is played; '' outside of all sections. */
  readonly riff: string;
}

export interface ReferenceOffset {
  /** How far the recording sounds above A4 = 440 Hz: in (-50, 50], or a little over where the notes decide. */
  readonly cents: number;
  /** Half of the partials lie within this many cents of it. */
  readonly spreadCents: number;
  /** Lies between two notes: which of them is meant can't be measured, only chosen. */
  readonly isNearQuarterTone: boolean;
  /**
   * Share of the partials' strength at each whole cent from the nearest note of equal temperament: 100 values, index 0 =
   * -49, index 99 = +50.
   */
  readonly histogram: readonly number[];
  /** Partials that it was measured from. */
  readonly partials: number;
  /** How it moves over the recording, in blocks of ten seconds. */
  readonly overTime: readonly { readonly timeS: number; readonly cents: number }[];
}

export interface BeatGrid {
  readonly tempoBpm: number;
  readonly meter: Meter;
  readonly beatsS: readonly number[];
  readonly downbeatsS: readonly number[];
}

/** Another way to count the same pulse. */
export interface MeterAlternative {
  readonly tempoBpm: number;
  readonly meter: Meter;
  /** Of this reading, 0 to 1. */
  readonly probability: number;
}

/** One sweep over the strings, as heard. */
export interface HeardStrum {
  readonly timeS: number;
  readonly endS: number;
  /** Sounding notes, lowest first; empty for a dead stroke. */
  readonly midi: readonly MidiNote[];
  readonly rootPc: PitchClass | null;
  readonly quality: ChordQuality | null;
  readonly palmMuted: boolean;
  readonly dead: boolean;
  /** Probability that the strum is there and sounds these notes; published under this name (`wild-needle/analysis@1`). */
  readonly confidence: number;
  /** What else may sound there, likeliest first; empty for a dead stroke and for one that the user has confirmed. */
  readonly alternatives: readonly HeardAlternative[];
}

export interface HeardAlternative {
  readonly midi: readonly MidiNote[];
  readonly probability: number;
}

export interface KeyEstimate {
  readonly key: Key;
  readonly confidence: number;
}

/** A part of the song that plays one riff a number of times, the last time perhaps without its end. */
export interface HeardSection {
  readonly startS: number;
  readonly endS: number;
  /** Riff letter; the same riff at the same height has the same label. */
  readonly label: string;
  readonly transposeOf: { readonly label: string; readonly semitones: number } | null;
  /** First bar (index into the downbeats) and bars per pass. */
  readonly startBar: number;
  readonly barsPerPass: number;
  readonly passes: number;
  /** Bars that the last pass lacks at its end. */
  readonly cutBars: number;
  /** False where nothing comes round and little was heard clearly: no riff, see `form/lone-parts.ts`. */
  readonly returns: boolean;
  /** Probability that something new begins at this start, 0 to 1. */
  readonly startProbability: number;
  /** Where it may begin instead, in bars from there; null where no other place is likely. */
  readonly orElseBars: number | null;
  /** How far it agrees with the first place of its riff, 0 to 1; null where the riff is new. */
  readonly likeRiff: number | null;
}
