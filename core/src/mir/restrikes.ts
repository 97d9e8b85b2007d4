/**
 * Tells a stroke from a drum that falls on a ringing chord: hands choke the strings just before they strike again, so
 * a stroke is a step in the level of the chord region; a drum leaves the same chord at the same level.
 */
import { applyBiquad, highPass, lowPass } from '../dsp';

/** Partials of chords, above kick and bass and below cymbals, Hz. */
const CHORD_HZ = [250, 1500] as const;
/** Level is read in blocks of this length, around the onset from the quietest before to the loudest after. */
const BLOCK_S = 0.01;
const STEP_S = 0.004;
const BEFORE_S = [-0.045, -0.012] as const;
const AFTER_S = [0.004, 0.05] as const;
/** A third of the drum hits on the rendered corpus stay below, and fewer than one stroke in ten. */
const STROKE_STEP_DB = 1.2;

/** For each onset: whether the level of the chord region rises there as at a stroke. */
export function findStrokes(
  samples: Float32Array,
  sampleRate: number,
  onsetsS: readonly number[],
): boolean[] {
  const chords = applyBiquad(
    applyBiquad(samples, highPass(CHORD_HZ[0], sampleRate)),
    lowPass(CHORD_HZ[1], sampleRate),
  );
  const levelDb = (fromS: number): number => {
    const from = Math.round(fromS * sampleRate);
    const to = from + Math.round(BLOCK_S * sampleRate);
    let sum = 1e-12;
    for (let i = Math.max(0, from); i < Math.min(to, chords.length); i++) sum += chords[i] * chords[i];
    return 10 * Math.log10(sum / (to - from));
  };
  return onsetsS.map((onset) => {
    let quietest = Infinity;
    let loudest = -Infinity;
    for (let t = BEFORE_S[0]; t <= BEFORE_S[1]; t += STEP_S)
      quietest = Math.min(quietest, levelDb(onset + t));
    for (let t = AFTER_S[0]; t <= AFTER_S[1]; t += STEP_S) loudest = Math.max(loudest, levelDb(onset + t));
    return loudest - quietest >= STROKE_STEP_DB;
  });
}
