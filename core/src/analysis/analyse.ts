/**
 * The analysis as one plain object: what was heard, and which tunings and voicings could have played it.
 * Schema `wild-needle/analysis@1`; printed by the command line, stored by the server, read by the screens.
 */
import {
  candidateVoicings,
  chooseVoicings,
  rankTunings,
  STANDARD_TUNING,
  type Tuning,
  type Voicing,
} from '../guitar';
import {
  listen,
  type DescribedSection,
  type HeardGuitar,
  type HeardStrum,
  type ListenOptions,
  type MeterAlternative,
  type StrokeCandidate,
  type StereoSignal,
} from '../mir';
import { chordName, pitchClassOf, type Key, type Meter } from '../theory';
import { doubtsOf, type Doubt } from './doubts';
import { chooseQuarterToneSide } from './quarter-tone';
import { aboveLowestString } from './inverted-fifths';
import { withoutOctaveGuitar } from './octave-guitar';

/** Raise when results change; stored with every analysis. */
export const ALGORITHM_VERSION = 'networks-15';

export interface RankedVoicing {
  /** Fret per string, lowest string first, null = not played; frets count from the capo. */
  readonly frets: readonly (number | null)[];
  readonly score: number;
}

export interface AnalysedStrum extends HeardStrum {
  /** Chord symbol spelled by the key; 'x' for a dead stroke. */
  readonly name: string;
  /** Best first; empty when the tuning can't play the notes. */
  readonly voicings: readonly RankedVoicing[];
}

export interface TuningWithScore extends Tuning {
  readonly score: number;
  /** What speaks for it and against it, as shares of the strums and semitones; see TuningCandidate. Null in old analyses. */
  readonly reasons: {
    readonly lowestAboveOpen: number;
    readonly openShare: number;
    readonly oneFingerShare: number;
    readonly unplayableShare: number;
    readonly meanEffort: number;
  } | null;
}

/** A stroke that may be one: see `StrokeProbabilities` of `mir`. */
export interface AnalysedStroke {
  readonly timeS: number;
  readonly ring: number;
  readonly palmMute: number;
  readonly dead: number;
}

/** One of two guitars that play apart. */
export interface AnalysedGuitar {
  readonly side: HeardGuitar['side'];
  readonly strums: readonly AnalysedStrum[];
}

export interface AnalyseOptions extends ListenOptions {
  /** Entered by the user: custom and unison tunings can't be guessed. Chosen from the strums when left out. */
  readonly tuning?: Tuning;
}

export interface Analysis {
  readonly schema: 'wild-needle/analysis@1';
  readonly algorithm: string;
  readonly durationS: number;
  readonly referenceOffsetCents: number;
  readonly referenceSpreadCents: number;
  /** Lies between two notes: which is meant was chosen, not measured. */
  readonly referenceIsUnsettled: boolean;
  /** See ReferenceOffset of `mir`; empty when nothing tonal sounds. */
  readonly referenceHistogram: readonly number[];
  readonly referencePartials: number;
  readonly referenceOverTime: readonly { readonly timeS: number; readonly cents: number }[];
  /** Beats a minute as they are counted: quarters, in 6/8 dotted quarters; null without a pulse. */
  readonly tempoBpm: number | null;
  readonly meter: Meter;
  /** Readings of tempo and meter with their probability, most likely first. */
  readonly meters: readonly MeterAlternative[];
  readonly beatsS: readonly number[];
  readonly downbeatsS: readonly number[];
  readonly beatsPerBar: readonly number[];
  readonly freeTime: readonly { readonly startS: number; readonly endS: number }[];
  readonly key: Key | null;
  readonly tuning: Tuning & { readonly candidates: readonly TuningWithScore[] };
  readonly sections: readonly DescribedSection[];
  /** For each downbeat the earliest bar that its bar is the same as, itself where it is the first or alone; empty in old analyses. */
  readonly sameAsBar: readonly number[];
  readonly strums: readonly AnalysedStrum[];
  /** Every instant at which something may have been struck, and how; empty in old analyses. */
  readonly strokes: readonly AnalysedStroke[];
  /** Empty for one guitar, and for two that double each other. */
  readonly guitars: readonly AnalysedGuitar[];
  /** What is not sure, the gravest first. */
  readonly doubts: readonly Doubt[];
}

/** Candidates kept in the result. */
const TUNINGS_KEPT = 5;
const VOICINGS_KEPT = 4;

