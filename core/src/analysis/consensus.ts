/**
 * One riff out of its passes: a strum is written where most passes have one, with the chord that most of them, weighed
 * by confidence, were heard to play there. A mishearing in one pass is outvoted by the others.
 */
import type { Ticks } from '../units';
import type { AnalysedStrum } from './analyse';

/** A heard strum on the grid of its pass. */
export interface PlacedStrum {
  readonly ticks: Ticks;
  readonly endTicks: Ticks;
  readonly strum: AnalysedStrum;
}

/** Sounding notes as a name for voting; a dead stroke votes for silence. */
function chordKey({ strum }: PlacedStrum): string {
  return strum.dead ? 'dead' : strum.midi.join();
}

function elect(candidates: readonly PlacedStrum[]): PlacedStrum {
  const votes = new Map<string, number>();
  for (const c of candidates) votes.set(chordKey(c), (votes.get(chordKey(c)) ?? 0) + c.strum.confidence);
  const winner = [...votes].reduce((best, next) => (next[1] > best[1] ? next : best))[0];
  // Of those that say the same, the surest lends its length and voicing.
  const agreeing = candidates.filter((c) => chordKey(c) === winner);
  const surest = agreeing.reduce((best, next) =>
    next.strum.confidence > best.strum.confidence ? next : best,
  );
  const muted = agreeing.filter((c) => c.strum.palmMuted).length * 2 > agreeing.length;
  return { ...surest, strum: { ...surest.strum, palmMuted: muted } };
}

/** Passes in which nothing was heard have no vote. In order of time. */
export function agreeOnStrums(passes: readonly (readonly PlacedStrum[])[]): PlacedStrum[] {
  const voters = passes.filter((p) => p.length > 0);
  const byPlace = new Map<Ticks, PlacedStrum[]>();
  for (const placed of voters.flat())
    byPlace.set(placed.ticks, [...(byPlace.get(placed.ticks) ?? []), placed]);
  return [...byPlace.values()]
    .filter((candidates) => candidates.length * 2 > voters.length)
    .map(elect)
    .sort((a, b) => a.ticks - b.ticks);
}
