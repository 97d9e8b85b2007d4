/** The chord shapes that a song uses, as boxes of strings and frets: each shape once, in the order that they come. */
import { fingersOf, quietStrings, type Finger, type StringFret } from '../guitar';
import { strumNotes, swapGuitars, type SongDocument } from '../riff';
import { nameNotes, type Key } from '../theory';

export interface ChordBox {
  readonly name: string;
  /** The first fret that the box shows; 1 with the nut over it. */
  readonly fromFret: number;
  /** Frets that it shows. */
  readonly frets: number;
  readonly dots: readonly (StringFret & { readonly finger: Finger | null })[];
  /** Strings that ring open, and strings that are kept quiet. */
  readonly open: readonly number[];
  readonly quiet: readonly number[];
  readonly strings: number;
}

/** A box shows so many frets at least. */
const LEAST_FRETS = 4;
/** Up to this fret the nut is in the box. */
const AT_NUT = 4;

function boxOf(name: string, frets: readonly StringFret[], document: SongDocument): ChordBox {
  const pressed = frets.filter((f) => f.fret > 0);
  const highest = Math.max(0, ...pressed.map((f) => f.fret));
  const lowest = Math.min(...pressed.map((f) => f.fret), highest);
  const fromFret = highest <= AT_NUT ? 1 : lowest;
  const fingers = new Map(fingersOf(frets)?.map((f) => [f.string, f.finger]));
  return {
    name,
    fromFret,
    frets: Math.max(LEAST_FRETS, highest - fromFret + 1),
    dots: pressed.map((f) => ({ ...f, finger: fingers.get(f.string) ?? null })),
    open: frets.filter((f) => f.fret === 0).map((f) => f.string),
    quiet: quietStrings(frets, document.tuning).map((q) => q.string),
    strings: document.tuning.stringsMidi.length,
  };
}

/** Of both guitars, the first one's first; a shape of two tunings is two. Single notes and dead strokes are no chords. */
export function chordBoxes(document: SongDocument, key: Key | null): ChordBox[] {
  const boxes = new Map<string, ChordBox>();
  addBoxes(boxes, document, key);
  if (document.guitar2) addBoxes(boxes, swapGuitars(document), key);
  return [...boxes.values()];
}

function addBoxes(boxes: Map<string, ChordBox>, document: SongDocument, key: Key | null): void {
  const { stringsMidi, capo } = document.tuning;
  for (const riff of document.riffs) {
    for (const strum of [...riff.strums, ...riff.variations.flatMap((v) => v.strums)]) {
      if (strum.dead || strum.rest || strum.frets.length < 2) continue;
      const places = strum.frets.map((f) => `${f.string}/${f.fret}`).sort();
      const id = [...stringsMidi, capo, ...places].join();
      if (boxes.has(id)) continue;
      boxes.set(id, boxOf(nameNotes(strumNotes(strum, document.tuning), key).symbol, strum.frets, document));
    }
  }
}
