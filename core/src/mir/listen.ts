/**
 * Everything that is measured of a recording, in order: pitch offset, strokes, chords, pulse, bars, form, the chords
 * once more with what the form says, and where two guitars play apart. Pure and synchronous; run it in a worker.
 */
import type { Key } from '../theory';
import { ANALYSIS_SAMPLE_RATE } from '../units';
import { estimateKey, estimateSectionKeys } from './chords/key-estimate';
import { NOTHING_CONFIRMED, type Confirmed } from './confirmed';
import { barContents } from './form/bar-contents';
import { computeBarChroma } from './form/bar-chroma';
import { computeBarSpectra } from './form/bar-spectrum';
import { findForm } from './form/form';
import { groupRepetitions } from './form/repetition-groups';
import { createStrumHearing, type HeardStrums, type StrokeCandidate, type StrumHearing } from './hear-strums';
import type { KnownForm } from './read-chords';
import { findLowerGuitar } from './lower-guitar';
import { placeBars, type BarLayout } from './meter/bars';
import meterWeights from './meter/meter.json';
import { rankMeters } from './meter/rank-meters';
import { estimateReferenceOffset } from './reference-offset';
import { splitStereo } from './stereo';
import { hearGuitarsApart, type HeardGuitar } from './two-guitars';
import type {
  HeardSection,
  HeardStrum,
  KeyEstimate,
  MeterAlternative,
  ReferenceOffset,
  StereoSignal,
} from './types';

export interface DescribedSection extends HeardSection {
  /** The key of the song, or its own where it changes. */
  readonly key: Key | null;
}

export interface Heard {
  readonly durationS: number;
  /** Null when nothing tonal sounds. */
  readonly reference: ReferenceOffset | null;
  /** Null when there is no pulse to follow. */
  readonly grid: BarLayout | null;
  /** Readings of tempo and meter, most likely first; empty without a pulse. */
  readonly meters: readonly MeterAlternative[];
  readonly strums: readonly HeardStrum[];
  /** Every instant at which something may have been struck. */
  readonly strokes: readonly StrokeCandidate[];
  /** One each where two guitars play apart; empty for one guitar, and for two that double each other. */
  readonly guitars: readonly HeardGuitar[];
  readonly key: KeyEstimate | null;
  readonly sections: readonly DescribedSection[];
  /** For each bar the earliest that it is the same as, whatever riff they stand in; itself where it is the first or alone. */
  readonly sameAsBar: readonly number[];
}

/** What is being done, in words for the screen, and the share of the whole, 0 to 1. */
export type OnProgress = (share: number, doing: string) => void;

/** What is known while the rest is still being measured: each measurement is told as soon as it stands. */
export interface HeardSoFar {
  readonly reference: ReferenceOffset | null;
  readonly strums: readonly HeardStrum[];
  readonly grid: BarLayout | null;
}

export interface ListenOptions {
  readonly onProgress?: OnProgress;
  readonly onPart?: (soFar: HeardSoFar) => void;
  /** What the guitars play alone, as long as the recording, where the band was taken apart. */
  readonly guitars?: StereoSignal | undefined;
  /** What the user has confirmed already; the rest is heard better for it. */
  readonly confirmed?: Confirmed;
}

function measureReference(
  samples: Float32Array,
  sampleRate: number,
  { referenceCents }: Confirmed,
): ReferenceOffset | null {
  const measured = estimateReferenceOffset(samples, sampleRate);
  if (referenceCents === null) return measured;
  const { spreadCents = 0, overTime = [], histogram = [], partials = 0 } = measured ?? {};
  return { cents: referenceCents, spreadCents, isNearQuarterTone: false, overTime, histogram, partials };
}

/** What listening to a whole song leaves, for asking the recording on. */
export interface SongHearing extends Omit<Heard, 'guitars' | 'strokes'> {
  readonly hearing: StrumHearing;
  /** Null where there is no pulse. */
  readonly known: KnownForm | null;
  readonly heardStrums: HeardStrums;
}

