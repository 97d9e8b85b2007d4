/**
 * What is listened to: the recording, the written tab, or one in each ear; whose ear the recording is for (place in the
 * panorama), which part of its sound, and how loud the parts of the band are.
 */
import type { Isolation } from '@wild-needle/core/dsp';
import type { PartGains } from '@wild-needle/core/parts';

export const EARS = ['both', 'left', 'right', 'centre', 'sides', 'place'] as const;
export type Ears = (typeof EARS)[number];

export const FOCUSES = ['full', 'bass', 'body', 'edge', 'drums'] as const;
export type Focus = (typeof FOCUSES)[number];

export const SOURCES = ['recording', 'tab', 'each'] as const;
export type Source = (typeof SOURCES)[number];

/** A window on the stereo picture: -1 left, 1 right; width from edge to edge. */
export interface Place {
  readonly position: number;
  readonly width: number;
}

export interface Hearing {
  readonly ears: Ears;
  readonly focus: Focus;
  /** Used while {@link ears} is 'place'. */
  readonly place: Place;
  readonly source: Source;
  /** Of the band taken apart; null = the recording as it is. */
  readonly parts: PartGains | null;
}

/** Guitars are rarely panned nearer to the middle than a quarter; the window starts where the left one stands. */
export const WHOLE: Hearing = {
  ears: 'both',
  focus: 'full',
  place: { position: -0.6, width: 0.5 },
  source: 'recording',
  parts: null,
};

/** Middle and sides part where a guitar is panned a quarter out. */
const CENTRE: Place = { position: 0, width: 0.5 };
/** Hz: under the guitar; where power chords have their body; the attack of the pick. */
const BANDS: Readonly<Record<Focus, readonly [number, number] | null>> = {
  full: null,
  bass: [20, 160],
  body: [90, 1300],
  edge: [1800, 9000],
  drums: null,
};

export const NARROWEST = 0.1;
export const WIDEST = 2;

/** The window kept on the stage. */
export function boundedPlace({ position, width }: Place): Place {
  const bounded = (value: number, low: number, high: number): number =>
    Math.min(high, Math.max(low, Math.round(100 * value) / 100));
  return { position: bounded(position, -1, 1), width: bounded(width, NARROWEST, WIDEST) };
}

/** True when the recording sounds as it is. */
export function isWhole({ ears, focus, source, parts }: Hearing): boolean {
  return ears === 'both' && focus === 'full' && source === 'recording' && parts === null;
}

function panOf({ ears, place }: Hearing): Isolation['pan'] {
  switch (ears) {
    case 'centre':
      return { ...CENTRE, isInside: true };
    case 'sides':
      return { ...CENTRE, isInside: false };
    case 'place':
      return { ...place, isInside: true };
    default:
      return null;
  }
}

/** The isolation that a hearing asks for; null when single channels as they are will do. */
export function isolationOf(hearing: Hearing): Isolation | null {
  const pan = panOf(hearing);
  if (!pan && hearing.focus === 'full') return null;
  return { pan, band: BANDS[hearing.focus], isWithoutHits: hearing.focus === 'drums' };
}

/** One channel for both ears where a side was chosen; the pair otherwise. */
export function forEars<T>(ears: Ears, [left, right]: readonly [T, T]): readonly [T, T] {
  return ears === 'left' ? [left, left] : ears === 'right' ? [right, right] : [left, right];
}

/** What both ears hear of a pair of channels. */
export function toEarsOf({ ears }: Hearing): <T>(pair: readonly [T, T]) => readonly [T, T] {
  return (pair) => forEars(ears, pair);
}
