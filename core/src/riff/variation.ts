/**
 * Passes that differ from the riff. A variation takes the place of a part of the riff; each section says which of its passes
 * play which. What most passes do stays the riff.
 */
import type { PassAnswer, Riff, Section, SongDocument, Strum, Variation } from './document';
import { listInWords } from '../units';
import { riffTicks } from './grid';
import { COUNT_LIMITS, fitText, TEXT_LIMITS } from './limits';
import type { Pass } from './passes';

/** The riff as it is played with a variation; the riff itself for null. */
export function withVariation(riff: Riff, variation: Variation | null): Riff {
  if (!variation) return riff;
  const outside = (s: Strum): boolean =>
    s.startTicks < variation.fromTicks || s.startTicks >= variation.toTicks;
  const put = (strums: readonly Strum[], instead: readonly Strum[]): Strum[] =>
    [...strums.filter(outside), ...instead].sort((a, b) => a.startTicks - b.startTicks);
  return {
    ...riff,
    strums: put(riff.strums, variation.strums),
    guitar2: put(riff.guitar2, variation.guitar2),
  };
}

/** What was decided about a pass; null while it is open. */
export function answerOf(section: Section, pass: number): PassAnswer | null {
  return section.answers.find((a) => a.pass === pass) ?? null;
}

export function variationOf(riff: Riff, section: Section, pass: number): Variation | null {
  const id = answerOf(section, pass)?.variationId;
  return riff.variations.find((v) => v.id === id) ?? null;
}

/** What is played in one pass of a section: its variation, and of a pass that is cut the part that is left. */
export function riffOfPass(
  riff: Riff,
  section: Section,
  { index, fromTicks, toTicks }: Pick<Pass, 'index' | 'fromTicks' | 'toTicks'>,
): Riff {
  const played = withVariation(riff, variationOf(riff, section, index));
  if (fromTicks === 0 && toTicks === riffTicks(riff)) return played;
  const left = (strums: readonly Strum[]): Strum[] =>
    strums
      .filter((s) => s.startTicks >= fromTicks && s.startTicks < toTicks)
      .map((s) => ({ ...s, durationTicks: Math.min(s.durationTicks, toTicks - s.startTicks) }));
  return { ...played, strums: left(played.strums), guitar2: left(played.guitar2) };
}

/** A variation that reaches the end of the riff is an ending. */
export function isEnding(riff: Riff, variation: Variation): boolean {
  return variation.toTicks >= riffTicks(riff);
}

/** 'passes 2 and 4 of Verse 1': where a variation is played; '' when it is not. */
export function whereVaried({ sections }: SongDocument, riff: Riff, variation: Variation): string {
  return sections
    .filter((s) => s.riffId === riff.id)
    .flatMap((s) => {
      const passes = s.answers.filter((a) => a.variationId === variation.id).map((a) => a.pass + 1);
      if (passes.length === 0) return [];
      passes.sort((a, b) => a - b);
      return [`${passes.length === 1 ? 'pass' : 'passes'} ${listInWords(passes)} of ${s.name}`];
    })
    .join(', ');
}

function answer(document: SongDocument, sectionId: string, given: PassAnswer): SongDocument {
  return {
    ...document,
    sections: document.sections.map((s) =>
      s.id === sectionId
        ? {
            ...s,
            answers: [...s.answers.filter((a) => a.pass !== given.pass), given].sort(
              (a, b) => a.pass - b.pass,
            ),
          }
        : s,
    ),
  };
}

/** The pass is the riff as it is written, whatever was heard. */
export function sameRiff(document: SongDocument, sectionId: string, pass: number): SongDocument {
  return answer(document, sectionId, { pass, variationId: null });
}

/** Takes back what was decided about a pass. A variation that nothing plays any more stays with the riff. */
export function reopenPass(document: SongDocument, sectionId: string, pass: number): SongDocument {
  return {
    ...document,
    sections: document.sections.map((s) =>
      s.id === sectionId ? { ...s, answers: s.answers.filter((a) => a.pass !== pass) } : s,
    ),
  };
}

function isSameStrum(a: Strum, b: Strum): boolean {
  return (
    a.startTicks === b.startTicks &&
    a.palmMute === b.palmMute &&
    a.dead === b.dead &&
    a.rest === b.rest &&
    a.frets.length === b.frets.length &&
    a.frets.every((f) => b.frets.some((g) => g.string === f.string && g.fret === f.fret))
  );
}

