/** Two digits typed in quick succession are one fret: 1 then 2 is the twelfth. */
import { MAX_FRET } from '@wild-needle/core/guitar';

/** Time within which a second digit belongs to the first. */
const TOGETHER_MS = 700;

export interface FretEntry {
  /** The fret after this digit; `place` is where it is written: another place starts a new number. */
  type(digit: number, place: string, nowMs: number): number;
}

export function createFretEntry(): FretEntry {
  let last: { readonly fret: number; readonly place: string; readonly atMs: number } | null = null;
  return {
    type(digit, place, nowMs) {
      const joined = last ? last.fret * 10 + digit : digit;
      const joins =
        last !== null &&
        last.place === place &&
        last.fret > 0 &&
        nowMs - last.atMs < TOGETHER_MS &&
        joined <= MAX_FRET;
      const fret = joins ? joined : digit;
      // After two digits a third starts anew.
      last = joins ? null : { fret, place, atMs: nowMs };
      return fret;
    },
  };
}
