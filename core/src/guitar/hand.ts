/**
 * Which finger presses what, and what keeps the other strings quiet. Common practice of rock guitar: the first finger takes
 * the lowest fret, flat where it takes several strings; each fret up is a finger on; a power chord of three strings is taken by
 * ring and little finger.
 */
import type { StringNumber } from '../units';
import type { StringFret, Tuning } from './tuning';

/** 1 = first finger … 4 = little finger, 0 = open. */
export type Finger = 0 | 1 | 2 | 3 | 4;

export interface FingerPlace extends StringFret {
  readonly finger: Finger;
}

/** How a string that is not played is kept quiet. */
export interface QuietString {
  readonly string: StringNumber;
  readonly by: 'fingertip' | 'flat-finger' | 'thumb' | 'palm';
}

/** Fingers, lowest string first. Null when four fingers do not reach. */
export function fingersOf(frets: readonly StringFret[]): FingerPlace[] | null {
  const inOrder = [...frets].sort((a, b) => b.string - a.string);
  const pressed = inOrder.filter((f) => f.fret > 0);
  const low = Math.min(...pressed.map((f) => f.fret));
  const places = [...new Set(pressed.map((f) => f.fret))].sort((a, b) => a - b);
  if (places.length > 4) return null;
  let last = 0;
  const byString = new Map<StringNumber, Finger>();
  for (const fret of places) {
    const strings = pressed.filter((f) => f.fret === fret).map((f) => f.string);
    // One finger a fret, as far as there are fingers; what lies two or more frets up starts at the ring finger.
    const wanted = Math.max(last + 1, fret === low ? 1 : Math.min(3, 1 + fret - low));
    const isFlat = fret === low || strings.length > 5 - wanted;
    if (wanted > 4) return null;
    strings.forEach((string, i) => {
      const finger = isFlat ? wanted : wanted + i;
      byString.set(string, Math.min(4, finger) as Finger);
      last = Math.max(last, Math.min(4, finger));
    });
  }
  return inOrder.map((f) => ({ ...f, finger: f.fret === 0 ? 0 : (byString.get(f.string) ?? 1) }));
}

/**
 * Strings beside and between the played ones. Between them the fingertip of the finger on the next thicker string leans over;
 * above them the first finger lies flat, when it presses anything; below them its tip touches one string and the thumb the
 * rest; with open strings alone the palm does it.
 */
export function quietStrings(frets: readonly StringFret[], tuning: Tuning): QuietString[] {
  if (frets.length === 0) return [];
  const count = tuning.stringsMidi.length;
  const played = new Set(frets.map((f) => f.string));
  const [thin, thick] = [Math.min(...played), Math.max(...played)];
  const isPressed = frets.some((f) => f.fret > 0);
  const pressedOn = new Set(frets.filter((f) => f.fret > 0).map((f) => f.string));
  const quiet: QuietString[] = [];
  for (let string = count; string >= 1; string--) {
    if (played.has(string)) continue;
    const nextThicker = [...played].filter((s) => s > string).sort((a, b) => a - b)[0];
    if (string > thick) {
      const touches = string === thick + 1 && pressedOn.has(thick);
      quiet.push({ string, by: touches ? 'fingertip' : isPressed ? 'thumb' : 'palm' });
    } else if (string > thin) {
      quiet.push({ string, by: pressedOn.has(nextThicker) ? 'fingertip' : 'palm' });
    } else quiet.push({ string, by: isPressed ? 'flat-finger' : 'palm' });
  }
  return quiet;
}
