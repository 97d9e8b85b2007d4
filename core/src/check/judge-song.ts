/**
 * A song held against its recording: every strum of every pass as guitar 1 plays it, and what is struck where nothing is written.
 * Pure; run it in a worker.
 */
import { type Confirmed } from '../mir';
import {
  NOTHING_WRITTEN,
  passesOf,
  quantise,
  riffOfPass,
  secondsToPassTicks,
  settledAt,
  strumsInPasses,
  type SettledAnswer,
  type SongDocument,
  type StrumInPass,
} from '../riff';
import type { Ticks } from '../units';
import type { Evidence, StrumEvidence, Witness, WrittenStrum } from './evidence';
import { habitOf, judge, type Habit, type Judgement } from './judge';

/** Raise when judgements change; they are stored with it. */
export const JUDGE_VERSION = 'judge-1';

export interface JudgedPlace extends Judgement {
  /** See `StrumInPass`. */
  readonly id: string;
}

/** Struck in a pass where nothing is written. */
export interface ExtraStrum {
  readonly id: string;
  readonly sectionId: string;
  readonly pass: number;
  /** The nearest place of the riff. */
  readonly ticks: Ticks;
  readonly timeS: number;
  readonly heard: NonNullable<StrumEvidence['heard']>;
  /** That it is really there, and missing in the tab. */
  readonly doubt: number;
  readonly settled: SettledAnswer | null;
}

export interface SongJudgement {
  /** In order of time, as `strumsInPasses`. */
  readonly places: readonly JudgedPlace[];
  readonly extra: readonly ExtraStrum[];
  readonly habit: Habit | null;
}

/** Something that is heard with less is hardly ever a strum that a tab lacks. */
const LEAST_EXTRA = 0.5;
/** Confidences of strums that nobody wrote are that much too high: hands that know the song have left them out. */
const EXTRA_SHARE = 0.8;

function asWritten({ timeS, endS, midi, strum }: StrumInPass): WrittenStrum {
  return { timeS, endS, midi, palmMuted: strum.palmMute && !strum.dead, dead: strum.dead };
}

/** What the ear has settled, for listening to the recording with it. */
export function settledIn(document: SongDocument): Confirmed {
  const kept = strumsInPasses(document).filter((s) => s.settled === 'kept');
  const strums = kept.map((s) => asWritten(s));
  return { referenceCents: document.referenceOffsetCents, spans: [], strums };
}

function extrasOf(document: SongDocument, { strums, extra }: Evidence): ExtraStrum[] {
  const { grid, riffs, sections } = document;
  // A strum that is written beside it is asked about there.
  const asked = new Set(strums.flatMap(({ elsewhere }) => (elsewhere ? [elsewhere.timeS] : [])));
  const passes = sections.flatMap((section) => {
    const riff = riffs.find((r) => r.id === section.riffId);
    if (!riff) return [];
    return passesOf(section, riff, grid).map((pass) => ({
      section,
      pass,
      riff: riffOfPass(riff, section, pass),
    }));
  });
  return extra.flatMap((heard): ExtraStrum[] => {
    const at = passes.find(({ pass }) => heard.timeS >= pass.startS && heard.timeS < pass.endS);
    if (!at || heard.confidence < LEAST_EXTRA || asked.has(heard.timeS)) return [];
    const { section, pass, riff } = at;
    const [ticks] = quantise([secondsToPassTicks(pass, grid, heard.timeS)]);
    const isInside = ticks >= pass.fromTicks && ticks < pass.toTicks;
    const place = { pass: pass.index, ticks, written: NOTHING_WRITTEN };
    // A slide or a rest that stands there says what is meant.
    if (!isInside || riff.strums.some((s) => s.startTicks === ticks)) return [];
    return [
      {
        id: `${section.id}/${pass.index}/+${ticks}`,
        sectionId: section.id,
        pass: pass.index,
        ticks,
        timeS: heard.timeS,
        heard: {
          timeS: heard.timeS,
          endS: heard.endS,
          midi: heard.midi,
          palmMuted: heard.palmMuted,
          dead: heard.dead,
        },
        doubt: EXTRA_SHARE * heard.confidence,
        settled: settledAt(section, place)?.answer ?? null,
      },
    ];
  });
}

export function judgeSong(witness: Witness, document: SongDocument): SongJudgement {
  const places = strumsInPasses(document);
  const written = places.map(asWritten);
  const evidence = witness.ask(written);
  const judgements = judge(
    evidence,
    written,
    places.map((p) => p.settled === 'kept'),
  );
  return {
    places: judgements.map((judgement, i) => ({ id: places[i].id, ...judgement })),
    extra: extrasOf(document, evidence),
    habit: habitOf(evidence.strums),
  };
}
