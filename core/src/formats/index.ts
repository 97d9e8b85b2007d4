/** The formats that a song goes out and comes in by; a new one is a folder and a row of {@link FORMATS}. */
import { atSteadyTempo } from '../riff';
import type { Format } from './format';
import { LABEL_TRACK } from './label-track/label-track';
import { SECTION_MARKDOWN } from './section-markdown/section-markdown';
import { SONG_FILE } from './song-file/song-file';
import { TEXT_TAB } from './text-tab/write';

export type { Format, Written } from './format';
export { bringIn, kindOf, KINDS, MOST_FILE_BYTES } from './bring-in';
export type { Kind } from './bring-in';
export type { Brought, Remark, Track } from './brought';
export { decodeText } from './decode-text';
export { putBeside, putInPlace } from './take-over';

/** Large, and loaded when it is asked for. */
const MUSICXML: Format = {
  id: 'musicxml',
  label: 'MusicXML',
  ending: 'musicxml',
  mime: 'application/vnd.recordare.musicxml+xml',
  holds: 'tab',
  write: async (document) => (await import('./musicxml/write')).writeMusicXml(document),
};
const MIDI_FILE: Format = {
  id: 'midi',
  label: 'MIDI',
  ending: 'mid',
  mime: 'audio/midi',
  holds: 'tab',
  write: async (document) => (await import('./midi/write')).writeMidiFile(document),
};
const JAMS: Format = {
  id: 'jams',
  label: 'JAMS',
  ending: 'jams',
  mime: 'application/json',
  holds: 'tab',
  write: async (document) => (await import('./jams/write')).writeJams(document),
};

const SECTION_CSV: Format = {
  id: 'section-csv',
  label: 'Table (CSV)',
  ending: 'csv',
  mime: 'text/csv',
  holds: 'sections',
  write: async (document) => (await import('./section-csv/section-csv')).writeSectionCsv(document),
};
const MIDI_STEADY: Format = {
  ...MIDI_FILE,
  id: 'midi-steady',
  label: 'MIDI, steady',
  write: async (document) => (await import('./midi/write')).writeMidiFile(atSteadyTempo(document)),
};

/** In the order of the menus. */
export const FORMATS: readonly Format[] = [
  TEXT_TAB,
  MUSICXML,
  MIDI_FILE,
  SONG_FILE,
  JAMS,
  SECTION_CSV,
  LABEL_TRACK,
  SECTION_MARKDOWN,
  MIDI_STEADY,
];
