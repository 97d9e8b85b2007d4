/** The outline of another recording, drawn over the time of the reference. */
import { ENVELOPE_RATE } from '../units';

/** Values of one place that are looked at, at most: a part that only the other has is passed in an instant. */
const LOOKED_AT = 8;

/** One byte per 1 / {@link ENVELOPE_RATE} s each, the loudest of its place; `toOther` ascends. */
export function warpOutline(
  outline: Uint8Array,
  referenceS: number,
  toOther: (timeS: number) => number,
): Uint8Array<ArrayBuffer> {
  const placeOf = (n: number): number => Math.floor(toOther(n / ENVELOPE_RATE) * ENVELOPE_RATE);
  return Uint8Array.from({ length: Math.ceil(referenceS * ENVELOPE_RATE) }, (_, n) => {
    const [from, to] = [placeOf(n), placeOf(n + 1)];
    let loudest = outline[from] ?? 0;
    for (let k = from + 1; k < Math.min(to, from + LOOKED_AT); k++) {
      loudest = Math.max(loudest, outline[k] ?? 0);
    }
    return loudest;
  });
}
