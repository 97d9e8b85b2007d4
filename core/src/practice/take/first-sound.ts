/**
 * The delay of the device from the first that is heard at all: a loudspeaker begins on a beat, softly, and the player, who is a little late, far
 * louder some milliseconds after it. What stands between the two tells them apart from a single stroke.
 */
import { LONGEST_DELAY_S, THROUGH_AIR_S } from './bleed-delay';

/** Levels are means over three milliseconds, a millisecond apart. */
const STEP_S = 0.001;
const WINDOW_STEPS = 3;
/** So much quiet before it tells what the noise of the input is. */
const LEAST_QUIET_S = 0.3;
/** The end of what was heard before the take, and of what is counted, are left out of it. */
const MARGIN_S = 0.15;
/** Over nearly all of the noise by so much, and still so some steps later, something sounds. */
const NOISE_SHARE = 0.98;
const OVER_NOISE_DB = 4;
const LASTING_STEPS = [0, 2, 4];
/** The player is looked for behind it, and is within this of the loudest there. */
const PLAYER_WITHIN_S = 0.6;
const PLAYER_DB = 20;
/** Strings that are struck one after the other rise within six milliseconds (measured on takes without a loudspeaker). */
const LEAST_APART_S = 0.007;

/** Null where nothing soft comes before the player. `playerS`: about when the player begins. */
export function firstSoundDelay(
  samples: Float32Array,
  sampleRate: number,
  beatsS: readonly number[],
  playerS: number,
): number | null {
  const step = Math.round(STEP_S * sampleRate);
  const levelAt = (k: number): number => {
    let sum = 0;
    for (let n = k * step; n < (k + WINDOW_STEPS) * step; n++) sum += (samples[n] ?? 0) ** 2;
    return 10 * Math.log10(sum / (WINDOW_STEPS * step) + 1e-14);
  };
  const steps = (timeS: number): number => Math.round((timeS * sampleRate) / step);
  const quietTo = playerS - MARGIN_S;
  if (quietTo - MARGIN_S < LEAST_QUIET_S) return null;
  const quiet = Array.from({ length: steps(quietTo - MARGIN_S) }, (_, k) => levelAt(steps(MARGIN_S) + k));
  const noiseDb = quiet.sort((a, b) => a - b)[Math.floor(NOISE_SHARE * (quiet.length - 1))];
  const isHeard = (k: number): boolean =>
    LASTING_STEPS.every((later) => levelAt(k + later) > noiseDb + OVER_NOISE_DB);
  let first = steps(quietTo);
  const end = steps(playerS + PLAYER_WITHIN_S);
  while (first < end && !isHeard(first)) first++;
  if (first === end) return null;
  const behind = Array.from({ length: steps(PLAYER_WITHIN_S) }, (_, k) => levelAt(first + k));
  const loudest = Math.max(...behind);
  const apart = behind.findIndex((db) => db > loudest - PLAYER_DB);
  const firstS = (first * step) / sampleRate;
  const beatS = beatsS.findLast((beat) => beat <= firstS);
  if (apart * STEP_S < LEAST_APART_S || beatS === undefined) return null;
  const delayS = firstS - beatS;
  return delayS > LONGEST_DELAY_S ? null : Math.max(0, delayS - THROUGH_AIR_S);
}
