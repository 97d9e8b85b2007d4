/** What the shelf shows of a document. */
import { tuningLabel } from '@wild-needle/core/guitar';
import { checkedCount, overallTempo, type SongDocument } from '@wild-needle/core/riff';
import type { DocumentSummary } from './songs.store';

export function summarise(document: SongDocument): DocumentSummary {
  const { checked, written } = checkedCount(document);
  return {
    // An empty document has no tuning yet, whatever stands there as a start.
    tuningLabel: written > 0 ? tuningLabel(document.tuning) : '',
    tempoBpm: overallTempo(document.grid),
    checkedStrums: checked,
    strums: written,
    riffs: document.riffs.length,
  };
}
