/**
 * Strokes that the user has confirmed, put into what was heard: missed ones are added, wrong ones ruled out, and kinds that the
 * network mistakes in this song corrected everywhere. See `../confirmed.ts`.
 */
import { SAME_STROKE_S } from '../../units';
import type { Annotation, Confirmed, ConfirmedStrum } from '../confirmed';
import { fitIntercepts, softmaxWith } from '../net/class-intercepts';
import {
  certainStroke,
  kindOf,
  NO_STROKE,
  STROKE_KINDS,
  strokeProbability,
  type StrokeProbabilities,
} from './stroke-kinds';

export interface AnnotatedCandidates {
  readonly timesS: readonly number[];
  readonly probabilities: readonly StrokeProbabilities[];
  readonly annotations: readonly Annotation[];
}

/** Candidates in order of time, with what is confirmed of each. */
export function confirmStrokes(
  timesS: readonly number[],
  probabilities: readonly StrokeProbabilities[],
  { spans, strums }: Confirmed,
): AnnotatedCandidates {
  const taken = new Map<number, ConfirmedStrum>();
  const missed: ConfirmedStrum[] = [];
  for (const strum of strums) {
    let best = -1;
    let nearest = SAME_STROKE_S;
    timesS.forEach((timeS, k) => {
      const distance = Math.abs(timeS - strum.timeS);
      if (!taken.has(k) && distance < nearest) [nearest, best] = [distance, k];
    });
    if (best < 0) missed.push(strum);
    else taken.set(best, strum);
  }
  const isInside = (timeS: number): boolean => spans.some((s) => timeS >= s.startS && timeS < s.endS);
  const annotations = timesS.map(
    (timeS, k): Annotation => taken.get(k) ?? (isInside(timeS) ? ('none' as const) : null),
  );
  const correct = fitStrokeIntercepts(probabilities, annotations);
  const all = timesS.map((timeS, k) => {
    const annotation = annotations[k];
    const p =
      annotation === null
        ? correct(probabilities[k])
        : annotation === 'none'
          ? NO_STROKE
          : certainStroke(kindOf(annotation));
    return { timeS, p, annotation };
  });
  for (const strum of missed) {
    all.push({ timeS: strum.timeS, p: certainStroke(kindOf(strum)), annotation: strum });
  }
  all.sort((a, b) => a.timeS - b.timeS);
  return {
    timesS: all.map((c) => c.timeS),
    probabilities: all.map((c) => c.p),
    annotations: all.map((c) => c.annotation),
  };
}

/** Which kind of stroke it is; whether it is one at all stays as it was heard. */
function fitStrokeIntercepts(
  probabilities: readonly StrokeProbabilities[],
  annotations: readonly Annotation[],
): (p: StrokeProbabilities) => StrokeProbabilities {
  const logitsOf = (p: StrokeProbabilities): number[] =>
    STROKE_KINDS.map((kind) => Math.log(Math.max(1e-5, p[kind])));
  const examples = probabilities.flatMap((p, k) => {
    const annotation = annotations[k];
    if (annotation === null || annotation === 'none') return [];
    return [{ logits: logitsOf(p), truth: STROKE_KINDS.indexOf(kindOf(annotation)) }];
  });
  if (examples.length === 0) return (p) => p;
  const intercepts = fitIntercepts(examples, STROKE_KINDS.length);
  return (p) => {
    const [ring, palmMute, dead] = softmaxWith(logitsOf(p), intercepts);
    const stroke = strokeProbability(p);
    return { ring: stroke * ring, palmMute: stroke * palmMute, dead: stroke * dead };
  };
}
