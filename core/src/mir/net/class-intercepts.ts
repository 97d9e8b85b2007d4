/**
 * One intercept per class, learned from a few examples: corrects what a trained network mistakes in this song, for this
 * player. Penalised logistic regression by gradient ascent (Hastie, Tibshirani and Friedman 2009, "The elements of
 * statistical learning", section 4.4).
 */

export interface LabelledLogits {
  /** One logit per class. */
  readonly logits: readonly number[];
  /** Index of the class that it is. */
  readonly truth: number;
}

/** Strength of the penalty on the intercepts: about two examples that say the opposite. */
const PENALTY = 2;
const ROUNDS = 40;

/** Probabilities of the classes with these intercepts; they sum to 1. */
export function softmaxWith(logits: readonly number[], intercepts: readonly number[]): number[] {
  const shifted = logits.map((l, i) => l + intercepts[i]);
  const top = Math.max(...shifted);
  const e = shifted.map((s) => Math.exp(s - top));
  const sum = e.reduce((a, b) => a + b, 0);
  return e.map((v) => v / sum);
}

/** Intercepts, one per class, that make the true classes likelier; all 0 without examples. */
export function fitIntercepts(examples: readonly LabelledLogits[], classes: number): number[] {
  const intercepts = new Array<number>(classes).fill(0);
  const step = 1 / (PENALTY + examples.length / 2);
  for (let round = 0; round < ROUNDS && examples.length > 0; round++) {
    const gradient = intercepts.map((b) => -PENALTY * b);
    for (const { logits, truth } of examples) {
      softmaxWith(logits, intercepts).forEach((p, c) => (gradient[c] += (c === truth ? 1 : 0) - p));
    }
    gradient.forEach((g, c) => (intercepts[c] += step * g));
  }
  return intercepts;
}
