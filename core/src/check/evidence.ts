/**
 * What the recording says of each written strum, before anything is made of it: how likely its own notes are where it is written,
 * whether anything is struck there, how, and what is struck beside it that nobody has written.
 */
import { bisector } from 'd3-array';
import {
  askableOf,
  decideKind,
  hearSong,
  kindOf,
  NOTHING_CONFIRMED,
  recallHearing,
  resumeHearing,
  STROKE_KINDS,
  strokeProbability,
  type AskableSong,
  type AskedSpan,
  type Confirmed,
  type DecodedChord,
  type HeardBefore,
  type HeardStrum,
  type OnProgress,
  type SongHearing,
  type StereoSignal,
  type StagedLevels,
  type StrokeCandidate,
  type StrumSpan,
} from '../mir';
import { SAME_STROKE_S, type MidiNote } from '../units';
import { coverOf, type Cover } from './covered';

/** A strum as the tab has it, at its place in the recording. */
export interface WrittenStrum {
  readonly timeS: number;
  readonly endS: number;
  /** Sounding notes, lowest first; empty for a dead stroke. */
  readonly midi: readonly MidiNote[];
  readonly palmMuted: boolean;
  readonly dead: boolean;
}

export interface StrumEvidence {
  /** Probability that its notes sound where it is written; null for a dead stroke. */
  readonly notes: number | null;
  /** That something is struck within {@link SAME_STROKE_S} of it. */
  readonly struck: number;
  /** Of a stroke there, that it is played as it is written: ringing, muted or dead. */
  readonly kind: number;
  /** What was heard there: the strum of the hearing, or what sounds in its span where none is. */
  readonly heard: Pick<HeardStrum, 'timeS' | 'endS' | 'midi' | 'palmMuted' | 'dead'> | null;
  /** Struck so much later than written; null where nothing was. */
  readonly offsetS: number | null;
  /** Who sounds the notes in which it differs from what is heard; null where that can be told. */
  readonly cover: Cover | null;
  /** A strum that nobody has written and that plays the same nearby: when, and how likely it is this one. */
  readonly elsewhere: { readonly timeS: number; readonly probability: number } | null;
}

export interface Evidence {
  /** One for each written strum. */
  readonly strums: readonly StrumEvidence[];
  /** Strums that are heard where none is written. */
  readonly extra: readonly HeardStrum[];
}

/** A strum written at the wrong time was played up to so much earlier or later: an eighth at 100 bpm and a little. */
const ELSEWHERE_S = 0.45;
/** A stroke ends the span of what is written before it from this probability on. */
const ENDS_SPAN = 0.5;
/** Chords are read over this at least. */
const SHORTEST_S = 0.06;

const byTime = bisector((one: { readonly timeS: number }) => one.timeS);

/** Of ascending instants those in [fromS, toS]. */
function within<T extends { readonly timeS: number }>(
  all: readonly T[],
  fromS: number,
  toS: number,
): readonly T[] {
  return all.slice(byTime.left(all, fromS), byTime.right(all, toS));
}

/** The candidate that is likeliest the stroke of an instant; null where none is near. */
function strokeAt(candidates: readonly StrokeCandidate[], timeS: number): StrokeCandidate | null {
  const near = within(candidates, timeS - SAME_STROKE_S, timeS + SAME_STROKE_S);
  return near.reduce<StrokeCandidate | null>(
    (best, one) => (!best || strokeProbability(one.stroke) > strokeProbability(best.stroke) ? one : best),
    null,
  );
}

/** Written strums with the heard one of each; both in order of time, each heard one is taken once, the nearest first. */
function pairUp(
  written: readonly WrittenStrum[],
  heard: readonly HeardStrum[],
): { readonly partner: readonly (HeardStrum | null)[]; readonly extra: readonly HeardStrum[] } {
  const pairs = written.flatMap((w, i) =>
    within(heard, w.timeS - SAME_STROKE_S, w.timeS + SAME_STROKE_S).map((h) => ({
      i,
      h,
      apart: Math.abs(h.timeS - w.timeS),
    })),
  );
  const partner = new Array<HeardStrum | null>(written.length).fill(null);
  const taken = new Set<HeardStrum>();
  for (const { i, h } of pairs.sort((a, b) => a.apart - b.apart)) {
    if (partner[i] || taken.has(h)) continue;
    partner[i] = h;
    taken.add(h);
  }
  return { partner, extra: heard.filter((h) => !taken.has(h)) };
}

