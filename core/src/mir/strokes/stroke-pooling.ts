/**
 * What the other passes of a riff say about a stroke: a stroke that most of them have was missed here, one that none of
 * them has was none, and they mute alike. The user still sees each pass on its own: a pass that is clear keeps its say.
 */
import { clamp } from '../../units';
import type { Annotation } from '../confirmed';
import { logistic, logOdds } from '../net/probability';
import type { RepetitionGroup } from '../types';
import { STROKE_KINDS, strokeProbability, type StrokeProbabilities } from './stroke-kinds';

/** Log-odds are counted up to here, so that one pass can't overrule all others. */
const MOST_LOG_ODDS = 4;
/** Weight of the mean of the other passes against the own say; less where only one other is known. */
const OTHERS_WEIGHT = 0.6;
const ONE_OTHER_WEIGHT = 0.35;
/** A pass that the user has confirmed speaks for all others; by no more than they do, or every drum at the place of its strokes becomes one. */
const CONFIRMED_WEIGHT = 0.6;

/** So that a probability of 0 or 1 has log-odds at all. */
const LEAST = 1e-6;
/** A kind that a member rules out is still thinkable. */
const LEAST_KIND = 0.01;

/**
 * New probabilities for all candidates. `groups` as {@link groupRepetitions} answers for their times; what the user has confirmed
 * (`annotations`) stays.
 */
export function poolStrokes(
  probabilities: readonly StrokeProbabilities[],
  groups: readonly RepetitionGroup[],
  annotations: readonly Annotation[] = probabilities.map(() => null),
): StrokeProbabilities[] {
  const odds = probabilities.map((p) =>
    clamp(logOdds(strokeProbability(p), LEAST), -MOST_LOG_ODDS, MOST_LOG_ODDS),
  );
  return probabilities.map((own, k) => {
    const { members, passes } = groups[k];
    const others = passes - 1;
    if (others < 1 || annotations[k] !== null) return own;
    const confirmed = members.filter((m) => annotations[m] !== null);
    const silent = others - (members.length - 1);
    const meanOdds =
      confirmed.length > 0
        ? confirmed.reduce((sum, m) => sum + odds[m], 0) / confirmed.length
        : members.slice(1).reduce((sum, m) => sum + odds[m], -MOST_LOG_ODDS * silent) / others;
    const weight = confirmed.length > 0 ? CONFIRMED_WEIGHT : others > 1 ? OTHERS_WEIGHT : ONE_OTHER_WEIGHT;
    const stroke = logistic(odds[k] + weight * meanOdds);
    return shareOut(
      stroke,
      members.map((m) => probabilities[m]),
    );
  });
}

/**
 * The probability of a stroke, shared out to its kinds: by what each member would say if it were one, those that hardly are
 * least. The first is the stroke itself.
 */
function shareOut(stroke: number, members: readonly StrokeProbabilities[]): StrokeProbabilities {
  const logs = STROKE_KINDS.map((kind) =>
    members.reduce((sum, p, i) => {
      const own = strokeProbability(p);
      const weight = i === 0 ? 1 + own : own;
      return sum + weight * Math.log(p[kind] / (own + LEAST) + LEAST_KIND);
    }, 0),
  );
  const scale = 1 / Math.sqrt(members.length);
  const top = Math.max(...logs);
  const [ring, palmMute, dead] = logs.map((v) => Math.exp(scale * (v - top)));
  const sum = ring + palmMute + dead;
  return { ring: (stroke * ring) / sum, palmMute: (stroke * palmMute) / sum, dead: (stroke * dead) / sum };
}
