/** Ways to practise a part, round by round: which of its bars come next, how fast, and how long the hands rest before. Common practice. */

export const WAYS = ['whole', 'bursts', 'backwards', 'rests', 'random'] as const;
export type Way = (typeof WAYS)[number];

export interface RoundPlan {
  /** Bars of the part, from 0. */
  readonly fromBar: number;
  readonly bars: number;
  readonly percent: number;
  /** Bars of silence before it. */
  readonly restBars: number;
}

export interface SoFar {
  /** Bars that the part has. */
  readonly bars: number;
  /** Of the step that is stood on. */
  readonly percent: number;
  /** Rounds played, and how many of them were clean, since the way was taken. */
  readonly rounds: number;
  readonly clean: number;
  /** From 0 to 1, for a place by chance. */
  readonly chance: number;
}

/** Every third round is a bar at full speed. */
const BURST_EVERY = 3;
const FULL_PERCENT = 100;
const REST_BARS = 1;
/** Of a place by chance. */
const RANDOM_BARS = 2;

export function planRound(way: Way, { bars, percent, rounds, clean, chance }: SoFar): RoundPlan {
  const whole = { fromBar: 0, bars, percent, restBars: 0 };
  if (way === 'bursts' && rounds % BURST_EVERY === BURST_EVERY - 1) {
    return {
      fromBar: Math.floor(rounds / BURST_EVERY) % bars,
      bars: 1,
      percent: FULL_PERCENT,
      restBars: 0,
    };
  }
  if (way === 'backwards') {
    const length = Math.min(bars, 1 + clean);
    return { ...whole, fromBar: bars - length, bars: length };
  }
  if (way === 'rests') return { ...whole, restBars: rounds === 0 ? 0 : REST_BARS };
  if (way === 'random') {
    const length = Math.min(RANDOM_BARS, bars);
    return {
      ...whole,
      fromBar: Math.min(bars - length, Math.floor(chance * (bars - length + 1))),
      bars: length,
    };
  }
  return whole;
}

/** Such a round says something of the whole part at the step that is stood on. */
export function isWhole({ fromBar, bars }: RoundPlan, ofBars: number): boolean {
  return fromBar === 0 && bars === ofBars;
}
