/**
 * One riff out of its passes: a strum is written where most passes have one, with the chord that most of them, weighed
 * by confidence, were heard to play there. A mishearing in one pass is outvoted by the others.
 */
import type { Ticks } from '../units';
import type { PlacedStroke } from './place';

/** Sounding notes as a name for voting; a dead stroke votes for silence. */
function chordKey({ dead, midi }: PlacedStroke): string {
  return dead ? 'dead' : midi.join();
}

function elect(candidates: readonly PlacedStroke[]): PlacedStroke {
  const votes = new Map<string, number>();
  for (const c of candidates) votes.set(chordKey(c), (votes.get(chordKey(c)) ?? 0) + c.confidence);
  const winner = [...votes].reduce((best, next) => (next[1] > best[1] ? next : best))[0];
  // Of those that say the same, the surest lends its length.
  const agreeing = candidates.filter((c) => chordKey(c) === winner);
  const surest = agreeing.reduce((best, next) => (next.confidence > best.confidence ? next : best));
  const palmMuted = agreeing.filter((c) => c.palmMuted).length * 2 > agreeing.length;
  // How sure the passes are of it together: those that say otherwise are not sure of it at all.
  const confidence = agreeing.reduce((sum, c) => sum + c.confidence, 0) / candidates.length;
  return { ...surest, palmMuted, confidence };
}

/** Passes in which nothing was heard have no vote. In order of time. */
export function agreeOnStrokes(passes: readonly (readonly PlacedStroke[])[]): PlacedStroke[] {
  const voters = passes.filter((p) => p.length > 0);
  const byPlace = new Map<Ticks, PlacedStroke[]>();
  for (const placed of voters.flat())
    byPlace.set(placed.ticks, [...(byPlace.get(placed.ticks) ?? []), placed]);
  return [...byPlace.values()]
    .filter((candidates) => candidates.length * 2 > voters.length)
    .map(elect)
    .sort((a, b) => a.ticks - b.ticks);
}
