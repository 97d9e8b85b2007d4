/**
 * Was a strum palm-muted, or a dead stroke? A palm on the bridge takes the edge off the sound at once and ends it
 * early; a dead stroke is bright and over before it has a pitch. Plain rules on three measures, thresholds read off
 * the rendered corpus (docs/decisions/0003-analysis.md); on real records mutes are often loud and short instead.
 */
import { applyBiquad, highPass, lowPass, quantile } from '../dsp';
import type { StrumSpan } from './chord-recognition';

/** Where chords sound and cymbals do not, and where the pick and the fizz of the amplifier are, Hz. */
const BODY_HZ = [150, 1200] as const;
const EDGE_HZ = [1800, 5000] as const;
/** Falls are taken up to here after the onset, or up to the next strum. */
const LATE_S = 0.14;
/** A strum shorter than this shows no fall. */
const SHORTEST_S = 0.09;
/** Muted: the edge falls by this many dB, and is this much duller than ringing strums of the song. */
const MUTE_EDGE_FALL_DB = 5;
const MUTE_DULLER_DB = 5;
/** Dead: the body falls as well, and it is not dull. */
const DEAD_BODY_FALL_DB = 5.5;
const DEAD_EDGE_FALL_DB = 9;
/** Ringing strums are the brighter ones of a song: brightness of this share stands for them. */
const RINGING_SHARE = 0.75;
/** A strum has ended when its body has fallen by this. */
const END_FALL_DB = 22;

export interface Damping {
  readonly palmMuted: boolean;
  readonly dead: boolean;
  /** End of sounding, at most the strum's own end. */
  readonly endS: number;
}

type Level = (fromS: number, toS: number) => number;

function levelIn(samples: Float32Array, sampleRate: number): Level {
  return (fromS, toS) => {
    const from = Math.max(0, Math.round(fromS * sampleRate));
    const to = Math.min(samples.length, Math.round(toS * sampleRate));
    let sum = 1e-12;
    for (let i = from; i < to; i++) sum += samples[i] * samples[i];
    return 10 * Math.log10(sum / Math.max(1, to - from));
  };
}

function band(
  samples: Float32Array,
  sampleRate: number,
  [low, high]: readonly [number, number],
): Float32Array {
  return applyBiquad(applyBiquad(samples, highPass(low, sampleRate)), lowPass(high, sampleRate));
}

export function measureDamping(
  samples: Float32Array,
  sampleRate: number,
  strums: readonly StrumSpan[],
): Damping[] {
  const body = levelIn(band(samples, sampleRate, BODY_HZ), sampleRate);
  const edge = levelIn(band(samples, sampleRate, EDGE_HZ), sampleRate);
  const measured = strums.map(({ timeS, endS }) => {
    const lateS = Math.min(LATE_S, endS - timeS - 0.02);
    const brightDb = edge(timeS + 0.03, timeS + 0.08) - body(timeS + 0.03, timeS + 0.08);
    if (endS - timeS < SHORTEST_S) return { brightDb, bodyFallDb: 0, edgeFallDb: 0 };
    const scale = LATE_S / lateS;
    const late = [timeS + lateS - 0.03, timeS + lateS] as const;
    return {
      brightDb,
      bodyFallDb: (body(timeS + 0.01, timeS + 0.04) - body(...late)) * scale,
      edgeFallDb: (edge(timeS + 0.005, timeS + 0.03) - edge(...late)) * scale,
    };
  });
  const ringingBrightDb =
    quantile(
      measured.map((m) => m.brightDb),
      RINGING_SHARE,
    ) ?? 0;

  return strums.map(({ timeS, endS }, k) => {
    const { brightDb, bodyFallDb, edgeFallDb } = measured[k];
    const dull = brightDb < ringingBrightDb - MUTE_DULLER_DB;
    const dead = !dull && bodyFallDb > DEAD_BODY_FALL_DB && edgeFallDb > DEAD_EDGE_FALL_DB;
    return {
      dead,
      palmMuted: !dead && dull && edgeFallDb > MUTE_EDGE_FALL_DB,
      endS: endOfSounding(body, timeS, endS),
    };
  });
}

function endOfSounding(body: Level, timeS: number, endS: number): number {
  const attack = body(timeS + 0.008, timeS + 0.04);
  for (let t = timeS + 0.06; t < endS; t += 0.01) {
    if (attack - body(t, t + 0.02) > END_FALL_DB) return t;
  }
  return endS;
}