/** As it is published: a fret per string, lowest first, null = not played. */
function perString({ frets }: Voicing, strings: number): (number | null)[] {
  const listed = new Array<number | null>(strings).fill(null);
  for (const { string, fret } of frets) listed[strings - string] = fret;
  return listed;
}

function rankVoicings(strums: readonly HeardStrum[], tuning: Tuning): RankedVoicing[][] {
  const layers = strums.map((s) => candidateVoicings(s.midi, tuning));
  return chooseVoicings(layers).map((chosen, k) => {
    if (!chosen) return [];
    const others = layers[k].filter((v) => v !== chosen);
    return [chosen, ...others].slice(0, VOICINGS_KEPT).map((voicing, rank) => ({
      frets: perString(voicing, tuning.stringsMidi.length),
      // The path says which is first; behind it less effort ranks higher.
      score: rank === 0 ? 1 : 1 / (1 + rank + Math.max(0, voicing.effort - chosen.effort)),
    }));
  });
}

function nameOf({ rootPc, quality, midi }: HeardStrum, key: Key | null): string {
  if (rootPc === null || quality === null) return 'x';
  return chordName({ rootPc, quality, bassPc: pitchClassOf(midi[0]) }, key);
}

/** Finer than this no probability is known. */
const PROBABILITY_STEPS = 1e4;

function describeStroke({ timeS, stroke }: StrokeCandidate): AnalysedStroke {
  const rounded = (p: number): number => Math.round(PROBABILITY_STEPS * p) / PROBABILITY_STEPS;
  return {
    timeS,
    ring: rounded(stroke.ring),
    palmMute: rounded(stroke.palmMute),
    dead: rounded(stroke.dead),
  };
}

/** Throws a RangeError when the signal has no samples. */
export function analyse(signal: StereoSignal, options: AnalyseOptions = {}): Analysis {
  if (signal.channels.length === 0 || signal.channels[0].length === 0) {
    throw new RangeError('channels must hold at least one sample, but was empty');
  }
  const heard = chooseQuarterToneSide(listen(signal, options));
  const { grid, reference, sections } = heard;
  const key = heard.key?.key ?? null;
  const keyAt = (timeS: number): Key | null =>
    sections.find((s) => timeS >= s.startS && timeS < s.endS)?.key ?? key;
  const ranked = rankTunings(heard.strums);
  const tuning = options.tuning ?? ranked[0]?.tuning ?? STANDARD_TUNING;
  const describe = (heardStrums: readonly HeardStrum[]): AnalysedStrum[] => {
    const reached = aboveLowestString(heardStrums, tuning, options.tuning !== undefined);
    const strums = withoutOctaveGuitar(reached, tuning);
    const voicings = rankVoicings(strums, tuning);
    return strums.map((strum, k) => ({
      ...strum,
      name: nameOf(strum, keyAt(strum.timeS)),
      voicings: voicings[k],
    }));
  };
  const analysis: Omit<Analysis, 'doubts'> = {
    schema: 'wild-needle/analysis@1',
    algorithm: ALGORITHM_VERSION,
    durationS: heard.durationS,
    referenceOffsetCents: reference?.cents ?? 0,
    referenceSpreadCents: reference?.spreadCents ?? 0,
    referenceIsUnsettled: reference?.isNearQuarterTone ?? false,
    referenceHistogram: reference?.histogram ?? [],
    referencePartials: reference?.partials ?? 0,
    referenceOverTime: reference?.overTime ?? [],
    tempoBpm: grid?.tempoBpm ?? null,
    meter: grid?.meter ?? { beats: 4, unit: 4 },
    meters: heard.meters,
    beatsS: grid?.beatsS ?? [],
    downbeatsS: grid?.downbeatsS ?? [],
    beatsPerBar: grid?.beatsPerBar ?? [],
    freeTime: grid?.freeTime ?? [],
    key,
    tuning: {
      ...tuning,
      candidates: ranked
        .slice(0, TUNINGS_KEPT)
        .map(({ tuning: one, score, cost: _, ...reasons }) => ({ ...one, score, reasons })),
    },
    sections,
    sameAsBar: heard.sameAsBar,
    strums: describe(heard.strums),
    strokes: heard.strokes.map(describeStroke),
    guitars: heard.guitars.map(({ side, strums }) => ({ side, strums: describe(strums) })),
  };
  return { ...analysis, doubts: doubtsOf(analysis) };
}
