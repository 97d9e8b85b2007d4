/**
 * The delay of the device from what the loudspeaker plays into the take: before the player begins something is struck on every beat that is
 * counted in, later by always the same. It is soft, and there is nothing else: how much the high sounds rise tells it.
 */

/** Delays that devices have, seconds; and the way through the air from a loudspeaker an arm away. */
export const LONGEST_DELAY_S = 0.14;
export const THROUGH_AIR_S = 0.003;
/** The sound is looked at so often; levels are means over two steps. */
const STEP_S = 0.002;
/** A click rises within so many steps. */
const RISE_STEPS = 3;
/** On every beat the level rises by this much, in natural logarithms of power: 6.5 dB. */
const LEAST_RISE = 1.5;
/** A single beat can be chance: then by 13 dB. */
const LEAST_RISE_OF_ONE = 3;
/** Under the noise of the input nothing is told. */
const FLOOR = 1e-14;

/** How much the power of the high sounds rises at each step, up to a time. */
function rises(samples: Float32Array, sampleRate: number, untilS: number): Float32Array {
  const step = Math.round(STEP_S * sampleRate);
  const count = Math.max(0, Math.floor((untilS * sampleRate) / step) - 2);
  const power = new Float32Array(count);
  for (let k = 0; k < count; k++) {
    let sum = 0;
    // Second differences let high sounds through (12 dB an octave).
    for (let n = k * step + 2; n < (k + 2) * step; n++) {
      const high = samples[n] - 2 * samples[n - 1] + samples[n - 2];
      sum += high * high;
    }
    power[k] = Math.log(sum / (2 * step) + FLOOR);
  }
  return power.map((p, k) => (k < RISE_STEPS ? 0 : Math.max(0, p - power[k - RISE_STEPS])));
}

/** Null where the beats before `untilS`, when the player begins, are not heard. */
export function bleedDelay(
  samples: Float32Array,
  sampleRate: number,
  beatsS: readonly number[],
  untilS: number,
): number | null {
  const counted = beatsS.filter((b) => b >= 0 && b + LONGEST_DELAY_S < untilS);
  if (counted.length === 0) return null;
  const rise = rises(samples, sampleRate, untilS);
  const at = (timeS: number): number => {
    const k = Math.round(timeS / STEP_S);
    return Math.max(rise[k - 1] ?? 0, rise[k] ?? 0, rise[k + 1] ?? 0);
  };
  let [best, bestRise] = [0, 0];
  for (let delay = 0; delay <= LONGEST_DELAY_S; delay += STEP_S / 2) {
    const least = Math.min(...counted.map((beat) => at(beat + delay)));
    if (least > bestRise) [best, bestRise] = [delay, least];
  }
  const wanted = counted.length === 1 ? LEAST_RISE_OF_ONE : LEAST_RISE;
  return bestRise < wanted ? null : Math.max(0, best - THROUGH_AIR_S);
}
