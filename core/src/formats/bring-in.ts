/**
 * What kind of file it is, by what stands in it and not by its name; readers are loaded when they are needed. The song file is checked
 * by the contract, and only told apart here.
 */
import type { Brought, ReadOptions } from './brought';
import { decodeText } from './decode-text';

export const KINDS = ['text-tab', 'musicxml', 'midi', 'label-track', 'song-file'] as const;
export type Kind = (typeof KINDS)[number];

/** Larger, it is no tab: the longest scores, unpacked, are a tenth of it. */
export const MOST_FILE_BYTES = 12_000_000;

const startsWith = (bytes: Uint8Array, text: string): boolean =>
  Array.from({ length: text.length }, (_, i) => text.charCodeAt(i)).every((code, i) => bytes[i] === code);

/** Bytes that no text has: the first ones are looked at. */
function isBinary(bytes: Uint8Array): boolean {
  const isUtf16 = (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff);
  return !isUtf16 && bytes.subarray(0, 4096).includes(0);
}

/** Throws a RangeError that says what would work. */
export function kindOf(bytes: Uint8Array): Kind {
  if (bytes.length === 0) throw new RangeError('the file is empty');
  if (bytes.length > MOST_FILE_BYTES) {
    throw new RangeError(`it is larger than ${MOST_FILE_BYTES / 1e6} MB, and so no tab`);
  }
  if (startsWith(bytes, 'MThd')) return 'midi';
  if (startsWith(bytes, 'PK')) return 'musicxml';
  if (isBinary(bytes)) {
    throw new RangeError(
      'it is neither a text nor a MIDI file: a text tab, MusicXML, MIDI, a song file or a label track can be brought in',
    );
  }
  const text = decodeText(bytes).trimStart();
  if (text.startsWith('<')) return 'musicxml';
  if (text.startsWith('{')) return 'song-file';
  if (/^-?[\d.]+\t-?[\d.]+(\t|\r?\n|$)/.test(text)) return 'label-track';
  return 'text-tab';
}

/** Tab or music as a song of its own. Throws a RangeError that says what can't be read, and where. */
export async function bringIn(
  kind: Exclude<Kind, 'label-track' | 'song-file'>,
  bytes: Uint8Array,
  options: ReadOptions,
): Promise<Brought> {
  switch (kind) {
    case 'midi':
      return (await import('./midi/read')).readMidiFile(bytes, options);
    case 'musicxml':
      return (await import('./musicxml/read')).readMusicXml(bytes, options);
    case 'text-tab':
      return (await import('./text-tab/read')).readTextTab(decodeText(bytes), options);
  }
}
