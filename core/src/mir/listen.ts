/**
 * Everything that is measured of a recording, in order: pitch offset, strokes, chords, pulse, bars, form, the chords
 * once more with what the form says, and where two guitars play apart. Pure and synchronous; run it in a worker.
 */
import type { Key } from '../theory';
import { groupAlike } from './alike';
import { placeBars, type BarLayout } from './bars';
import { comparePasses, type HeardPass } from './compare-passes';
import { barContents } from './bar-contents';
import { hearBarHarmony } from './bar-harmony';
import { findSections } from './form';
import { createStrumHearing, type KnownForm } from './hear-strums';
import { estimateKey, estimateSectionKeys } from './key-estimate';
import { rankMeters } from './rank-meters';
import { estimateReferenceOffset } from './reference-offset';
import { NOTHING_SETTLED, type Settled } from './settled';
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
import meterWeights from './weights/meter.json';

export interface DescribedSection extends HeardSection {
  /** The key of the song, or its own where it changes. */
  readonly key: Key | null;
  /** Each pass, and where it differs from the others of its riff. */
  readonly passList: readonly HeardPass[];
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
  /** One each where two guitars play apart; empty for one guitar, and for two that double each other. */
  readonly guitars: readonly HeardGuitar[];
  readonly key: KeyEstimate | null;
  readonly sections: readonly DescribedSection[];
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
  /** What the user has settled already; the rest is heard better for it. */
  readonly settled?: Settled;
}

function measureReference(
  samples: Float32Array,
  sampleRate: number,
  { referenceCents }: Settled,
): ReferenceOffset | null {
  const measured = estimateReferenceOffset(samples, sampleRate);
  if (referenceCents === null) return measured;
  const { spreadCents = 0, overTime = [], histogram = [], partials = 0 } = measured ?? {};
  return { cents: referenceCents, spreadCents, isNearQuarterTone: false, overTime, histogram, partials };
}

export function listen(
  signal: StereoSignal,
  { onProgress = () => undefined, onPart, settled = NOTHING_SETTLED }: ListenOptions = {},
): Heard {
  const { sampleRate } = signal;
  const durationS = signal.channels[0].length / sampleRate;
  const midSide = splitStereo(signal);

  onProgress(0.02, 'Listening for the pitch of the recording');
  const reference = measureReference(midSide.side ?? midSide.mid, sampleRate, settled);
  const offsetCents = reference?.cents ?? 0;
  onPart?.({ reference, strums: [], grid: null });

  onProgress(0.12, 'Listening for the strokes');
  const hearing = createStrumHearing(midSide, sampleRate, offsetCents, durationS, settled);
  const first = hearing.hear(null, (share) => onProgress(0.35 + 0.3 * share, 'Naming the chords'));

  onPart?.({ reference, strums: first.strums, grid: null });

  onProgress(0.65, 'Counting beats and bars');
  const struck = first.strums.map((s, k) => ({
    timeS: s.timeS,
    rootPc: s.rootPc,
    weight: first.sureness[k],
  }));
  const ranked = rankMeters(hearing.strength, struck, durationS, meterWeights);
  if (!ranked) {
    onProgress(1, 'Done');
    const { strums } = first;
    return {
      durationS,
      reference,
      grid: null,
      meters: [],
      strums,
      guitars: [],
      key: estimateKey(strums),
      sections: [],
    };
  }
  const grid = placeBars(ranked.reading, struck, hearing.strength, durationS, meterWeights);
  const { downbeatsS } = grid;
  onPart?.({ reference, strums: first.strums, grid });

  onProgress(0.7, 'Comparing the riffs');
  // Strums in free time stand in no bar.
  const inBars = (some: readonly HeardStrum[]): HeardStrum[] =>
    some.filter(({ timeS }) => !grid.freeTime.some((f) => timeS >= f.startS && timeS <= f.endS));
  const harmony = hearBarHarmony(midSide.mid, sampleRate, offsetCents, downbeatsS, durationS);
  const drafted = findSections(inBars(first.strums), downbeatsS, durationS, hearing.strength, harmony);
  const bars = barContents(first.strums, downbeatsS, durationS);
  const known: KnownForm = {
    beatsS: grid.beatsS,
    alikeOf: (timesS) => groupAlike(timesS, drafted, downbeatsS, bars),
  };
  const { strums } = hearing.hear(known);
  const sections = findSections(inBars(strums), downbeatsS, durationS, hearing.strength, harmony);
  const keys = estimateSectionKeys(strums, sections);
  const passes = comparePasses(strums, sections, downbeatsS, durationS);

  onProgress(0.8, 'Listening for a second guitar');
  const guitars = hearGuitarsApart(signal, strums, offsetCents, known, (share) =>
    onProgress(0.82 + 0.17 * share, 'Listening to each guitar'),
  );
  onProgress(1, 'Done');
  return {
    durationS,
    reference,
    grid,
    meters: ranked.alternatives,
    strums,
    guitars,
    key: estimateKey(strums),
    sections: sections.map((section, s) => ({ ...section, key: keys[s], passList: passes[s] })),
  };
}
