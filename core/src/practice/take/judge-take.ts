/** What a take says of its player, strum by strum: played or not, how late, the notes, the hand; and what was struck beside it. */
import type { Evidence, StruckAt, WrittenStrum } from '../../check';
import type { MidiNote } from '../../units';
import { alignTake, type Alignment } from './align-take';
import { bleedDelay } from './bleed-delay';
import { firstSoundDelay } from './first-sound';
import { strokeLevels, withoutBleed } from './stroke-levels';

export interface JudgedStrum {
  readonly played: boolean;
  /** Struck minus written with the delay taken out; null when not played. */
  readonly offsetS: number | null;
  /** That the notes are those written, no string too many or too few. */
  readonly right: number;
  readonly mute: 'right' | 'wrong' | 'unclear';
  readonly heard: readonly MidiNote[] | null;
}

export interface JudgedTake {
  readonly delayS: number;
  readonly strums: readonly JudgedStrum[];
  /** On the time line of the tab. */
  readonly extraS: readonly number[];
  readonly summary: {
    readonly played: number;
    readonly right: number;
    readonly meanOffsetS: number;
    readonly spreadS: number;
  };
}

/** Where the strums of the tab lie in the take, for asking about their notes. */
export interface PlacedTake {
  readonly alignment: Alignment;
  /** Everything that may have been struck, at the time of the pick. */
  readonly strokes: readonly StruckAt[];
  readonly delayS: number;
  /** The strums that were played, at the time of their stroke; `indices` are those of the tab. */
  readonly played: readonly WrittenStrum[];
  readonly indices: readonly number[];
}

/** More likely than not, the notes are right. */
const RIGHT = 0.5;
/**
 * The hearing knows no tab: to it what is written is one chord among all. A player plays nine strums of ten as they are written (takes with
 * mistakes on purpose have as many), and so much likelier it is.
 */
const AS_WRITTEN_ODDS = 9;
/** Between these, the hand can't be told. */
const MUTE_WRONG = 0.35;
const MUTE_RIGHT = 0.5;
/** So long before the first stroke nothing of the player sounds. */
const BEFORE_PLAYER_S = 0.05;
/** The hearing gives strokes where they begin to rise: 4 ms before the first string is left, in each of twelve takes. */
const HEARD_EARLY_S = 0.004;
/** A stroke that nobody has written must be likelier than this: there are no drums in a take that it could be instead. */
const EXTRA = 0.1;
/** And not be the same stroke as one that is taken: strings are struck one after the other. */
const SAME_STROKE_S = 0.05;

/** Softer than this an input is too quiet to tell, dB under full scale. */
export const TOO_QUIET_DB = -60;

/** A take as an input has recorded it, with the beats that were counted and played along to. */
export interface Take {
  readonly samples: Float32Array;
  readonly sampleRate: number;
  readonly beatsS: readonly number[];
  /** Of the device, where it was measured; null to find it. */
  readonly delayS: number | null;
}

/** `heard`: what may have been struck; the hearing has it {@link HEARD_EARLY_S} before the pick. */
export function placeTake(
  written: readonly WrittenStrum[],
  { samples, sampleRate, beatsS, delayS }: Take,
  heard: readonly StruckAt[],
): PlacedTake {
  const levels = strokeLevels(
    samples,
    sampleRate,
    heard.map((s) => s.timeS),
  );
  const strokes = withoutBleed(heard, levels).map((s) => ({ ...s, timeS: s.timeS + HEARD_EARLY_S }));
  const writtenS = written.map((w) => w.timeS);
  const first = alignTake(writtenS, strokes, delayS);
  const begins = Math.min(...first.strokeOf.flatMap((j) => (j === null ? [] : [strokes[j].timeS])));
  const isPlayed = Number.isFinite(begins);
  const fromSpeaker = (): number | null =>
    bleedDelay(samples, sampleRate, beatsS, begins - BEFORE_PLAYER_S) ??
    firstSoundDelay(samples, sampleRate, beatsS, begins);
  const bled = delayS ?? (isPlayed ? fromSpeaker() : null);
  const alignment = bled === null || delayS !== null ? first : alignTake(writtenS, strokes, bled);
  const indices = alignment.strokeOf.flatMap((j, i) => (j === null ? [] : [i]));
  return {
    alignment,
    // Nobody can tell lateness from delay then: all of it is taken for delay.
    delayS: bled ?? Math.max(0, alignment.offsetS),
    strokes,
    indices,
    played: indices.map((i) => {
      const { timeS } = strokes[alignment.strokeOf[i]!];
      return { ...written[i], timeS, endS: timeS + (written[i].endS - written[i].timeS) };
    }),
  };
}

function meanOf(values: readonly number[]): number {
  return values.length === 0 ? 0 : values.reduce((sum, v) => sum + v, 0) / values.length;
}

/** Of a probability that knows no tab. */
function knowingTheTab(notes: number): number {
  return (AS_WRITTEN_ODDS * notes) / (AS_WRITTEN_ODDS * notes + 1 - notes);
}

/** `evidence` of the strums that were played, see {@link placeTake}. */
export function judgeTake(
  written: readonly WrittenStrum[],
  { alignment, strokes, delayS, indices, played }: PlacedTake,
  { strums }: Evidence,
): JudgedTake {
  const judged = written.map((): JudgedStrum => ({
    ...{ played: false, offsetS: null, right: 0, mute: 'unclear', heard: null },
  }));
  indices.forEach((i, k) => {
    const { notes, kind, heard } = strums[k];
    judged[i] = {
      played: true,
      offsetS: played[k].timeS - written[i].timeS - delayS,
      // A dead stroke has no notes that could be wrong.
      right: notes === null ? Math.max(RIGHT, kind) : knowingTheTab(notes),
      mute: kind >= MUTE_RIGHT ? 'right' : kind < MUTE_WRONG ? 'wrong' : 'unclear',
      heard: heard?.midi ?? null,
    };
  });
  const takenS = played.map((p) => p.timeS);
  const extraS = alignment.extra
    .map((j) => strokes[j])
    .filter(
      ({ timeS, probability }) =>
        probability >= EXTRA && takenS.every((t) => Math.abs(t - timeS) > SAME_STROKE_S),
    )
    .map(({ timeS }) => timeS - delayS);
  const offsets = judged.flatMap((j) => j.offsetS ?? []);
  const meanOffsetS = meanOf(offsets);
  return {
    delayS,
    strums: judged,
    extraS,
    summary: {
      played: indices.length,
      right: judged.filter((j) => j.played && j.right >= RIGHT).length,
      meanOffsetS,
      spreadS: Math.sqrt(meanOf(offsets.map((o) => (o - meanOffsetS) ** 2))),
    },
  };
}
