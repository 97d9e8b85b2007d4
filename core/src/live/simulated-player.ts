/**
 * A player who is not there: plays a round of the tab with mistakes that are known, so that everything can be tried without a guitar. The sound
 * is that of the plucked strings of `core/synth`, through no amplifier.
 */
import type { WrittenStrum } from '../check';
import type { PlayedStrum } from '../riff';
import { renderGuitar } from '../synth';
import { createRandom, gaussian } from '../units';

export interface SimulatedMistakes {
  /** Strums, by their place in the round. */
  readonly missed: readonly number[];
  /** A fret too high. */
  readonly wrong: readonly number[];
}

/** How it plays: late on the whole, wavering, through a device that delays. */
const LATE_S = 0.014;
const WAVER_S = 0.006;
export const SIMULATED_DELAY_S = 0.043;
/** Every third round is without a mistake. */
const CLEAN_EVERY = 3;
/** Clean enough that every string is heard. */
const DRIVE = 1.5;
const A4_HZ = 440;

/** `number` counts rounds from 1. */
export function mistakesOf(strums: number, number: number): SimulatedMistakes {
  if (number % CLEAN_EVERY === 0 || strums < 4) return { missed: [], wrong: [] };
  const wrong = (2 + 3 * number) % strums;
  const missed = (wrong + Math.floor(strums / 2)) % strums;
  return { missed: [missed], wrong: [wrong] };
}

/** Samples from `fromS` on, as the device hands them over. */
export function playSimulated(
  strums: readonly WrittenStrum[],
  {
    number,
    fromS,
    toS,
    sampleRate,
    cents,
  }: {
    readonly number: number;
    readonly fromS: number;
    readonly toS: number;
    readonly sampleRate: number;
    /** That the guitar is tuned above 440 Hz. */
    readonly cents: number;
  },
): Float32Array {
  const random = createRandom(number);
  const { missed, wrong } = mistakesOf(strums.length, number);
  const played = strums.flatMap((strum, i): PlayedStrum[] => {
    const offsetS = LATE_S + WAVER_S * gaussian(random) + SIMULATED_DELAY_S - fromS;
    if (missed.includes(i)) return [];
    const endS = strum.endS + offsetS;
    const up = wrong.includes(i) ? 1 : 0;
    const notes = strum.midi.map((midi) => ({ midi: midi + up, endS, moves: [] }));
    return [
      {
        ...{ timeS: strum.timeS + offsetS, endS, notes, level: 1 },
        palmMute: strum.palmMuted,
        dead: strum.dead,
      },
    ];
  });
  const length = Math.max(0, Math.round((toS - fromS) * sampleRate));
  return renderGuitar(
    played,
    A4_HZ * 2 ** (cents / 1200),
    length,
    { sampleRate, drive: DRIVE, scatterS: 0 },
    ({ timeS }) => createRandom(Math.round(1000 * timeS)),
  );
}
