/**
 * Parts that play a riff and leave its end out: half a riff before the verse, a last pass that stops on the first chord. Alone they look like riffs
 * of their own; their bars are those that another riff begins with.
 */
import { barsOf, type Part } from './part';

/** Of the bars of such a part as many are those of the riff; its first bar always is. */
const SAME_SHARE = 0.6;

/** The riff that this part begins and does not end; undefined where there is none. */
function begunRiff(part: Part, parts: readonly Part[], sameAs: readonly number[]): Part | undefined {
  const bars = barsOf(part);
  return parts.find((whole) => {
    if (whole.riff === part.riff || whole.barsPerPass <= bars || whole.shift !== 0) return false;
    const isSame = (b: number): boolean => sameAs[part.start + b] === sameAs[whole.start + b];
    const same = Array.from({ length: bars }, (_, b) => b).filter(isSame).length;
    return isSame(0) && same >= SAME_SHARE * bars;
  });
}

/** `sameAs`: for each bar the earliest that it is the same as. A half riff right behind whole passes of its riff is their last pass. */
export function joinHalfRiffs(parts: readonly Part[], sameAs: readonly number[]): Part[] {
  const begun = new Map<Part, Part>();
  for (const part of parts) {
    const isAlone = part.passes === 1 && parts.filter((other) => other.riff === part.riff).length === 1;
    const whole = isAlone ? begunRiff(part, parts, sameAs) : undefined;
    if (whole) begun.set(part, whole);
  }
  // What is half of a half riff is half of the whole one; each is longer than the one before.
  const wholeOf = (part: Part): Part => {
    const whole = begun.get(part);
    return whole ? wholeOf(whole) : part;
  };
  const joined: Part[] = [];
  for (const part of parts) {
    const { barsPerPass, riff } = wholeOf(part);
    const before = joined.at(-1);
    if (!begun.has(part)) {
      joined.push(part);
      continue;
    }
    const cutBars = barsPerPass - barsOf(part);
    if (before?.riff === riff && before.shift === 0 && before.cutBars === 0) {
      joined[joined.length - 1] = { ...before, passes: before.passes + 1, cutBars };
    } else {
      joined.push({ ...part, barsPerPass, cutBars, riff, shift: 0 });
    }
  }
  return joined;
}
