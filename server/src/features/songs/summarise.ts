/** What the shelf shows of a document. */
import { tuningLabel } from '@wild-needle/core/guitar';
import type { SongDocument } from '@wild-needle/core/riff';
import type { DocumentSummary } from './songs.store';

/** Tempo over the whole song: quarter notes between the first and last beat. */
function overallTempo({ grid }: SongDocument): number | null {
  const { beatsS } = grid;
  if (beatsS.length < 2) return null;
  return (60 * (beatsS.length - 1)) / (beatsS[beatsS.length - 1] - beatsS[0]);
}

export function summarise(document: SongDocument): DocumentSummary {
  const strums = document.riffs.flatMap((r) => [...r.strums, ...r.second]);
  return {
    // An empty document has no tuning yet, whatever stands there as a start.
    tuningLabel: strums.length > 0 ? tuningLabel(document.tuning) : '',
    tempoBpm: overallTempo(document),
    checkedStrums: strums.filter((s) => s.trust === 'checked').length,
    strums: strums.length,
    riffs: document.riffs.length,
  };
}
