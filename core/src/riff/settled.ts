/**
 * What the ear has settled: of one place in one pass, that what is written there stands, or that it stays doubtful. An answer holds
 * for what was written when it was given: written otherwise, the place is open again.
 */
import type { Tuning } from '../guitar';
import type { Section, SettledStrum, SongDocument, Strum } from './document';
import { COUNT_LIMITS } from './limits';
import { strumNotes } from './strum';

/** A place in a pass, and what is written there. */
export interface PlaceInPass extends Pick<SettledStrum, 'pass' | 'ticks' | 'written'> {
  readonly sectionId: string;
}

/** Nothing is written there. */
export const NOTHING_WRITTEN = '';

/**
 * What is written, as far as the recording can tell: the notes that sound and how they are struck. On other strings the same notes are
 * the same.
 */
export function signatureOf(strum: Strum, tuning: Tuning): string {
  const stroke = strum.dead ? 'dead' : strum.palmMute ? 'muted' : 'open';
  return [stroke, ...strumNotes(strum, tuning)].join(' ');
}

/** The answer of guitar 1 about a place; null while it is open. */
export function settledAt(
  section: Section,
  { pass, ticks, written }: Omit<PlaceInPass, 'sectionId'>,
): SettledStrum | null {
  return (
    section.settled.find(
      (s) => s.guitar === 1 && s.pass === pass && s.ticks === ticks && s.written === written,
    ) ?? null
  );
}

/** Settles places of guitar 1; older answers about the same places give way, and beyond the limit the oldest. */
export function settle(
  document: SongDocument,
  places: readonly PlaceInPass[],
  answer: SettledStrum['answer'],
): SongDocument {
  const sections = document.sections.map((section) => {
    const here = places.filter((p) => p.sectionId === section.id);
    const isNew = here.some((p) => settledAt(section, p)?.answer !== answer);
    if (!isNew) return section;
    const isAnswered = (s: SettledStrum): boolean =>
      s.guitar === 1 && here.some((p) => p.pass === s.pass && p.ticks === s.ticks);
    const added = here.map(({ pass, ticks, written }): SettledStrum => ({
      pass,
      guitar: 1,
      ticks,
      written,
      answer,
    }));
    const settled = [...section.settled.filter((s) => !isAnswered(s)), ...added];
    return { ...section, settled: settled.slice(-COUNT_LIMITS.settled) };
  });
  return sections.some((s, i) => s !== document.sections[i]) ? { ...document, sections } : document;
}
