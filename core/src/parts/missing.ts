/** Parts that a band does not have: what an engine leaks into an empty part is quieter, beside the whole, than a part that plays. */
import { PARTS, type Part } from './parts';
import { PIECE_CHANNELS } from './pieces';

/** Sums of squares; only their ratios matter. */
export type PartPowers = Readonly<Record<Part, number>>;

/**
 * dB beside the whole band: a part below it is leakage. A part that is left out can't be told: the engine puts as much of others into it as
 * it would hold.
 */
export type LeaksDb = Readonly<Partial<Record<Part, number>>>;

/** Of a piece as it is stored, see `interleaveParts`. */
export function powersOf(samples: Int16Array): PartPowers {
  const powers = { drums: 0, bass: 0, voice: 0, guitars: 0 };
  PARTS.forEach((part, p) => {
    let sum = 0;
    for (let n = 2 * p; n < samples.length; n += PIECE_CHANNELS) sum += samples[n] ** 2 + samples[n + 1] ** 2;
    powers[part] = sum;
  });
  return powers;
}

/** `pieces`: of the whole recording, since a song may begin without its drums. None of silence. */
export function missingParts(pieces: readonly PartPowers[], leaksDb: LeaksDb): Part[] {
  const sumOf = (part: Part): number => pieces.reduce((sum, powers) => sum + powers[part], 0);
  const whole = PARTS.reduce((sum, part) => sum + sumOf(part), 0);
  if (whole === 0) return [];
  return PARTS.filter((part) => {
    const leakDb = leaksDb[part];
    return leakDb !== undefined && sumOf(part) < whole * 10 ** (leakDb / 10);
  });
}
