/** What the shelf shows of a document, and what it is found by. */
import { tuningLabel } from '@wild-needle/core/guitar';
import { practiceItems } from '@wild-needle/core/practice';
import { checkedCount, overallTempo, progressOf, type SongDocument } from '@wild-needle/core/riff';
import type { DocumentSummary } from './songs.store';

/** Changes with the shape or the rules of a summary: stored ones of another version are made anew at the start. */
export const SUMMARY_VERSION = 2;

export function summarise(document: SongDocument): DocumentSummary {
  const { checked, written } = checkedCount(document);
  const { bars, ...progress } = progressOf(document);
  return {
    version: SUMMARY_VERSION,
    // An empty document has no tuning yet, whatever stands there as a start.
    tuningLabel: written > 0 ? tuningLabel(document.tuning) : '',
    tempoBpm: overallTempo(document.grid),
    checkedStrums: checked,
    strums: written,
    riffs: document.riffs.length,
    bars: [...bars],
    progress,
    items: practiceItems(document)
      .filter(({ kind }) => kind === 'riff')
      .map(({ id, name, letter, bpm }) => ({ id, name: name || `Riff ${letter}`, bpm })),
  };
}
