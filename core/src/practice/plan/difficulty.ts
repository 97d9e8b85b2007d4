/**
 * What makes a part hard to play at its tempo, each cause by itself: strokes a second, the way of the hand along the neck, the widest stretch,
 * and strings crossed. From 0, nothing of it, to 5, at the edge of what a good player does.
 */
import { handSpanMm, pressedAtMm } from '../../guitar';
import type { StrumInPass } from '../../riff';

export interface Difficulty {
  readonly tempo: number;
  readonly shifts: number;
  readonly stretch: number;
  readonly crossings: number;
}

export interface DifficultyMeasures {
  /** Strokes a second. */
  readonly strokesHz: number;
  /** Way of the hand along the neck, millimetres a second. */
  readonly shiftMmPerS: number;
  readonly stretchMm: number;
  /** Strings that the lowest sounding string moves by, a second. */
  readonly crossingsHz: number;
}

const MOST = 5;
/** Eighths at 60 bpm are easy; sixteenths at 180, twelve strokes a second, are about as fast as a wrist goes (common practice). */
const EASY_STROKES_HZ = 1;
const FASTEST_STROKES_HZ = 12;
/** A shift over five frets low on the neck, about 150 mm, in every second of the music. */
const MOST_SHIFT_MM_PER_S = 150;
/** Four frets from the first on, for the first and the fourth finger (common practice: a wide stretch for any hand). */
const MOST_STRETCH_MM = 130;
/** From one string to the next on every eighth at 120 bpm. */
const MOST_CROSSINGS_HZ = 4;

/** `strums` in order of time, over `durationS`; strums without notes are strokes only. `capo` counts from the nut. */
export function measureDifficulty(
  strums: readonly Pick<StrumInPass, 'strum'>[],
  durationS: number,
  capo = 0,
): DifficultyMeasures {
  let [wayMm, crossed, stretchMm] = [0, 0, 0];
  let handMm: number | null = null;
  let lowest: number | null = null;
  for (const { strum } of strums) {
    if (strum.frets.length === 0) continue;
    stretchMm = Math.max(stretchMm, handSpanMm(strum.frets, capo));
    const pressed = strum.frets.filter((f) => f.fret > 0).map((f) => f.fret + capo);
    // Open strings leave the hand where it is.
    if (pressed.length > 0) {
      const atMm = pressedAtMm(Math.min(...pressed));
      if (handMm !== null) wayMm += Math.abs(atMm - handMm);
      handMm = atMm;
    }
    const string = Math.max(...strum.frets.map((f) => f.string));
    if (lowest !== null) crossed += Math.abs(string - lowest);
    lowest = string;
  }
  const seconds = Math.max(durationS, 1e-3);
  return {
    strokesHz: strums.length / seconds,
    shiftMmPerS: wayMm / seconds,
    stretchMm,
    crossingsHz: crossed / seconds,
  };
}

const share = (value: number, most: number): number => MOST * Math.min(1, Math.max(0, value / most));

export function difficultyOf({
  strokesHz,
  shiftMmPerS,
  stretchMm,
  crossingsHz,
}: DifficultyMeasures): Difficulty {
  return {
    // Twice as fast is one step harder, wherever one starts.
    tempo:
      strokesHz <= 0
        ? 0
        : share(Math.log2(strokesHz / EASY_STROKES_HZ), Math.log2(FASTEST_STROKES_HZ / EASY_STROKES_HZ)),
    shifts: share(shiftMmPerS, MOST_SHIFT_MM_PER_S),
    stretch: share(stretchMm, MOST_STRETCH_MM),
    crossings: share(crossingsHz, MOST_CROSSINGS_HZ),
  };
}

/** All of it as one number. */
export function totalOf({ tempo, shifts, stretch, crossings }: Difficulty): number {
  return tempo + shifts + stretch + crossings;
}
