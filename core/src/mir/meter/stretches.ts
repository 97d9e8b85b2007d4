/** Where a recording sounds: silences in it break the pulse, since nobody counts through them as the drummer did before. */
import type { OnsetStrength } from '../onsets/onset-strength';

export interface TimeSpan {
  readonly startS: number;
  readonly endS: number;
}

/** Shorter ones are rests: two bars of a slow song. */
const SILENCE_S = 3;
/** An attack under this share of the usual loud one is noise, or the tail of a chord. */
const QUIET_SHARE = 0.03;
/** The usual loud attack: this share of all frames is under it. */
const LOUD_QUANTILE = 0.98;

/** In order of time, at least one where anything sounds. */
export function soundingStretches({ frameRate, curves }: OnsetStrength): TimeSpan[] {
  const all = curves.body.map((value, n) => value + curves.low[n] + curves.edge[n]);
  const loud = Float32Array.from(all).sort()[Math.floor(LOUD_QUANTILE * (all.length - 1))] ?? 0;
  const stretches: { startS: number; endS: number }[] = [];
  all.forEach((value, n) => {
    if (value <= QUIET_SHARE * loud) return;
    const timeS = n / frameRate;
    const last = stretches.at(-1);
    if (last && timeS - last.endS < SILENCE_S) last.endS = timeS;
    else stretches.push({ startS: timeS, endS: timeS });
  });
  return stretches;
}

/** The one that lasts longest. */
export function longestStretch(stretches: readonly TimeSpan[]): TimeSpan {
  return stretches.reduce((longest, s) => (s.endS - s.startS > longest.endS - longest.startS ? s : longest));
}
