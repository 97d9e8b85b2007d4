/**
 * Counts as players say them: 1 & 2 & for eighths, 1 e & a for sixteenths, 1 trip let for triplets. Common practice
 * in rhythm teaching (English syllables).
 */
import type { Ticks } from '../units';
import type { Riff } from './document';
import { barStartsTicks, ticksPerBeat } from './grid';

/** The syllable of a place inside a bar; '' where no usual syllable falls. */
export function countSyllable(ticksInBar: Ticks, unit: number): string {
  const beat = ticksPerBeat(unit);
  const number = Math.floor(ticksInBar / beat) + 1;
  const part = (ticksInBar % beat) / beat;
  switch (part) {
    case 0:
      return String(number);
    case 1 / 4:
      return 'e';
    case 1 / 2:
      return '&';
    case 3 / 4:
      return 'a';
    default:
      // Thirds are not exact in floating point.
      if (Math.abs(part - 1 / 3) < 1e-9) return 'trip';
      if (Math.abs(part - 2 / 3) < 1e-9) return 'let';
      return '';
  }
}

export interface CountMark {
  readonly ticks: Ticks;
  readonly text: string;
  readonly onBeat: boolean;
}

/** Into how many places a beat is counted: halves, or what the strums in it ask for. */
function partsOf(placesInBeat: readonly Ticks[], beat: Ticks): number {
  const fits = (parts: number): boolean => placesInBeat.every((t) => (t * parts) % beat === 0);
  return [2, 3, 4].find(fits) ?? 2;
}

/**
 * Beats and what is counted between them over the whole riff: the ruler of the written row. Halves everywhere; sixteenths and
 * triplets in beats that have strums there.
 */
export function rulerCounts(riff: Riff): CountMark[] {
  const starts = barStartsTicks(riff);
  return riff.bars.flatMap(({ beats, unit }, b) => {
    const beat = ticksPerBeat(unit);
    return Array.from({ length: beats }, (_, i) => {
      const from = starts[b] + i * beat;
      const inside = riff.strums.map((s) => s.startTicks - from).filter((t) => t > 0 && t < beat);
      const parts = partsOf(inside, beat);
      return Array.from({ length: parts }, (_2, part) => ({
        ticks: from + (part * beat) / parts,
        text: countSyllable(i * beat + (part * beat) / parts, unit),
        onBeat: part === 0,
      }));
    }).flat();
  });
}
