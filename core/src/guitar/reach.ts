/**
 * Distances on a real neck. Every fret shortens the string by the twelfth root of two (equal temperament); luthiers' old rule
 * takes 1/17.817 of what remains, which is the same number.
 */
import type { StringFret } from './tuning';
import { USUAL_SCALE_MM } from './string-tension';

/** From the nut to the middle between a fret and the one before it, where a finger presses; 0 for an open string. */
export function pressedAtMm(fret: number, scaleMm = USUAL_SCALE_MM): number {
  return fret === 0 ? 0 : (fretAtMm(fret, scaleMm) + fretAtMm(fret - 1, scaleMm)) / 2;
}

/** From the nut to a fret. */
export function fretAtMm(fret: number, scaleMm = USUAL_SCALE_MM): number {
  return scaleMm * (1 - 2 ** (-fret / 12));
}

/** How far apart the outer fingers are along the neck; 0 for one finger and open strings. `capo` counts from the nut. */
export function handSpanMm(frets: readonly StringFret[], capo = 0, scaleMm = USUAL_SCALE_MM): number {
  const pressed = frets.filter((f) => f.fret > 0).map((f) => pressedAtMm(f.fret + capo, scaleMm));
  return pressed.length < 2 ? 0 : Math.max(...pressed) - Math.min(...pressed);
}
