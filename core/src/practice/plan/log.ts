/** What the log of practising says: minutes a day, the best clean tempo, and when a part is due again. Days are local ones, counted from any. */
import { DEFAULT_STAIR, type RoundAnswer } from './stair';

export interface LoggedRound {
  readonly day: number;
  readonly item: string;
  readonly percent: number;
  /** Null where nobody has said. */
  readonly answer: RoundAnswer | null;
  readonly seconds: number;
  /** All bars of the item. */
  readonly isWhole: boolean;
}

/**
 * The Leitner system (Leitner 1972, "So lernt man lernen"): what went well moves to the next box, what did not goes back to the first;
 * boxes come up at longer and longer intervals. Doubled intervals are common practice. Days.
 */
export const LEITNER_DAYS = [1, 2, 4, 8, 16] as const;

function byDay(rounds: readonly LoggedRound[]): [number, LoggedRound[]][] {
  const days = new Map<number, LoggedRound[]>();
  for (const round of rounds) days.set(round.day, [...(days.get(round.day) ?? []), round]);
  return [...days].sort(([a], [b]) => a - b);
}

/** The fastest step with as many clean rounds as a step needs, at it or above; null where there is none. */
export function bestCleanPercent(
  rounds: readonly Pick<LoggedRound, 'percent' | 'answer' | 'isWhole'>[],
  cleanRounds = DEFAULT_STAIR.cleanRounds,
): number | null {
  const clean = rounds.filter((r) => r.isWhole && r.answer === 'clean').map((r) => r.percent);
  return clean.sort((a, b) => b - a).at(cleanRounds - 1) ?? null;
}

export interface ItemRecord {
  /** Over all days, each by itself. */
  readonly bestPercent: number | null;
  readonly lastDay: number | null;
  /** Days until it is due; 0 and less is due now. Null where it was never played. */
  readonly dueInDays: number | null;
}

/** More clean than not, and something clean at all: it went well. */
function wentWell(rounds: readonly LoggedRound[]): boolean {
  const clean = rounds.filter((r) => r.answer === 'clean').length;
  return clean > 0 && clean >= rounds.filter((r) => r.answer === 'slip').length;
}

/** `rounds` of one item. */
export function recordOf(
  rounds: readonly LoggedRound[],
  today: number,
  cleanRounds = DEFAULT_STAIR.cleanRounds,
): ItemRecord {
  const days = byDay(rounds.filter((r) => r.answer !== null));
  const best = days.flatMap(([, own]) => bestCleanPercent(own, cleanRounds) ?? []);
  let [box, lastDay]: [number, number | null] = [0, null];
  for (const [day, own] of days) {
    const wasDue = lastDay === null || day - lastDay >= LEITNER_DAYS[box];
    if (!wentWell(own)) box = 0;
    // What is played before its day is no test of how long it lasts.
    else if (wasDue && lastDay !== null) box = Math.min(LEITNER_DAYS.length - 1, box + 1);
    lastDay = day;
  }
  return {
    bestPercent: best.length > 0 ? Math.max(...best) : null,
    lastDay,
    dueInDays: lastDay === null ? null : LEITNER_DAYS[box] - (today - lastDay),
  };
}

export interface PractisedDay {
  readonly day: number;
  readonly minutes: number;
  /** Of the item that was asked about; null where nothing was clean for long enough. */
  readonly bestPercent: number | null;
}

/** The last days up to today, oldest first, those without a round too. */
export function practisedDays(
  rounds: readonly LoggedRound[],
  item: string,
  today: number,
  count: number,
  cleanRounds = DEFAULT_STAIR.cleanRounds,
): PractisedDay[] {
  const days = new Map(byDay(rounds));
  return Array.from({ length: count }, (_, i) => {
    const day = today - (count - 1 - i);
    const own = days.get(day) ?? [];
    return {
      day,
      minutes: own.reduce((sum, r) => sum + r.seconds, 0) / 60,
      bestPercent: bestCleanPercent(
        own.filter((r) => r.item === item),
        cleanRounds,
      ),
    };
  });
}

/** Days taken together, seven to a week, the last one up to the last day; each stands under its last day. */
export function byWeek(days: readonly PractisedDay[]): PractisedDay[] {
  const weeks: PractisedDay[] = [];
  for (let end = days.length; end > 0; end -= 7) {
    const own = days.slice(Math.max(0, end - 7), end);
    const best = Math.max(...own.map((d) => d.bestPercent ?? -1));
    weeks.unshift({
      day: own[own.length - 1].day,
      minutes: own.reduce((sum, d) => sum + d.minutes, 0),
      bestPercent: best < 0 ? null : best,
    });
  }
  return weeks;
}
