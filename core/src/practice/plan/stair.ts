/** From slow to fast: a step up after so many clean rounds, a step back after so many slips in a row. */

export interface StairSettings {
  /** Where it begins and ends, per cent of the tempo of the recording, and the height of a step. */
  readonly fromPercent: number;
  readonly byPercent: number;
  readonly toPercent: number;
  readonly cleanRounds: number;
  /** Slips in a row that lead a step back; 0 for never. */
  readonly slipsBack: number;
}

export const DEFAULT_STAIR: StairSettings = {
  fromPercent: 60,
  byPercent: 5,
  toPercent: 100,
  cleanRounds: 3,
  slipsBack: 3,
};

export interface StairState {
  readonly percent: number;
  /** Clean rounds on this step. */
  readonly clean: number;
  /** Slips since the last clean round. */
  readonly slips: number;
}

export type RoundAnswer = 'clean' | 'slip';

export function standOn(percent: number): StairState {
  return { percent, clean: 0, slips: 0 };
}

/** The steps, from slow to fast. */
export function stepsOf({ fromPercent, byPercent, toPercent }: StairSettings): number[] {
  const count = Math.floor((toPercent - fromPercent) / byPercent + 1e-9);
  const steps = Array.from({ length: count + 1 }, (_, i) => fromPercent + i * byPercent);
  return steps.at(-1) === toPercent ? steps : [...steps, toPercent];
}

/** A step up or down, at most to the ends. */
export function stepBy({ percent }: StairState, settings: StairSettings, by: 1 | -1): StairState {
  const steps = stepsOf(settings);
  const next =
    by > 0
      ? (steps.find((step) => step > percent) ?? steps.at(-1)!)
      : (steps.findLast((step) => step < percent) ?? steps[0]);
  return standOn(next);
}

/** A slip takes a clean round away; `slipsBack` of them in a row lead a step back. On the last step it stands. */
export function answerRound(state: StairState, settings: StairSettings, answer: RoundAnswer): StairState {
  const { percent, clean, slips } = state;
  const isLast = percent >= settings.toPercent;
  if (answer === 'clean') {
    const now = Math.min(settings.cleanRounds, clean + 1);
    return now >= settings.cleanRounds && !isLast
      ? stepBy(state, settings, 1)
      : { percent, clean: now, slips: 0 };
  }
  return settings.slipsBack > 0 && slips + 1 >= settings.slipsBack
    ? stepBy(state, settings, -1)
    : { percent, clean: Math.max(0, clean - 1), slips: slips + 1 };
}
