/** What to practise today: what is due, the hardest that is furthest from its tempo first, as much as the minutes allow. */
import { strumsInPasses, type SongDocument } from '../../riff';
import { difficultyOf, measureDifficulty, totalOf, type Difficulty } from './difficulty';
import { practiceItems, type PracticeItem } from './items';
import { recordOf, type ItemRecord, type LoggedRound } from './log';

export interface PlannedItem extends PracticeItem, ItemRecord {
  readonly difficulty: Difficulty;
  /** For today; 0 for what is not on today's list. */
  readonly minutes: number;
}

export interface PlanOptions {
  /** Local day. */
  readonly today: number;
  readonly rounds: readonly LoggedRound[];
  /** That the player has today. */
  readonly minutes: number;
  readonly cleanRounds: number;
}

/** Less of an item is not worth tuning up for. */
const LEAST_MINUTES = 3;
/** What is up to tempo is still played a little. */
const KEPT_UP = 0.1;

/** How much of the tempo is missing, times how hard it is. */
function needOf({ bestPercent, difficulty }: Pick<PlannedItem, 'bestPercent' | 'difficulty'>): number {
  const missing = 1 - Math.min(100, bestPercent ?? 0) / 100;
  return (KEPT_UP + missing) * (1 + totalOf(difficulty));
}

export const isDue = ({ dueInDays }: Pick<ItemRecord, 'dueInDays'>): boolean =>
  dueInDays === null || dueInDays <= 0;

/** Today's list first, then the rest; each in order of need. At the first visit riffs only: turns come when there is something to turn between. */
export function planOf(
  document: SongDocument,
  { today, rounds, minutes, cleanRounds }: PlanOptions,
): PlannedItem[] {
  const strums = strumsInPasses(document);
  const isFirst = rounds.length === 0;
  const items = practiceItems(document)
    .filter(({ kind }) => !isFirst || kind === 'riff')
    .map((item): PlannedItem => {
      const own = strums.filter((s) => s.timeS >= item.startS - 1e-6 && s.timeS < item.endS - 1e-6);
      const measures = measureDifficulty(own, item.endS - item.startS, document.tuning.capo);
      const record = recordOf(
        rounds.filter((r) => r.item === item.id),
        today,
        cleanRounds,
      );
      return { ...item, ...record, difficulty: difficultyOf(measures), minutes: 0 };
    })
    .sort((a, b) => needOf(b) - needOf(a));
  const due = items.filter(isDue).slice(0, Math.max(1, Math.floor(minutes / LEAST_MINUTES)));
  const need = due.reduce((sum, item) => sum + needOf(item), 0);
  // Everything gets the least; what is left goes where it is needed.
  const spare = Math.max(0, minutes - LEAST_MINUTES * due.length);
  const forToday = due.map((item) => ({
    ...item,
    minutes: Math.min(minutes, Math.round(LEAST_MINUTES + (spare * needOf(item)) / need)),
  }));
  const listed = new Set(due.map((item) => item.id));
  return [...forToday, ...items.filter((item) => !listed.has(item.id))];
}
