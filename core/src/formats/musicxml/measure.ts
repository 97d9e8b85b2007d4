/** One measure of one guitar: the same strums on a staff of notes and on one of tablature, names of chords and palm mutes above. */
import { soundingNote, type StringFret, type Tuning } from '../../guitar';
import { isBlank, strumNotes, type Strum } from '../../riff';
import { CHORD_KINDS, identifyChord, nameNotes, type ChordQuality, type Key } from '../../theory';
import type { MidiNote } from '../../units';
import type { Measure, Stretch } from './blocks';
import { handMarks, letRing, OWN_WORDS, soundMarks } from './marks';
import { noteValues, tripletBeats, writable, type NoteValue } from './note-values';
import { pitchElement, spelled } from './pitch';
import { element, type Element } from './xml';

export interface Player {
  readonly tuning: Tuning;
  readonly key: Key | null;
}

/** Carried from measure to measure. */
export interface MeasureState {
  lastName: string;
  isMuted: boolean;
}

export const NOTE_STAFF = 1;
export const TAB_STAFF = 2;
/** Voices count through the staves (common practice of exchange). */
const VOICES = { [NOTE_STAFF]: 1, [TAB_STAFF]: 5 } as const;
type Staff = keyof typeof VOICES;

/** Kinds of the chord symbols of MusicXML (data type kind-value); a flat fifth alters the power chord. */
const KINDS: Readonly<Partial<Record<ChordQuality, string>>> = {
  '5': 'power',
  b5: 'power',
  sus2: 'suspended-second',
  sus4: 'suspended-fourth',
  maj: 'major',
  min: 'minor',
  other: 'other',
};

/** A note value with its exact length: what no value fits is given to the last one. */
interface Piece {
  readonly value: NoteValue;
  readonly ticks: number;
  readonly isFirst: boolean;
  readonly isLast: boolean;
}

interface Sounding {
  readonly midi: MidiNote;
  readonly place: StringFret;
}

/** Strings that a dead stroke over all of them is drawn on: more heads would not be read. */
const DEAD_STRINGS = 3;

/** Highest string last, as chords are built up. */
function soundingOf(strum: Strum, tuning: Tuning): Sounding[] {
  const thickest = tuning.stringsMidi
    .slice(0, DEAD_STRINGS)
    .map((_, i) => ({ string: tuning.stringsMidi.length - i, fret: 0 }));
  const frets = strum.dead && strum.frets.length === 0 ? thickest : strum.frets;
  return [...frets]
    .filter(({ string }) => string <= tuning.stringsMidi.length)
    .sort((a, b) => b.string - a.string)
    .map((place) => {
      const [natural] = strumNotes({ ...strum, dead: false, frets: [place] }, tuning);
      return { midi: natural ?? soundingNote(tuning, place), place };
    });
}

function piecesOf({ from, to }: Stretch, triplets: ReadonlySet<number>): Piece[] {
  const values = noteValues(writable(from), Math.max(writable(from) + 40, writable(to)), triplets);
  let left = to - from;
  return values.map((value, i) => {
    const isLast = i === values.length - 1;
    const ticks = isLast ? left : Math.min(value.ticks, left);
    left -= ticks;
    return { value, ticks, isFirst: i === 0, isLast };
  });
}

function lengthElements({ value }: Piece): { readonly before: Element[]; readonly triplet: Element[] } {
  return {
    before: [element('type', {}, value.type), ...(value.isDotted ? [element('dot')] : [])],
    triplet: value.isTriplet
      ? [element('time-modification', {}, element('actual-notes', {}, 3), element('normal-notes', {}, 2))]
      : [],
  };
}

/** Slides, hammer-ons and pull-offs between two strums, on the strings that both play; the number is that of the string. */
function joinsOf(
  { strum, before, after }: Stretch,
  place: StringFret,
  piece: Piece,
): {
  readonly technical: Element[];
  readonly others: Element[];
} {
  const technical: Element[] = [];
  const others: Element[] = [];
  const join = (type: 'start' | 'stop', from: StringFret, to: StringFret, how: Strum): void => {
    const attributes = { number: place.string, type };
    if (how.marks.join === 'slide') others.push(element('slide', { ...attributes, 'line-type': 'solid' }));
    if (how.marks.join === 'hammer') {
      const isUp = to.fret >= from.fret;
      technical.push(
        element(isUp ? 'hammer-on' : 'pull-off', attributes, type === 'start' ? (isUp ? 'H' : 'P') : null),
      );
    }
  };
  const on = (other: Strum | null): StringFret | undefined =>
    other?.frets.find((f) => f.string === place.string);
  if (piece.isFirst && strum && strum.marks.join !== null) join('stop', on(before) ?? place, place, strum);
  if (piece.isLast && after && on(after)) join('start', place, on(after)!, after);
  return { technical, others };
}

