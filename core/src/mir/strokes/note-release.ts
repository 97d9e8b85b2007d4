/** When a strum has stopped sounding: its chord region has fallen far below its attack, or the next strum has come. */
import { applyBiquad, highPass, lowPass } from '../../dsp';
import type { StrumSpan } from '../types';

/** Where chords sound and cymbals do not, Hz. */
const BODY_HZ = [150, 1200] as const;
/** A strum has ended when its body has fallen by this. */
const END_FALL_DB = 22;
/** Strums end at the next one, at the latest after this long. */
const MAX_STRUM_S = 6;
/** The attack is over from here on, and falls are looked for. */
const ATTACK_S = [0.008, 0.04] as const;
const FIRST_END_S = 0.06;
const BLOCK_S = 0.02;
const STEP_S = 0.01;

/** Each strum lasts until the next one. */
export function spansFrom(onsetsS: readonly number[], durationS: number): StrumSpan[] {
  return onsetsS.map((timeS, k) => ({
    timeS,
    endS: Math.min(onsetsS[k + 1] ?? durationS, timeS + MAX_STRUM_S, durationS),
  }));
}

/** End of sounding of each strum, seconds; at most the end of its span. */
export function findNoteReleases(
  samples: Float32Array,
  sampleRate: number,
  spans: readonly StrumSpan[],
): number[] {
  const body = applyBiquad(samples, highPass(BODY_HZ[0], sampleRate), lowPass(BODY_HZ[1], sampleRate));
  const levelDb = (fromS: number, toS: number): number => {
    const from = Math.max(0, Math.round(fromS * sampleRate));
    const to = Math.min(body.length, Math.round(toS * sampleRate));
    let sum = 1e-12;
    for (let i = from; i < to; i++) sum += body[i] * body[i];
    return 10 * Math.log10(sum / Math.max(1, to - from));
  };
  return spans.map(({ timeS, endS }) => {
    const attack = levelDb(timeS + ATTACK_S[0], timeS + ATTACK_S[1]);
    for (let t = timeS + FIRST_END_S; t < endS; t += STEP_S) {
      if (attack - levelDb(t, t + BLOCK_S) > END_FALL_DB) return t;
    }
    return endS;
  });
}
