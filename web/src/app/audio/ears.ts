/** What of the recording is listened to: whose ear it is for (place in the panorama) and which part of its sound. */
import type { Isolation } from '@wild-needle/core/dsp';

export const EARS = ['both', 'left', 'right', 'centre', 'sides'] as const;
export type Ears = (typeof EARS)[number];

export const FOCUSES = ['full', 'bass', 'body', 'edge', 'drums'] as const;
export type Focus = (typeof FOCUSES)[number];

export interface Hearing {
  readonly ears: Ears;
  readonly focus: Focus;
}

export const WHOLE: Hearing = { ears: 'both', focus: 'full' };

/** Middle and sides part where a guitar is panned a quarter out. */
const CENTRE = { position: 0, width: 0.5 };
/** Hz: under the guitar; where power chords have their body; the attack of the pick. */
const BANDS: Readonly<Record<Focus, readonly [number, number] | null>> = {
  full: null,
  bass: [20, 160],
  body: [90, 1300],
  edge: [1800, 9000],
  drums: null,
};

export function isWhole({ ears, focus }: Hearing): boolean {
  return ears === 'both' && focus === 'full';
}

/** The isolation that a hearing asks for; null when single channels as they are will do. */
export function isolationOf({ ears, focus }: Hearing): Isolation | null {
  const pan = ears === 'centre' || ears === 'sides' ? { ...CENTRE, isInside: ears === 'centre' } : null;
  if (!pan && focus === 'full') return null;
  return { pan, band: BANDS[focus], isWithoutHits: focus === 'drums' };
}

/** One channel for both ears where a side was chosen; the pair otherwise. */
export function forEars<T>(ears: Ears, [left, right]: readonly [T, T]): readonly [T, T] {
  return ears === 'left' ? [left, left] : ears === 'right' ? [right, right] : [left, right];
}