/** Everything up to the second guitar; see {@link listen}. */
export function hearSong(
  signal: StereoSignal,
  { onProgress = () => undefined, onPart, guitars, confirmed = NOTHING_CONFIRMED }: ListenOptions = {},
): SongHearing {
  const { sampleRate } = signal;
  if (sampleRate !== ANALYSIS_SAMPLE_RATE) {
    throw new RangeError(`sampleRate must be ${ANALYSIS_SAMPLE_RATE} Hz, but was ${sampleRate}`);
  }
  const durationS = signal.channels[0].length / sampleRate;
  const midSide = splitStereo(signal);
  const band = { whole: midSide, guitars: guitars ? splitStereo(guitars) : null };

  onProgress(0.02, 'Listening for the pitch of the recording');
  const reference = measureReference(midSide.side ?? midSide.mid, sampleRate, confirmed);
  const offsetCents = reference?.cents ?? 0;
  onPart?.({ reference, strums: [], grid: null });

  onProgress(0.12, 'Listening for the strokes');
  const hearing = createStrumHearing(band, sampleRate, offsetCents, durationS, confirmed);
  const first = hearing.hear(null, (share) => onProgress(0.35 + 0.3 * share, 'Naming the chords'));

  onPart?.({ reference, strums: first.strums, grid: null });

  onProgress(0.65, 'Counting beats and bars');
  const struck = first.strums.map((s, k) => ({
    timeS: s.timeS,
    rootPc: s.rootPc,
    probability: first.strokeProbabilities[k],
  }));
  const ranked = rankMeters(hearing.strength, struck, durationS, meterWeights);
  if (!ranked) {
    const { strums } = first;
    return {
      durationS,
      reference,
      grid: null,
      meters: [],
      strums,
      key: estimateKey(strums),
      sections: [],
      sameAsBar: [],
      hearing,
      known: null,
      heardStrums: first,
    };
  }
  const grid = placeBars(ranked.reading, struck, hearing.strength, durationS, meterWeights);
  const { downbeatsS } = grid;
  onPart?.({ reference, strums: first.strums, grid });

  onProgress(0.7, 'Comparing the riffs');
  // Strums in free time stand in no bar.
  const inBars = (some: readonly HeardStrum[]): HeardStrum[] =>
    some.filter(({ timeS }) => !grid.freeTime.some((f) => timeS >= f.startS && timeS <= f.endS));
  const played = {
    strength: hearing.strength,
    harmony: computeBarChroma(midSide.mid, sampleRate, offsetCents, downbeatsS, durationS),
    spectra: computeBarSpectra(midSide.mid, sampleRate, downbeatsS, durationS),
  };
  const drafted = findForm(inBars(first.strums), downbeatsS, durationS, played);
  const bars = barContents(first.strums, downbeatsS, durationS);
  const known: KnownForm = {
    beatsS: grid.beatsS,
    repetitionsOf: (timesS) => groupRepetitions(timesS, drafted, downbeatsS, bars),
    lowerGuitar: findLowerGuitar(guitars ?? signal, first.strums, offsetCents),
  };
  const heardStrums = hearing.hear(known);
  const { strums } = heardStrums;
  const { sections, sameAsBar } = findForm(inBars(strums), downbeatsS, durationS, played);
  const keys = estimateSectionKeys(strums, sections);
  return {
    durationS,
    reference,
    grid,
    meters: ranked.alternatives,
    strums,
    key: estimateKey(strums),
    sections: sections.map((section, s) => ({ ...section, key: keys[s] })),
    sameAsBar,
    hearing,
    known,
    heardStrums,
  };
}

/**
 * Measures a recording of one or two channels at {@link ANALYSIS_SAMPLE_RATE}; times are seconds from its first sample. Throws a
 * RangeError at another rate: windows, features and weights are made for this one, and what is heard at another is wrong
 * without a sign of it.
 */
export function listen(signal: StereoSignal, options: ListenOptions = {}): Heard {
  const { onProgress = () => undefined } = options;
  const { hearing: _, heardStrums, known, ...heard } = hearSong(signal, options);
  const offsetCents = heard.reference?.cents ?? 0;
  if (known) onProgress(0.8, 'Listening for a second guitar');
  const guitars = known
    ? hearGuitarsApart(options.guitars ?? signal, heard.strums, offsetCents, known, (share) =>
        onProgress(0.82 + 0.17 * share, 'Listening to each guitar'),
      )
    : [];
  onProgress(1, 'Done');
  return { ...heard, strokes: heardStrums.candidates, guitars };
}
