/**
 * The kinds of stroke, their probabilities, and the one place where they are decided. A stroke rings, is damped by the palm,
 * or is dead: the pick crosses strings that the fretting hand damps.
 */

/** In the order of the classifier's outputs, which begin with "no stroke". */
export const STROKE_KINDS = ['ring', 'palmMute', 'dead'] as const;
export type StrokeKind = (typeof STROKE_KINDS)[number];

/** Of one candidate: how likely it is a stroke of each kind; what is left of 1 is no stroke. */
export type StrokeProbabilities = Readonly<Record<StrokeKind, number>>;

export const NO_STROKE: StrokeProbabilities = { ring: 0, palmMute: 0, dead: 0 };

/** How a stroke was played, as strums say it. */
interface Played {
  readonly palmMuted: boolean;
  readonly dead: boolean;
}

/**
 * A stroke is dead from this share of its probability on: what is dead and called ringing stands in the tab with a chord that
 * nobody played, what rings and is called dead only lacks its own.
 */
const DEAD_FROM = 1 / 3;

/** How likely it is a stroke at all. */
export function strokeProbability({ ring, palmMute, dead }: StrokeProbabilities): number {
  return ring + palmMute + dead;
}

/** Palm mute or ringing, whether or not it is dead. */
export function isPalmMuted({ ring, palmMute }: StrokeProbabilities): boolean {
  return palmMute > ring;
}

/** The kind that a stroke is taken for. */
export function decideKind(stroke: StrokeProbabilities): StrokeKind {
  if (stroke.dead > DEAD_FROM * strokeProbability(stroke)) return 'dead';
  return isPalmMuted(stroke) ? 'palmMute' : 'ring';
}

export function kindOf({ palmMuted, dead }: Played): StrokeKind {
  return dead ? 'dead' : palmMuted ? 'palmMute' : 'ring';
}

/** A stroke of this kind, without a doubt. */
export function certainStroke(kind: StrokeKind): StrokeProbabilities {
  return { ...NO_STROKE, [kind]: 1 };
}
