/**
 * A riff that was heard once more, with other ears or another focus: where the recording contradicts the tab now and did not
 * before, each a suggestion to take or to leave. What was checked by ear is never suggested otherwise.
 */
import { writtenVoicings, type Tuning } from '../guitar';
import type { AnalysedStrum } from '../analysis';
import {
  addStrums,
  passesOf,
  removeStrums,
  rewriteStrums,
  riffOfPass,
  SIXTEENTH,
  variationOf,
  type Pass,
  type Riff,
  type SongDocument,
  type Strum,
} from '../riff';
import { comparePass, type Difference } from './compare';
import { placeStrokes, strokesOfPass, strumsOfPass, type HeardStroke } from './place';
import { writeStrums } from './write';

/** A pass as it was heard before and as it is heard now; `riff` as this pass plays it. */
interface PassHeardAgain {
  readonly riff: Riff;
  readonly before: readonly HeardStroke[];
  readonly now: readonly HeardStroke[];
}

export interface Suggestion extends Pick<Difference, 'kind' | 'ticks' | 'strumId'> {
  readonly riffId: string;
  /** What is heard there now; null for nothing. */
  readonly stroke: HeardStroke | null;
  /** In how many of the passes that were heard again. */
  readonly passes: number;
  readonly of: number;
}

/** Differences are one where the same is heard at the same place. */
function keyOf({ kind, ticks, strumId, heard }: Difference, strokes: readonly HeardStroke[]): string {
  const stroke = heard === null ? null : strokes[heard];
  const sound = kind === 'mute' ? stroke?.palmMuted : stroke && [stroke.dead, ...stroke.midi].join();
  return [kind, strumId ?? Math.round(ticks / SIXTEENTH), sound].join('/');
}

/** Of each difference the first, and in how many passes it is. */
function countDifferences(
  passes: readonly { readonly riff: Riff; readonly strokes: readonly HeardStroke[] }[],
  tuning: Tuning,
): Map<string, { readonly suggestion: Suggestion; count: number }> {
  const counts = new Map<string, { readonly suggestion: Suggestion; count: number }>();
  for (const { riff, strokes } of passes) {
    const seen = new Set<string>();
    for (const difference of comparePass(riff, strokes, tuning).differences) {
      const key = keyOf(difference, strokes);
      if (seen.has(key)) continue;
      seen.add(key);
      const { kind, ticks, strumId, heard } = difference;
      const stroke = heard === null ? null : strokes[heard];
      const suggestion = { riffId: riff.id, kind, ticks, strumId, stroke, passes: 0, of: passes.length };
      const known = counts.get(key);
      if (known) known.count++;
      else counts.set(key, { suggestion, count: 1 });
    }
  }
  return counts;
}

/** Of passes that play the same, all heard again: what more than half of them have otherwise than it is written, and had not. */
function suggestionsOf(passes: readonly PassHeardAgain[], tuning: Tuning): Suggestion[] {
  const strokesOf = (which: 'before' | 'now') => passes.map((p) => ({ riff: p.riff, strokes: p[which] }));
  const before = countDifferences(strokesOf('before'), tuning);
  const isUsual = (count = 0): boolean => 2 * count > passes.length;
  return [...countDifferences(strokesOf('now'), tuning)]
    .filter(([key, { count }]) => isUsual(count) && !isUsual(before.get(key)?.count))
    .map(([, { suggestion, count }]) => ({ ...suggestion, passes: count }));
}

/** Of a pass or of what was heard again, whichever is shorter: more of it than this was heard again, or the pass has no say. */
const LEAST_SHARE = 0.25;

/**
 * What hearing a span of the recording again suggests for the riffs that are played in it, riff by riff and in order of their
 * places. `before` and `now`: everything that was heard, in order of time. Strums that were checked by ear are left out.
 */
export function suggestionsFor(
  document: SongDocument,
  before: readonly AnalysedStrum[],
  now: readonly AnalysedStrum[],
  { startS, endS }: { readonly startS: number; readonly endS: number },
): Suggestion[] {
  const { grid, riffs, sections, tuning } = document;
  const isIn = (pass: Pass): boolean => {
    const shared = Math.min(endS, pass.endS) - Math.max(startS, pass.startS);
    return shared > LEAST_SHARE * Math.min(endS - startS, pass.endS - pass.startS);
  };
  return riffs.flatMap((riff) => {
    // A pass that plays a variation has a say in that, and none in what it stands for.
    const groups = new Map<string | null, PassHeardAgain[]>();
    for (const section of sections.filter((s) => s.riffId === riff.id)) {
      for (const pass of passesOf(section, riff, grid).filter(isIn)) {
        const heardIn = (strums: readonly AnalysedStrum[]): HeardStroke[] =>
          strokesOfPass(pass, grid, strumsOfPass(pass, strums));
        const id = variationOf(riff, section, pass.index)?.id ?? null;
        const group = groups.get(id) ?? [];
        groups.set(id, [
          ...group,
          { riff: riffOfPass(riff, section, pass), before: heardIn(before), now: heardIn(now) },
        ]);
      }
    }
    const found = [...groups.values()].flatMap((passes) => suggestionsOf(passes, tuning));
    return found.filter((suggestion) => canTake(document, suggestion)).sort((a, b) => a.ticks - b.ticks);
  });
}

/** Is there still something to write? */
export function canTake(document: SongDocument, suggestion: Suggestion): boolean {
  return takeSuggestion(document, suggestion, () => 'new') !== document;
}

/** A suggestion written into its riff; the same document where nothing is left to write, or the strum was checked by ear. */
export function takeSuggestion(
  document: SongDocument,
  { riffId, kind, ticks, strumId, stroke }: Suggestion,
  newId: () => string,
): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  if (!riff) return document;
  const { tuning } = document;
  const lists = [riff.strums, ...riff.variations.map((v) => v.strums)];
  const strum = lists.flat().find((s) => s.id === strumId);
  if (strumId !== null && (!strum || strum.trust === 'checked')) return document;
  if (kind === 'missing') return removeStrums(document, riffId, new Set([strumId!]));
  if (kind === 'early-end') {
    const list = lists.find((strums) => strums.some((s) => s.id === strumId)) ?? [];
    const gone = list.filter((s) => s.startTicks >= ticks && s.trust !== 'checked');
    return removeStrums(document, riffId, new Set(gone.map((s) => s.id)));
  }
  if (!stroke) return document;
  if (kind === 'extra') {
    const isFree = (s: Strum): boolean => Math.abs(s.startTicks - ticks) >= SIXTEENTH;
    const added = writeStrums(placeStrokes(riff, [stroke]), tuning, newId);
    return riff.strums.every(isFree) ? addStrums(document, riffId, added) : document;
  }
  return rewriteStrums(document, riffId, new Map([[strumId!, asHeard(stroke, kind, tuning)]]));
}

/** What a stroke makes of a strum that stands at its place. */
export function asHeard(
  { midi, dead, palmMuted }: HeardStroke,
  kind: 'chord' | 'mute',
  tuning: Tuning,
): Partial<Strum> {
  if (kind === 'mute') return { palmMute: palmMuted };
  const frets = dead ? undefined : writtenVoicings(midi, tuning)[0]?.frets;
  return { ...(frets && { frets }), dead, rest: false, palmMute: palmMuted && !dead };
}
