/** What an analysis is not sure of, so that the screens can say it instead of showing a guess as a fact. */
import type { MeterAlternative } from '../mir';

export type Doubt =
  /** Nothing in it sounds like a struck string. */
  | { readonly kind: 'no-strums' }
  /** All that was heard are strokes without a pitch: a click, or drums. */
  | { readonly kind: 'no-notes' }
  /** So few strums that it may be no guitar at all: voices, or one that joins late. */
  | { readonly kind: 'few-strums'; readonly count: number }
  /** Nearly all that was heard are single notes: a voice, a bass guitar or a lead, and no guitar that plays chords. */
  | { readonly kind: 'no-chords' }
  /** Strums were heard, but hardly one surely: noise, speech, or a guitar far behind. */
  | { readonly kind: 'faint' }
  | { readonly kind: 'no-pulse' }
  /** Another reading of tempo and meter is about as likely. */
  | { readonly kind: 'tempo'; readonly other: MeterAlternative }
  | { readonly kind: 'between-notes'; readonly cents: number }
  | { readonly kind: 'free-time'; readonly startS: number; readonly endS: number };

/** The part of an analysis that doubts are read from. */
interface Heard {
  readonly durationS: number;
  readonly strums: readonly {
    readonly confidence: number;
    readonly dead: boolean;
    readonly midi: readonly number[];
  }[];
  readonly tempoBpm: number | null;
  readonly meters: readonly MeterAlternative[];
  readonly referenceIsUnsettled: boolean;
  readonly referenceOffsetCents: number;
  readonly freeTime: readonly { readonly startS: number; readonly endS: number }[];
}

/** Means of confidence: made noise .28, a voice alone .49; rendered songs .69 and more. */
const FAINT_BELOW = 0.5;
/** Dead strokes are at most 7 in 100 of the strums of the rendered songs, and none of the real ones. */
const ALL_DEAD_FROM = 0.9;
/** A minute. A chord held over two bars at 60 bpm is struck 7 times; the rendered and real songs have 60 strums and more. */
const FEW_PER_MINUTE = 10;
/** What is shorter says nothing of how often its guitar strums. */
const FEW_NEEDS_S = 15;
/**
 * Single notes are at most 37 in 100 of the strums of the rendered and real songs; a choir in unison is heard as nothing else,
 * somebody who speaks as 89 of 100.
 */
const ALL_SINGLE_FROM = 0.8;
/** What is shorter may be one run between two riffs. */
const SINGLE_NEEDS_S = 10;
/** A reading this much less likely than the first does not cast doubt on it. */
const RIVAL_SHARE = 0.5;

function rivalOf([first, ...others]: readonly MeterAlternative[]): MeterAlternative | undefined {
  return others.find(
    ({ tempoBpm, meter, probability }) =>
      probability > RIVAL_SHARE * first.probability &&
      (Math.abs(tempoBpm / first.tempoBpm - 1) > 0.04 ||
        meter.beats !== first.meter.beats ||
        meter.unit !== first.meter.unit),
  );
}

/** Where nobody keeps time for most of the recording, its tempo is no question. */
function isMostlyFree({ freeTime, durationS }: Heard): boolean {
  return freeTime.reduce((sum, { startS, endS }) => sum + endS - startS, 0) > durationS / 2;
}

/** The gravest first; empty when everything was heard well. */
export function doubtsOf(heard: Heard): Doubt[] {
  const { durationS, strums, tempoBpm, meters, referenceIsUnsettled, referenceOffsetCents, freeTime } = heard;
  if (strums.length === 0) return [{ kind: 'no-strums' }];
  const doubts: Doubt[] = [];
  const dead = strums.filter((s) => s.dead).length;
  if (dead >= ALL_DEAD_FROM * strums.length) doubts.push({ kind: 'no-notes' });
  else if (durationS > FEW_NEEDS_S && strums.length < (FEW_PER_MINUTE * durationS) / 60) {
    doubts.push({ kind: 'few-strums', count: strums.length });
  }
  const sounding = strums.filter((s) => !s.dead);
  const single = sounding.filter((s) => s.midi.length === 1).length;
  if (durationS > SINGLE_NEEDS_S && single > 0 && single >= ALL_SINGLE_FROM * sounding.length) {
    doubts.push({ kind: 'no-chords' });
  }
  const mean = strums.reduce((sum, s) => sum + s.confidence, 0) / strums.length;
  if (mean < FAINT_BELOW) doubts.push({ kind: 'faint' });
  if (referenceIsUnsettled) doubts.push({ kind: 'between-notes', cents: referenceOffsetCents });
  if (tempoBpm === null) doubts.push({ kind: 'no-pulse' });
  const other = meters.length > 0 ? rivalOf(meters) : undefined;
  if (other && !isMostlyFree(heard)) doubts.push({ kind: 'tempo', other });
  for (const { startS, endS } of freeTime) doubts.push({ kind: 'free-time', startS, endS });
  return doubts;
}
