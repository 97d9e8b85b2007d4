/** The first document of a song, from what was heard. */
import { draftDocument } from '@wild-needle/core/draft';
import { type Analysis } from '@wild-needle/core/analysis';
import type { SongDocument } from '@wild-needle/core/riff';

export function writeDraft(
  analysis: Analysis,
  song: { readonly title: string; readonly artist: string },
  recordingId: string,
): SongDocument {
  return draftDocument(analysis, { title: song.title, artist: song.artist, recordingId });
}
