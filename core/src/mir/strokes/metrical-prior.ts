/**
 * The metrical prior: which places of the beat this song strikes. Riffs keep to a few of them: a doubtful instant at a place that is struck all
 * over the song is a stroke, one between two such places is none. The share of strokes among the candidates of a place takes the
 * part of the share among all (Saerens, Latinne and Decaestecker 2002, "Adjusting the outputs of a classifier to new a priori
 * probabilities", Neural Computation 14), as far as {@link MOST_LOG_ODDS}.
 */
import { median } from '../../dsp';
import { clamp } from '../../units';
import type { Annotation } from '../confirmed';
import { logistic, logOdds } from '../net/probability';
import { strokeProbability, type StrokeProbabilities } from './stroke-kinds';

/** Of a beat: sixteenths and triplets fall on whole ones. */
const PLACES = 12;
/** A place starts with as many candidates of the mean of the song. */
const PRIOR = 10;
/** Less than all of it, since drums keep to places too: so chosen on rendered and real songs. */
const WEIGHT = 0.7;
/** More than this and a kick drum at every beat becomes a stroke. */
const MOST_LOG_ODDS = 0.7;
/** Shares and probabilities settle within as many. */
const ROUNDS = 3;
/** Beats this much longer than usual span a passage without any. */
const LONG_BEAT = 1.5;
const EPSILON = 1e-4;

/** Place in its beat of each instant, 0 to {@link PLACES}; null outside of all beats. Both lists ascend. */
function placesOf(timesS: readonly number[], beatsS: readonly number[]): (number | null)[] {
  const usualS = median(beatsS.slice(1).map((timeS, i) => timeS - beatsS[i])) ?? 0;
  let beat = 0;
  return timesS.map((timeS) => {
    while (beat + 2 < beatsS.length && beatsS[beat + 1] <= timeS) beat++;
    const lengthS = beatsS[beat + 1] - beatsS[beat];
    const at = (timeS - beatsS[beat]) / lengthS;
    return at >= 0 && at < 1 && lengthS <= LONG_BEAT * usualS ? at * PLACES : null;
  });
}

/** The two whole places that `place` lies between, with its share of each. */
function around(place: number): readonly (readonly [number, number])[] {
  const before = Math.floor(place);
  const share = place - before;
  return [
    [before % PLACES, 1 - share],
    [(before + 1) % PLACES, share],
  ];
}

/** New probabilities for all candidates, in order of time; what the user has confirmed (`annotations`) stays. */
export function applyMetricalPrior(
  timesS: readonly number[],
  probabilities: readonly StrokeProbabilities[],
  beatsS: readonly number[],
  annotations: readonly Annotation[] = probabilities.map(() => null),
): StrokeProbabilities[] {
  if (timesS.length === 0 || beatsS.length < 2) return [...probabilities];
  const places = placesOf(timesS, beatsS);
  const own = probabilities.map(strokeProbability);
  const overall = own.reduce((sum, p) => sum + p, 0) / own.length;
  let now = own;
  for (let round = 0; round < ROUNDS; round++) {
    const struck = new Float64Array(PLACES).fill(PRIOR * overall);
    const seen = new Float64Array(PLACES).fill(PRIOR);
    places.forEach((place, k) => {
      if (place === null) return;
      for (const [at, share] of around(place)) {
        struck[at] += share * now[k];
        seen[at] += share;
      }
    });
    now = own.map((p, k) => {
      const place = places[k];
      if (place === null || annotations[k] !== null) return p;
      const expected = around(place).reduce((sum, [at, share]) => sum + (share * struck[at]) / seen[at], 0);
      const shift = WEIGHT * (logOdds(expected, EPSILON) - logOdds(overall, EPSILON));
      return logistic(logOdds(p, EPSILON) + clamp(shift, -MOST_LOG_ODDS, MOST_LOG_ODDS));
    });
  }
  return probabilities.map(({ ring, palmMute, dead }, k) => {
    const scale = now[k] / Math.max(own[k], EPSILON);
    return { ring: scale * ring, palmMute: scale * palmMute, dead: scale * dead };
  });
}
