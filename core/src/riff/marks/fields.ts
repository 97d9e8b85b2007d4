/**
 * What a strum may carry beyond palm mute and dead stroke: every field with its values, the first of which is "not marked". The
 * type of the document, what a plain strum has and the schema at the borders are made of this table.
 */
import { RANGES } from '../limits';

export const MARK_FIELDS = {
  /** How it is reached from the strum before without a new stroke: 'hammer' is a pull-off where the fret falls. */
  join: [null, 'slide', 'hammer', 'tie'],
  slideIn: [null, 'below', 'above'],
  slideOut: [null, 'down', 'up'],
  /** 'ring': on under what follows; 'short': stopped at once. Null: as long as it is written. */
  length: [null, 'ring', 'short'],
  /** How far the strings are bent up, 0 = not: any whole number from the first to the second. */
  bendCents: { range: RANGES.bendCents },
  vibrato: [false, true],
  harmonic: [null, 'natural', 'pinch'],
  whammyBar: [null, 'dip', 'dive'],
  accent: [false, true],
  /** Struck again and again as fast as the hand goes, for as long as it sounds. */
  tremolo: [false, true],
  /** Null: as the grid says, see `strokeOf`. */
  stroke: [null, 'down', 'up'],
} as const;

type Fields = typeof MARK_FIELDS;

/** How a strum is played beyond palm mute and dead stroke. */
export type Marks = {
  readonly [K in keyof Fields]: Fields[K] extends readonly (infer Value)[] ? Value : number;
};

export const NO_MARKS = Object.fromEntries(
  Object.entries(MARK_FIELDS).map(([name, values]) => [
    name,
    'range' in values ? values.range[0] : values[0],
  ]),
) as unknown as Marks;
