/** What a format of a song is: a row that menus, the HTTP API and the command line list and use. */
import type { SongDocument } from '../riff';

export type Written = string | Uint8Array;

export interface Format {
  /** In addresses and on the command line. */
  readonly id: string;
  /** In menus. */
  readonly label: string;
  /** Of files, without the dot. */
  readonly ending: string;
  readonly mime: string;
  /** What of the song it holds: the menu of that screen offers it. */
  readonly holds: 'tab' | 'sections';
  /** A text, or the bytes of a format that is none; what is large is loaded when it is asked for. */
  readonly write: (document: SongDocument) => Written | Promise<Written>;
  /** The document with what the text says. Throws a RangeError that says what can't be read and where. */
  readonly read?: (document: SongDocument, text: string) => SongDocument;
}