function notesOf(
  stretch: Stretch,
  pieces: readonly Piece[],
  staff: Staff,
  { tuning, key }: Player,
): Element[] {
  const { strum, isFirst, isLast, before, after } = stretch;
  const sounding = strum && !strum.rest ? soundingOf(strum, tuning) : [];
  return pieces.flatMap((piece): Element[] => {
    const { before: type, triplet } = lengthElements(piece);
    const duration = element('duration', {}, piece.ticks);
    const [voice, staffElement] = [element('voice', {}, VOICES[staff]), element('staff', {}, staff)];
    const isStart = isFirst && piece.isFirst;
    const isEnd = isLast && piece.isLast;
    if (!strum || strum.rest || sounding.length === 0 || (strum.dead && !isStart)) {
      const mark = strum && staff === NOTE_STAFF ? restMark(strum, isStart) : [];
      return [element('note', {}, element('rest'), duration, voice, type, triplet, staffElement, mark)];
    }
    return sounding.map(({ midi, place }, i) => {
      const wasThere = before?.frets.some((f) => f.string === place.string && f.fret === place.fret) ?? false;
      const goesOn = after?.frets.some((f) => f.string === place.string && f.fret === place.fret) ?? false;
      const isTiedTo = !strum.dead && (!isStart || (strum.marks.join === 'tie' && wasThere));
      const isTiedOn = !strum.dead && (!isEnd || (after?.marks.join === 'tie' && goesOn));
      const ties = [...(isTiedTo ? ['stop'] : []), ...(isTiedOn ? ['start'] : [])];
      const notations = ties.map((type) => element('tied', { type }));
      if (staff === NOTE_STAFF) {
        if (isStart && i === 0) notations.push(...soundMarks(strum));
        if (isEnd && strum.marks.length === 'ring') notations.push(letRing());
      } else {
        const joins = joinsOf(stretch, place, { ...piece, isFirst: isStart, isLast: isEnd });
        notations.push(
          ...joins.others,
          element(
            'technical',
            {},
            element('string', {}, place.string),
            element('fret', {}, place.fret),
            joins.technical,
            isStart ? handMarks(strum) : [],
          ),
        );
      }
      return element(
        'note',
        {},
        i > 0 ? element('chord') : null,
        pitchElement(midi, key),
        duration,
        ties.map((tie) => element('tie', { type: tie })),
        voice,
        type,
        triplet,
        strum.dead ? element('notehead', {}, 'x') : null,
        staffElement,
        notations.length > 0 ? element('notations', {}, notations) : null,
      );
    });
  });
}

/** A rest that was written, one that stands for a strum without notes yet, and one behind a dead stroke. */
function restMark(strum: Strum, isStart: boolean): Element[] {
  if (!strum.rest && !strum.dead && !isBlank(strum)) return [];
  const word = !isStart ? OWN_WORDS.goesOn : strum.rest ? OWN_WORDS.rest : OWN_WORDS.blank;
  return [element('notations', {}, element('technical', {}, element('other-technical', {}, word)))];
}

function direction(staff: Staff, above: boolean, ...children: readonly Element[]): Element {
  const types = children.map((child) => element('direction-type', {}, child));
  return element('direction', { placement: above ? 'above' : 'below' }, types, element('staff', {}, staff));
}