/** Written notes that are likelier than this are borne out. */
const UNSURE = 0.5;
/** Less likely than this, nothing is struck. */
const HARDLY_STRUCK = 0.1;

/** What is heard where the hearing has no strum of its own. */
function soundingThere(
  midi: readonly MidiNote[],
  stroke: StrokeCandidate | null,
  { timeS, endS }: StrumSpan,
): StrumEvidence['heard'] {
  if (!stroke || strokeProbability(stroke.stroke) < HARDLY_STRUCK) return null;
  const kind = decideKind(stroke.stroke);
  const dead = kind === 'dead';
  return { timeS, endS, midi: dead ? [] : midi, palmMuted: kind === 'palmMute', dead };
}

/** A recording that lies this far from equal temperament may be meant a semitone higher or lower. */
const UNSURE_CENTS = 30;

/**
 * A recording between two notes: which of them is meant the tab knows. The other pitch of the recording, in cents, where most of what is
 * heard lies the same semitone beside what is written; null otherwise.
 */
function otherReading({ reference, strums }: SongHearing, written: readonly WrittenStrum[]): number | null {
  const cents = reference?.cents ?? 0;
  const semitone = Math.sign(cents);
  const { partner } = pairUp(written, strums);
  const sounding = written.flatMap((w, i) => {
    const midi = partner[i]?.midi ?? [];
    return w.midi.length > 0 && midi.length > 0 ? [midi[0] - w.midi[0]] : [];
  });
  const isMoved = (by: number): boolean => 2 * sounding.filter((d) => d === by).length > sounding.length;
  if (Math.abs(cents) < UNSURE_CENTS) return null;
  return isMoved(-semitone) ? cents - 100 * semitone : null;
}

/** A recording that was listened to, to be asked about what is written. */
export interface Witness {
  /** `written` in order of time. */
  ask(written: readonly WrittenStrum[]): Evidence;
}

export interface WitnessOptions {
  /** What the ear has settled already; with the pitch of the recording, measured when that is null. */
  readonly confirmed?: Confirmed;
  /** See `ListenOptions` of mir. */
  readonly guitars?: StereoSignal | undefined;
  readonly onProgress?: OnProgress;
}

/** Listens to a recording once. Throws as `listen` of mir does. */
export function createWitness(
  signal: StereoSignal,
  { confirmed = NOTHING_CONFIRMED, guitars, onProgress }: WitnessOptions,
): Witness {
  return witnessOf(askableOf(hearSong(signal, { confirmed, guitars, ...(onProgress && { onProgress }) })));
}

/** What was heard before, without the sound: for a first look. */
export function paperWitness(before: HeardBefore): Witness {
  return witnessOf(recallHearing(before));
}

/** Asks a recording that was listened to before: what is struck is known, only chords are read. */
export function recallWitness(signal: StereoSignal, before: HeardBefore): Witness {
  return witnessOf(resumeHearing(signal, before));
}

