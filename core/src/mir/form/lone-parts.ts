/**
 * Parts in which nothing comes round and nothing was heard clearly: solos, talk, noise. What was heard there can't be checked against another pass, so it
 * is no riff. They are as long as the band goes on the same: a cut between two of them that nothing in the onsets speaks for was an accident.
 * A recording in which nothing at all comes round is one pass of everything, and all of it is written.
 */
import { barsOf, type Part } from './part';

/** From this share of its bars on, heard elsewhere too, a part is something that comes round. */
const HEARD_ELSEWHERE = 0.5;
/**
 * Mean confidence of the strums from which a part that is played once is written down all the same. Where it is less, nearly half of what would be written is a
 * guess; parts that rendered songs play once have .7 and more.
 */
const HEARD_CLEARLY = 0.7;
/** Change of the onsets, 0 to 1, from which the band does something new. */
const BAND_CHANGES = 0.35;

function comesRound(part: Part, parts: readonly Part[], sameAs: readonly number[]): boolean {
  if (part.passes > 1 || part.cutBars > 0) return true;
  if (parts.some((other) => other !== part && other.riff === part.riff)) return true;
  const end = part.start + barsOf(part);
  const elsewhere = new Set(sameAs.filter((_, bar) => bar < part.start || bar >= end));
  const own = sameAs.slice(part.start, end);
  return own.filter((bar) => elsewhere.has(bar)).length >= HEARD_ELSEWHERE * own.length;
}

/** `clarity` and `changes` by bar: mean confidence of its strums (0 where there are none), and how much the onsets change where it begins. */
export function markLoneParts(
  parts: readonly Part[],
  sameAs: readonly number[],
  clarity: readonly number[],
  changes: readonly number[],
): Part[] {
  const marked: Part[] = [];
  if (!parts.some((part) => comesRound(part, parts, sameAs))) return [...parts];
  for (const part of parts) {
    const own = clarity.slice(part.start, part.start + barsOf(part));
    const isClear = own.reduce((sum, c) => sum + c, 0) >= HEARD_CLEARLY * own.length;
    const returns = isClear || comesRound(part, parts, sameAs);
    const before = marked.at(-1);
    if (!returns && before && !before.returns && changes[part.start] < BAND_CHANGES) {
      marked[marked.length - 1] = { ...before, barsPerPass: barsOf(before) + barsOf(part) };
    } else marked.push({ ...part, returns });
  }
  return marked;
}
