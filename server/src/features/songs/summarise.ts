/** What the shelf shows of a document. */
import { tuningLabel } from '@wild-needle/core/guitar';
import { overallTempo, type SongDocument } from '@wild-needle/core/riff';
import type { DocumentSummary } from './songs.store';

export function summarise(document: SongDocument): DocumentSummary {
  const strums = document.riffs.flatMap((r) => [...r.strums, ...r.guitar2]);
  return {
    // An empty document has no tuning yet, whatever stands there as a start.
    tuningLabel: strums.length > 0 ? tuningLabel(document.tuning) : '',
    tempoBpm: overallTempo(document.grid),
    checkedStrums: strums.filter((s) => s.trust === 'checked').length,
    strums: strums.length,
    riffs: document.riffs.length,
  };
}
