/**
 * Was a strum palm-muted, or a dead stroke? Read from how the sound falls after the attack (a palm on the
 * bridge ends it early) and how far it has a pitch at all. Plain thresholds; single features separate about
 * nine of ten (docs/decisions/analysis.md).
 */
import { applyBiquad, highPass, lowPass } from '../dsp';
import type { StrumSpan } from './chord-recognition';

/** Region where chords sound and cymbals do not, Hz. */
const BODY_HZ = [130, 2000] as const;
/** Fall of the body level from the attack to 100–150 ms later, dB: ringing chords stay above the first. */
const MUTE_FALL_DB = 9;
const DEAD_FALL_DB = 16;
/** A dead stroke fits no chord; ringing ones fit theirs with 0.6 and more. */
const DEAD_MAX_FIT = 0.5;

export interface Damping {
  readonly palmMuted: boolean;
  readonly dead: boolean;
  /** End of sounding: where the level has fallen by {@link END_FALL_DB}, at most `endS`. */
  readonly endS: number;
}
const END_FALL_DB = 22;

function levelDb(samples: Float32Array, from: number, to: number): number {
  let sum = 1e-12;
  for (let i = Math.max(0, from); i < Math.min(samples.length, to); i++) sum += samples[i] * samples[i];
  return 10 * Math.log10(sum / Math.max(1, to - from));
}

/** `fits`: correlation of each strum with its chord template. */
export function measureDamping(
  samples: Float32Array,
  sampleRate: number,
  strums: readonly StrumSpan[],
  fits: readonly number[],
): Damping[] {
  const body = applyBiquad(
    applyBiquad(samples, highPass(BODY_HZ[0], sampleRate)),
    lowPass(BODY_HZ[1], sampleRate),
  );
  const at = (timeS: number): number => Math.round(timeS * sampleRate);
  return strums.map(({ timeS, endS }, k) => {
    const level = (fromS: number, toS: number): number => levelDb(body, at(timeS + fromS), at(timeS + toS));
    const attack = level(0.008, 0.04);
    // Measured at a fixed place, or at the end of a strum that is followed sooner.
    const lateS = Math.min(0.13, endS - timeS - 0.02);
    const fall = lateS > 0.05 ? attack - level(lateS - 0.03, lateS + 0.01) : 0;
    const slope = lateS > 0.05 ? (fall * 0.13) / Math.max(0.08, lateS) : 0;
    const dead = slope > DEAD_FALL_DB && fits[k] < DEAD_MAX_FIT;
    let sounding = endS;
    for (let s = 0.06; timeS + s < endS; s += 0.01) {
      if (attack - level(s, s + 0.02) > END_FALL_DB) {
        sounding = timeS + s;
        break;
      }
    }
    return { dead, palmMuted: !dead && slope > MUTE_FALL_DB, endS: sounding };
  });
}