function witnessOf(song: AskableSong): Witness {
  const { candidates } = song;
  const sure = candidates.filter(({ stroke }) => strokeProbability(stroke) >= ENDS_SPAN);
  const keyOf = ({ timeS, endS }: StrumSpan): string => `${timeS} ${endS}`;
  let known = new Map<string, DecodedChord>();
  /** Where no span is new, a strum that is written otherwise changes nothing of what is heard. */
  const chordsOf = (spans: readonly AskedSpan[]): readonly DecodedChord[] => {
    const keys = spans.map(keyOf);
    if (!keys.every((key) => known.has(key))) {
      const chords = song.ask(spans);
      known = new Map(keys.map((key, i) => [key, chords[i]]));
    }
    return keys.map((key) => known.get(key)!);
  };
  const covers = new Map<string, StagedLevels>();
  const coverAt = (span: StrumSpan, { midi }: WrittenStrum, heard: HeardStrum): Cover | null => {
    if (!song.levels) return null;
    const levels = covers.get(keyOf(span)) ?? song.levels(span);
    covers.set(keyOf(span), levels);
    return coverOf(midi, heard.midi, levels);
  };
  return {
    ask(written) {
      const { partner, extra } = pairUp(written, song.strums);
      const strokes = written.map((w, i) => {
        const heard = partner[i];
        return strokeAt(candidates, heard ? heard.timeS : w.timeS);
      });
      const spans = written.map((w, i) => {
        const timeS = partner[i]?.timeS ?? w.timeS;
        const next = sure.at(byTime.left(sure, timeS + SHORTEST_S));
        const endS = Math.min(written[i + 1]?.timeS ?? song.durationS, next?.timeS ?? song.durationS);
        return { timeS, endS: Math.max(endS, timeS + SHORTEST_S), midi: w.midi };
      });
      const chords = chordsOf(spans);
      const strums = written.map((w, i): StrumEvidence => {
        const stroke = strokes[i];
        const heard = partner[i];
        const struck = stroke ? strokeProbability(stroke.stroke) : 0;
        const kind = stroke && struck > 0 ? stroke.stroke[kindOf(w)] / struck : 1 / STROKE_KINDS.length;
        const same = within(extra, w.timeS - ELSEWHERE_S, w.timeS + ELSEWHERE_S).filter(
          (e) => e.midi.join() === w.midi.join() && e.dead === w.dead,
        );
        const [likeliest] = [...same].sort((a, b) => b.confidence - a.confidence);
        const elsewhere =
          heard || !likeliest ? null : { timeS: likeliest.timeS, probability: likeliest.confidence };
        // What was heard without knowing the tab is not less likely for being written.
        const least = heard?.midi.join() === w.midi.join() ? UNSURE : 0;
        const notes = w.dead ? null : Math.max(least, chords[i].probabilityOf(w.midi));
        return {
          notes,
          struck,
          kind,
          heard:
            heard ?? (elsewhere && likeliest ? likeliest : soundingThere(chords[i].midi, stroke, spans[i])),
          cover: heard && notes !== null && notes < UNSURE ? coverAt(spans[i], w, heard) : null,
          offsetS: heard ? heard.timeS - w.timeS : elsewhere ? elsewhere.timeS - w.timeS : null,
          elsewhere,
        };
      });
      return { strums, extra };
    },
  };
}

/** Where the written strums lie in the recording, for one that says so itself: a take is late, and some of it is missing. */
export type Placing = (strokes: readonly StruckAt[]) => readonly WrittenStrum[];

/** Everything that may have been struck. */
export interface StruckAt {
  readonly timeS: number;
  /** That the guitar was. */
  readonly probability: number;
}

const struckIn = ({ heardStrums }: SongHearing): StruckAt[] =>
  heardStrums.candidates.map(({ timeS, stroke }) => ({ timeS, probability: strokeProbability(stroke) }));

/** `written` in order of time; `referenceCents`: pitch of the recording, measured when null. Throws as `listen` of mir does. */
export function gatherEvidence(
  signal: StereoSignal,
  written: readonly WrittenStrum[] | Placing,
  {
    referenceCents = null,
    onProgress,
  }: { readonly referenceCents?: number | null; readonly onProgress?: OnProgress },
): Evidence {
  const hearAt = (cents: number | null): SongHearing =>
    hearSong(signal, {
      confirmed: { ...NOTHING_CONFIRMED, referenceCents: cents },
      ...(onProgress && { onProgress }),
    });
  const placed = (hearing: SongHearing): readonly WrittenStrum[] =>
    typeof written === 'function' ? written(struckIn(hearing)) : written;
  const first = hearAt(referenceCents);
  const otherCents = referenceCents === null ? otherReading(first, placed(first)) : null;
  const hearing = otherCents === null ? first : hearAt(otherCents);
  return witnessOf(askableOf(hearing)).ask(placed(hearing));
}
