/** How far apart places are that strums are written on by hand. */
import { TICKS_PER_QUARTER } from '@wild-needle/core/units';

export interface Step {
  readonly words: string;
  /** From one place to the next. */
  readonly ticks: number;
  /** What strums are moved by, and clicks fall on. */
  readonly fineTicks: number;
}

const SIXTEENTH = TICKS_PER_QUARTER / 4;

/** Most riffs are written on eighths, with a click or a move to the sixteenth between. */
export const STEPS: readonly Step[] = [
  { words: 'eighths', ticks: TICKS_PER_QUARTER / 2, fineTicks: SIXTEENTH },
  { words: 'sixteenths', ticks: SIXTEENTH, fineTicks: SIXTEENTH },
  { words: 'thirty-seconds', ticks: SIXTEENTH / 2, fineTicks: SIXTEENTH / 2 },
  { words: 'triplets', ticks: TICKS_PER_QUARTER / 3, fineTicks: TICKS_PER_QUARTER / 3 },
  { words: 'sextuplets', ticks: TICKS_PER_QUARTER / 6, fineTicks: TICKS_PER_QUARTER / 6 },
];
