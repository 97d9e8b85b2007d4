/**
 * What is asked: every strum of every pass, and every strum that is heard and not written, with what the judge says of it. Pure: joins
 * the song as it is now with the newest judgement.
 */
import type { ExtraStrum, JudgedPlace, Reason, SongJudgement, Verdict } from '@wild-needle/core/check';
import type { AskedPlace, HeardThere } from '@wild-needle/core/draft';
import {
  NOTHING_WRITTEN,
  passesOf,
  riffOfPass,
  settledAt,
  strumsInPasses,
  type Pass,
  type Riff,
  type Section,
  type SettledAnswer,
  type SongDocument,
  type Strum,
} from '@wild-needle/core/riff';
import type { MidiNote, Ticks } from '@wild-needle/core/units';

export interface Question {
  readonly id: string;
  readonly section: Section;
  readonly pass: Pass;
  /** The riff as this pass plays it. */
  readonly riff: Riff;
  /** Null where nothing is written. */
  readonly strum: Strum | null;
  readonly ticks: Ticks;
  readonly timeS: number;
  readonly endS: number;
  /** Written, at the height that sounds. */
  readonly midi: readonly MidiNote[];
  readonly written: string;
  /** What sounds there, likewise; null for nothing, and while it is not compared. */
  readonly heard: (HeardThere & { readonly timeS: number; readonly endS: number }) | null;
  readonly offsetS: number | null;
  readonly verdict: Verdict | 'unchecked';
  readonly doubt: number;
  readonly reason: Reason | { readonly kind: 'not-written' };
  readonly settled: SettledAnswer | null;
}

/** From here on something is asked. */
export const ASKED_FROM = 0.25;

const AGREES = { kind: 'notes', extra: [], missing: [] } as const;

function extraQuestion(
  { id, sectionId, pass: index, ticks, timeS, heard, doubt }: ExtraStrum,
  { sections, riffs, grid }: SongDocument,
): Question[] {
  const section = sections.find((s) => s.id === sectionId);
  const written = riffs.find((r) => r.id === section?.riffId);
  const pass = section && written && passesOf(section, written, grid)[index];
  if (!section || !written || !pass) return [];
  const riff = riffOfPass(written, section, pass);
  // A riff that nobody has begun is written on Riffs, not strum by strum here.
  if (written.strums.length === 0) return [];
  // Written meanwhile.
  if (riff.strums.some((s) => s.startTicks === ticks)) return [];
  const settled = settledAt(section, { pass: index, ticks, written: NOTHING_WRITTEN })?.answer ?? null;
  return [
    {
      ...{ id, section, pass, riff, strum: null, ticks, timeS, endS: heard.endS, heard, doubt, settled },
      ...{
        midi: [],
        written: NOTHING_WRITTEN,
        offsetS: null,
        verdict: 'clashes',
        reason: { kind: 'not-written' },
      },
    },
  ];
}

/** What was judged, by place: what is said of each, and what was written there then, and where. */
export type JudgedPlaces = ReadonlyMap<string, { readonly place: JudgedPlace; readonly written: string }>;

const writtenAt = ({ ticks, written }: Pick<Question, 'ticks' | 'written'>): string => `${ticks} ${written}`;

export function judgedPlaces(judgement: SongJudgement, of: SongDocument): JudgedPlaces {
  const written = new Map(strumsInPasses(of).map((s) => [s.id, writtenAt(s)]));
  return new Map(
    judgement.places.map((place) => [place.id, { place, written: written.get(place.id) ?? '' }]),
  );
}

/** In order of time. What is written otherwise than it was judged is not compared yet. */
export function questionsOf(
  document: SongDocument,
  judged: JudgedPlaces,
  judgement: SongJudgement | null,
): Question[] {
  const places = strumsInPasses(document).map((place): Question => {
    const known = judged.get(place.id);
    const {
      heard = null,
      offsetS = null,
      verdict = 'unchecked',
      doubt = 0,
      reason = AGREES,
    } = known?.written === writtenAt(place) ? known.place : {};
    return { ...place, heard, offsetS, verdict, doubt, reason };
  });
  const extra = (judgement?.extra ?? []).flatMap((e) => extraQuestion(e, document));
  return [...places, ...extra].sort((a, b) => a.timeS - b.timeS);
}

/** It is to be settled: doubted, and not answered yet. */
export function isOpen({ settled, doubt }: Pick<Question, 'settled' | 'doubt'>): boolean {
  return settled === null && doubt >= ASKED_FROM;
}

export function placeOf({ section, pass, ticks, strum }: Question): AskedPlace {
  return { sectionId: section.id, pass: pass.index, ticks, strumId: strum?.id ?? null };
}

/** The same place of the riff in other passes, its own too, in order of time. */
export function inOtherPasses(question: Question, all: readonly Question[]): Question[] {
  const { section, ticks } = question;
  return all.filter(
    (q) => q.section.riffId === section.riffId && q.ticks === ticks && (q.strum !== null || q === question),
  );
}

/** The very same question, still open elsewhere: the same is written at the same place of the riff, and the same is heard. */
export function sameElsewhere(question: Question, all: readonly Question[]): Question[] {
  const sound = ({ heard, pass }: Question): string =>
    heard ? [heard.dead, heard.palmMuted, ...heard.midi.map((m) => m - pass.transpose)].join() : '';
  return all.filter(
    (q) =>
      q.id !== question.id &&
      isOpen(q) &&
      q.section.riffId === question.section.riffId &&
      q.ticks === question.ticks &&
      q.written === question.written &&
      q.reason.kind === question.reason.kind &&
      sound(q) === sound(question),
  );
}
