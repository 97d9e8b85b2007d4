/** How loud each stroke of a take is: what a loudspeaker plays into it is far softer than the guitar. */

/** Of the attack, as much as tells its level. */
const ATTACK_S = 0.06;

/** Root mean square behind each instant, of samples from -1 to 1. */
export function strokeLevels(samples: Float32Array, sampleRate: number, timesS: readonly number[]): number[] {
  const length = Math.round(ATTACK_S * sampleRate);
  return timesS.map((timeS) => {
    const from = Math.max(0, Math.round(timeS * sampleRate));
    const to = Math.min(samples.length, from + length);
    let sum = 0;
    for (let n = from; n < to; n++) sum += samples[n] * samples[n];
    return to > from ? Math.sqrt(sum / (to - from)) : 0;
  });
}

/** Softer than the usual stroke by this, and it is none of the player's: 20 dB. */
const MUCH_SOFTER = 0.1;

/** Probabilities of strokes, those of the loudspeaker taken down; `levels` as {@link strokeLevels}. */
export function withoutBleed<T extends { readonly probability: number }>(
  strokes: readonly T[],
  levels: readonly number[],
): T[] {
  const sure = levels.filter((_, i) => strokes[i].probability >= 0.5).sort((a, b) => a - b);
  if (sure.length === 0) return [...strokes];
  const usual = sure[Math.floor(sure.length / 2)];
  return strokes.map((stroke, i) =>
    levels[i] < MUCH_SOFTER * usual ? { ...stroke, probability: 0 } : stroke,
  );
}
