/**
 * What the other passes of a riff say about a stroke: a stroke that most of them have was missed here, one that none of
 * them has was none, and they mute alike. The user still sees each pass on its own: a pass that is clear keeps its say.
 */
import type { AlikeGroup } from './alike';
import type { Said } from './settled';
import { strokeProbability, type StrokeProbabilities } from './strokes';

/** Log-odds are counted up to here, so that one pass can't overrule all others. */
const MOST_LOG_ODDS = 4;
/** Weight of the mean of the other passes against the own say; less where only one other is known. */
const OTHERS_WEIGHT = 0.6;
const ONE_OTHER_WEIGHT = 0.35;
/** A pass that the user has settled speaks for all others; by no more than they do, or every drum at the place of its strokes becomes one. */
const SETTLED_WEIGHT = 0.6;

function logOdds(p: number): number {
  const odds = Math.log((p + 1e-6) / (1 - p + 1e-6));
  return Math.max(-MOST_LOG_ODDS, Math.min(MOST_LOG_ODDS, odds));
}

/**
 * New probabilities for all candidates; `alike` as {@link groupAlike} answers for their times, `says` what the user has
 * settled of them, which stays.
 */
export function poolStrokes(
  probabilities: readonly StrokeProbabilities[],
  alike: readonly AlikeGroup[],
  says: readonly Said[] = probabilities.map(() => null),
): StrokeProbabilities[] {
  const odds = probabilities.map((p) => logOdds(strokeProbability(p)));
  return probabilities.map((own, k) => {
    const { members, passes } = alike[k];
    const others = passes - 1;
    if (others < 1 || says[k] !== null) return own;
    const settled = members.filter((m) => says[m] !== null);
    const silent = others - (members.length - 1);
    const said =
      settled.length > 0
        ? settled.reduce((sum, m) => sum + odds[m], 0) / settled.length
        : members.slice(1).reduce((sum, m) => sum + odds[m], -MOST_LOG_ODDS * silent) / others;
    const weight = settled.length > 0 ? SETTLED_WEIGHT : others > 1 ? OTHERS_WEIGHT : ONE_OTHER_WEIGHT;
    const stroke = 1 / (1 + Math.exp(-(odds[k] + weight * said)));
    // The kinds of stroke are weighed by what each member would say if it were one, strokes that are none least.
    const kinds = { ring: 0, palmMute: 0, dead: 0 };
    members.forEach((m, i) => {
      const p = probabilities[m];
      const share = i === 0 ? 1 + strokeProbability(p) : strokeProbability(p);
      const total = strokeProbability(p) + 1e-6;
      kinds.ring += share * Math.log(p.ring / total + 0.01);
      kinds.palmMute += share * Math.log(p.palmMute / total + 0.01);
      kinds.dead += share * Math.log(p.dead / total + 0.01);
    });
    const scale = 1 / Math.sqrt(members.length);
    const top = Math.max(kinds.ring, kinds.palmMute, kinds.dead);
    const [ring, palmMute, dead] = [kinds.ring, kinds.palmMute, kinds.dead].map((v) =>
      Math.exp(scale * (v - top)),
    );
    const sum = ring + palmMute + dead;
    return {
      ring: (stroke * ring) / sum,
      palmMute: (stroke * palmMute) / sum,
      dead: (stroke * dead) / sum,
    };
  });
}
