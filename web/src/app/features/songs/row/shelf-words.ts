/** What the shelf says of a song: what is next, and where that is done. */
import { STEPS, type SongSummary, type Step } from '@wild-needle/contract';

export const STEP_WORDS: Record<Step, string> = {
  tuning: 'Tuning',
  sections: 'Sections',
  riffs: 'Riffs',
  check: 'Check',
  sheet: 'Sheet',
  practice: 'Practice',
};

/** The first that is not finished, in the order of the work; null where all are. */
export function nextStep({ steps }: Pick<SongSummary, 'steps'>): Step | null {
  return STEPS.find((step) => steps[step] < 1) ?? null;
}

/** 'Check next' and '26 to settle'; the second is '' where there is nothing to say. */
export function nextWords(song: SongSummary): { readonly step: string; readonly missing: string } {
  const step = nextStep(song);
  if (step === null) return { step: 'All done', missing: '' };
  const { namedSections, bars, unwritten, toSettle, slowest, steps, strums } = song;
  const missing: Record<Step, string> = {
    tuning: strums > 0 ? 'as it was heard, no strum checked' : 'nothing is written',
    sections: bars.length > 0 ? `${namedSections} of ${bars.length} named` : 'none yet',
    riffs: unwritten === '' ? 'none yet' : `${unwritten} not written`,
    check: `${toSettle} to settle`,
    sheet: steps.sheet > 0 ? 'changed since it was taken away' : 'not taken away yet',
    practice: slowest ? `${slowest.name} at ${slowest.bpm} of ${slowest.ofBpm}` : 'nothing played clean yet',
  };
  return { step: `${STEP_WORDS[step]} next`, missing: missing[step] };
}

/** '4 h 30 min', '12 min'. */
export function hoursAndMinutes(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  const hours = Math.floor(minutes / 60);
  return hours > 0 ? `${hours} h ${minutes % 60} min` : `${minutes} min`;
}

const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric' });
const DATE = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });

/** Local midnight of a day 'YYYY-MM-DD'. */
export function dateOf(day: string): Date {
  const [year, month, date] = day.split('-').map(Number);
  return new Date(year, month - 1, date);
}

/** Whole days from today to a day; negative for one that is over. */
export function daysUntil(day: string, now: Date): number {
  const today = new Date(now.getFullYear(), now.getMonth(), now.getDate());
  return Math.round((dateOf(day).getTime() - today.getTime()) / 86_400_000);
}

/** 'tomorrow' and 'Thu 12': when somebody waits for it; the first is '' for days that are farther off. */
export function dueWords(day: string | null, now: Date): { readonly soon: string; readonly date: string } {
  if (day === null) return { soon: '', date: 'no date' };
  const days = daysUntil(day, now);
  const soon = days < 0 ? 'overdue' : days === 0 ? 'today' : days === 1 ? 'tomorrow' : '';
  return { soon, date: (Math.abs(days) < 7 ? WEEKDAY : DATE).format(dateOf(day)) };
}
