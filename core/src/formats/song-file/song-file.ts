/** The song as it is stored: everything, in its own shape. What reads it checks it, see `upgradeDocument` of the contract. */
import type { SongDocument } from '../../riff';
import type { Format } from '../format';

export const SONG_FILE: Format = {
  id: 'song-file',
  label: 'Song file',
  ending: 'json',
  mime: 'application/json',
  holds: 'tab',
  write: (document: SongDocument) => `${JSON.stringify(document, null, 1)}\n`,
};