function isSameVariation(a: Variation, b: Variation): boolean {
  const same = (x: readonly Strum[], y: readonly Strum[]): boolean =>
    x.length === y.length && x.every((s, i) => isSameStrum(s, y[i]));
  return (
    a.fromTicks === b.fromTicks &&
    a.toTicks === b.toTicks &&
    same(a.strums, b.strums) &&
    same(a.guitar2, b.guitar2)
  );
}

/**
 * Keeps what a pass plays as a variation of its riff; one that the riff has already is used again, under its name. Nothing
 * happens when the section or its riff is not there.
 */
export function keepVariation(
  document: SongDocument,
  sectionId: string,
  pass: number,
  variation: Variation,
): SongDocument {
  const section = document.sections.find((s) => s.id === sectionId);
  const riff = document.riffs.find((r) => r.id === section?.riffId);
  if (!section || !riff) return document;
  const known = riff.variations.find((v) => isSameVariation(v, variation));
  if (!known && riff.variations.length >= COUNT_LIMITS.variations) return document;
  const kept = known ?? { ...variation, name: fitText(variation.name, TEXT_LIMITS.name) };
  const riffs = known
    ? document.riffs
    : document.riffs.map((r) => (r === riff ? { ...r, variations: [...r.variations, kept] } : r));
  return answer({ ...document, riffs }, sectionId, { pass, variationId: kept.id });
}

/** The pass plays a variation that the riff has. */
export function useVariation(
  document: SongDocument,
  sectionId: string,
  pass: number,
  variationId: string,
): SongDocument {
  return answer(document, sectionId, { pass, variationId });
}

/** The bars [fromTicks, toTicks) of a riff once more as a variation, to be changed. Nothing happens outside of the riff. */
export function addVariation(
  document: SongDocument,
  riffId: string,
  { id, name, fromTicks, toTicks }: Pick<Variation, 'id' | 'name' | 'fromTicks' | 'toTicks'>,
  newId: () => string,
): SongDocument {
  const fitting = fitText(name, TEXT_LIMITS.name);
  return {
    ...document,
    riffs: document.riffs.map((riff) => {
      const isInside = fromTicks >= 0 && fromTicks < toTicks && toTicks <= riffTicks(riff);
      const isKnown = riff.variations.some((v) => v.id === id);
      if (riff.id !== riffId || !isInside || isKnown || fitting === '') return riff;
      if (riff.variations.length >= COUNT_LIMITS.variations) return riff;
      const copies = (strums: readonly Strum[]): Strum[] =>
        strums
          .filter((s) => s.startTicks >= fromTicks && s.startTicks < toTicks)
          .map((s) => ({ ...s, id: newId() }));
      const strums = copies(riff.strums);
      const variation = { id, name: fitting, fromTicks, toTicks, strums, guitar2: copies(riff.guitar2) };
      return { ...riff, variations: [...riff.variations, variation] };
    }),
  };
}

/** Two variations of a riff are one: whatever plays the first plays the second. */
export function mergeVariations(
  document: SongDocument,
  riffId: string,
  fromId: string,
  intoId: string,
): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  const isThere = (id: string): boolean => riff?.variations.some((v) => v.id === id) ?? false;
  if (fromId === intoId || !isThere(fromId) || !isThere(intoId)) return document;
  const sections = document.sections.map((s) =>
    s.answers.some((a) => a.variationId === fromId)
      ? {
          ...s,
          answers: s.answers.map((a) => (a.variationId === fromId ? { ...a, variationId: intoId } : a)),
        }
      : s,
  );
  return removeVariation({ ...document, sections }, riffId, fromId);
}

export function renameVariation(
  document: SongDocument,
  riffId: string,
  variationId: string,
  name: string,
): SongDocument {
  const fitting = fitText(name, TEXT_LIMITS.name);
  if (fitting === '') return document;
  return {
    ...document,
    riffs: document.riffs.map((r) =>
      r.id === riffId
        ? { ...r, variations: r.variations.map((v) => (v.id === variationId ? { ...v, name: fitting } : v)) }
        : r,
    ),
  };
}

/** Forgets a variation; the passes that played it are open again. */
export function removeVariation(document: SongDocument, riffId: string, variationId: string): SongDocument {
  return {
    ...document,
    riffs: document.riffs.map((r) =>
      r.id === riffId ? { ...r, variations: r.variations.filter((v) => v.id !== variationId) } : r,
    ),
    sections: document.sections.map((s) =>
      s.answers.some((a) => a.variationId === variationId)
        ? { ...s, answers: s.answers.filter((a) => a.variationId !== variationId) }
        : s,
    ),
  };
}
