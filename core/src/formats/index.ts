/** The formats that a song goes out and comes in by; a new one is a folder and a row of {@link FORMATS}. */
import type { Format } from './format';
import { LABEL_TRACK } from './label-track/label-track';
import { MIDI_FILE } from './midi/write';
import { SECTION_CSV } from './section-csv/section-csv';
import { SECTION_MARKDOWN } from './section-markdown/section-markdown';
import { SONG_FILE } from './song-file/song-file';
import { TEXT_TAB } from './text-tab/write';

export type { Format } from './format';

/** In the order of the menus. */
export const FORMATS: readonly Format[] = [
  TEXT_TAB,
  MIDI_FILE,
  SONG_FILE,
  LABEL_TRACK,
  SECTION_CSV,
  SECTION_MARKDOWN,
];