/** A chord symbol with the frets it is played on; null for single notes and octaves, which carry no name. */
function harmonyOf(strum: Strum, { tuning, key }: Player): Element | null {
  const chord = identifyChord(strumNotes(strum, tuning));
  const kind = chord && KINDS[chord.quality];
  if (!chord || !kind) return null;
  const note = (prefix: string, pitchClass: number): Element => {
    const { step, alter } = spelled(60 + pitchClass, key);
    return element(
      prefix,
      {},
      element(`${prefix}-step`, {}, step),
      alter === 0 ? null : element(`${prefix}-alter`, {}, alter),
    );
  };
  const suffix = CHORD_KINDS.find((k) => k.quality === chord.quality)?.suffix;
  const symbol = suffix ?? nameNotes(strumNotes(strum, tuning), key).symbol.replace(/^[A-G][#b]?/, '');
  const frets = strum.frets.map((f) => f.fret);
  const highest = Math.max(...frets);
  const lowest = Math.min(...frets.filter((f) => f > 0), highest);
  const firstFret = highest > 4 ? Math.max(1, lowest) : 1;
  return element(
    'harmony',
    {},
    note('root', chord.rootPc),
    element('kind', { text: symbol }, kind),
    chord.bassPc === chord.rootPc ? null : note('bass', chord.bassPc),
    chord.quality === 'b5'
      ? element(
          'degree',
          {},
          element('degree-value', {}, 5),
          element('degree-alter', {}, -1),
          element('degree-type', {}, 'alter'),
        )
      : null,
    element(
      'frame',
      {},
      element('frame-strings', {}, tuning.stringsMidi.length),
      element('frame-frets', {}, Math.max(4, highest - firstFret + 1)),
      firstFret > 1 ? element('first-fret', {}, firstFret) : null,
      [...strum.frets]
        .sort((a, b) => b.string - a.string)
        .map(({ string, fret }) =>
          element('frame-note', {}, element('string', {}, string), element('fret', {}, fret)),
        ),
    ),
    element('staff', {}, NOTE_STAFF),
  );
}

/** What stands over and under a strum: its chord, where palm muting begins and ends, what rings, the player's note. */
function signsAt(stretch: Stretch, state: MeasureState, player: Player): Element[] {
  const { strum, isFirst } = stretch;
  const isMuted = strum ? strum.palmMute : state.isMuted && !stretch.isFirst;
  const signs: Element[] = [];
  if (isMuted && !state.isMuted) {
    signs.push(
      direction(
        TAB_STAFF,
        true,
        element('words', {}, 'P.M.'),
        element('dashes', { type: 'start', number: 1 }),
      ),
    );
  }
  if (!isMuted && state.isMuted)
    signs.push(direction(TAB_STAFF, true, element('dashes', { type: 'stop', number: 1 })));
  state.isMuted = isMuted;
  if (!strum || !isFirst) return signs;
  if (strum.marks.length === 'ring')
    signs.push(direction(TAB_STAFF, false, element('words', {}, 'let ring')));
  if (strum.note !== '') {
    signs.push(direction(TAB_STAFF, false, element('words', { 'font-style': 'italic' }, strum.note)));
  }
  const name = nameNotes(strumNotes(strum, player.tuning), player.key).symbol;
  if (name !== '' && name !== state.lastName) {
    state.lastName = name;
    const harmony = harmonyOf(strum, player);
    if (harmony) signs.push(harmony);
  }
  return signs;
}

/** Marks where triplets begin and end, on the first note of each. */
function withTuplets(
  notes: readonly (readonly Element[])[],
  pieces: readonly Piece[],
  starts: readonly number[],
): Element[] {
  const beatOf = (i: number): number => Math.floor(writable(starts[i]) / 960);
  return notes.flatMap((chord, i) => {
    if (!pieces[i].value.isTriplet) return [...chord];
    const isSame = (j: number): boolean =>
      j >= 0 && j < pieces.length && pieces[j].value.isTriplet && beatOf(j) === beatOf(i);
    const types = [...(isSame(i - 1) ? [] : ['start']), ...(isSame(i + 1) ? [] : ['stop'])];
    if (types.length === 0) return [...chord];
    const tuplets = types.map((type) => element('tuplet', { number: 1, type }));
    return chord.map((note, k) => (k === 0 ? withNotations(note, tuplets) : note));
  });
}

function withNotations(note: Element, added: readonly Element[]): Element {
  const isNotations = (child: Element | string): child is Element =>
    typeof child === 'object' && child.name === 'notations';
  const there = note.children.find(isNotations);
  const notations = element('notations', {}, added, there?.children ?? []);
  return { ...note, children: [...note.children.filter((child) => !isNotations(child)), notations] };
}

/** Everything of a measure between its bar lines, for this guitar. */
export function measureContent(
  measure: Measure,
  guitar: number,
  player: Player,
  state: MeasureState,
): Element[] {
  const stretches = measure.guitars[guitar];
  const triplets = tripletBeats(stretches.flatMap(({ from, to }) => [writable(from), writable(to)]));
  const staffContent = (staff: Staff): Element[] => {
    const rows: { sign: Element[]; chords: Element[][]; pieces: Piece[]; starts: number[] }[] = stretches.map(
      (stretch) => {
        const pieces = piecesOf(stretch, triplets);
        let at = stretch.from;
        const starts = pieces.map(({ ticks }) => (at += ticks) - ticks);
        const size =
          stretch.strum && !stretch.strum.rest
            ? Math.max(1, soundingOf(stretch.strum, player.tuning).length)
            : 1;
        const notes = notesOf(stretch, pieces, staff, player);
        const chords = pieces.map((_, i) => notes.slice(i * size, (i + 1) * size));
        return { sign: staff === NOTE_STAFF ? signsAt(stretch, state, player) : [], chords, pieces, starts };
      },
    );
    const pieces = rows.flatMap((r) => r.pieces);
    const starts = rows.flatMap((r) => r.starts);
    const notes = withTuplets(
      rows.flatMap((r) => r.chords),
      pieces,
      starts,
    );
    // Signs stand before the first note of their strum.
    const content: Element[] = [];
    let at = 0;
    for (const { sign, chords } of rows) {
      const count = chords.reduce((sum, chord) => sum + chord.length, 0);
      content.push(...sign, ...notes.slice(at, at + count));
      at += count;
    }
    return content;
  };
  return [
    ...staffContent(NOTE_STAFF),
    element('backup', {}, element('duration', {}, measure.ticks)),
    ...staffContent(TAB_STAFF),
  ];
}
