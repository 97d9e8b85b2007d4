/**
 * The analysis as one plain object: what was heard, and which tunings and voicings could have played it.
 * Schema `wild-needle/analysis@1`; printed by the command line, stored by the server, read by the screens.
 */
import {
  applyHabits,
  chooseHandPath,
  findVoicings,
  rankTunings,
  STANDARD_TUNING,
  type Tuning,
  type Voicing,
} from '../guitar';
import {
  listen,
  type HeardSection,
  type HeardStrum,
  type Meter,
  type MeterAlternative,
  type OnProgress,
  type StereoSignal,
} from '../mir';
import { chordName, pitchClassOf, type Key } from '../theory';
import { settleQuarterTone } from './quarter-tone';

/** Raise when results change; stored with every analysis. */
export const ALGORITHM_VERSION = 'networks-1';

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
}

export interface Analysis {
  readonly schema: 'wild-needle/analysis@1';
  readonly algorithm: string;
  readonly durationS: number;
  readonly referenceOffsetCents: number;
  readonly referenceSpreadCents: number;
  /** Quarter notes per minute; null without a pulse. */
  readonly tempoBpm: number | null;
  readonly meter: Meter;
  /** Readings of tempo and meter with their probability, most likely first. */
  readonly meters: readonly MeterAlternative[];
  readonly beatsS: readonly number[];
  readonly downbeatsS: readonly number[];
  readonly key: Key | null;
  readonly tuning: Tuning & { readonly candidates: readonly TuningWithScore[] };
  readonly sections: readonly HeardSection[];
  readonly strums: readonly AnalysedStrum[];
}

/** Candidates kept in the result. */
const TUNINGS_KEPT = 5;
const VOICINGS_KEPT = 4;
/** Candidates per strum on the way through the song. */
const PATH_WIDTH = 6;

/** `frets` as a list per string, lowest first, null = not played. */
export function fretList(voicing: Voicing, strings: number): (number | null)[] {
  const frets = new Array<number | null>(strings).fill(null);
  for (const { string, fret } of voicing.frets) frets[strings - string] = fret;
  return frets;
}

function rankVoicings(strums: readonly HeardStrum[], tuning: Tuning): RankedVoicing[][] {
  const layers = strums.map((s) => applyHabits(findVoicings(s.midi, tuning), tuning).slice(0, PATH_WIDTH));
  const { path } = chooseHandPath(layers.filter((l) => l.length > 0));
  let next = 0;
  return layers.map((layer) => {
    if (layer.length === 0) return [];
    const chosen = path[next++];
    const others = layer.filter((v) => v !== chosen);
    return [chosen, ...others].slice(0, VOICINGS_KEPT).map((voicing, rank) => ({
      frets: fretList(voicing, tuning.stringsMidi.length),
      // The path says which is first; behind it less effort ranks higher.
      score: rank === 0 ? 1 : 1 / (1 + rank + Math.max(0, voicing.effort - chosen.effort)),
    }));
  });
}

/** Throws a RangeError when the signal has no samples. */
export function analyse(signal: StereoSignal, onProgress?: OnProgress): Analysis {
  if (signal.channels.length === 0 || signal.channels[0].length === 0) {
    throw new RangeError('channels must hold at least one sample, but was empty');
  }
  const heard = settleQuarterTone(listen(signal, onProgress));
  const key = heard.key?.key ?? null;
  const ranked = rankTunings(heard.strums.map((s) => s.midi));
  const tuning = ranked[0]?.tuning ?? STANDARD_TUNING;
  const voicings = rankVoicings(heard.strums, tuning);
  return {
    schema: 'wild-needle/analysis@1',
    algorithm: ALGORITHM_VERSION,
    durationS: heard.durationS,
    referenceOffsetCents: heard.reference?.cents ?? 0,
    referenceSpreadCents: heard.reference?.spreadCents ?? 0,
    tempoBpm: heard.grid?.tempoBpm ?? null,
    meter: heard.grid?.meter ?? { beats: 4, unit: 4 },
    meters: heard.meters,
    beatsS: heard.grid?.beatsS ?? [],
    downbeatsS: heard.grid?.downbeatsS ?? [],
    key,
    tuning: {
      ...tuning,
      candidates: ranked.slice(0, TUNINGS_KEPT).map((c) => ({ ...c.tuning, score: c.score })),
    },
    sections: heard.sections,
    strums: heard.strums.map((strum, k) => ({
      ...strum,
      name:
        strum.rootPc === null || strum.quality === null
          ? 'x'
          : chordName(
              { rootPc: strum.rootPc, quality: strum.quality, bassPc: pitchClassOf(strum.midi[0]) },
              key,
            ),
      voicings: voicings[k],
    })),
  };
}
