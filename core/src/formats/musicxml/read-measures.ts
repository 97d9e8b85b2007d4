/**
 * A part of a MusicXML score, measure by measure: what is struck, on which strings, and how. Where a part has a staff of tablature that is
 * the one that is read, with the signs of the other staves at the same instants.
 */
import { MAX_FRET, type StringFret, type Tuning } from '../../guitar';
import { fitText, isUnit, NO_MARKS, PLAIN_STRUM, TEXT_LIMITS, type RiffBar, type Strum } from '../../riff';
import { TICKS_PER_QUARTER, type MidiNote, type Ticks } from '../../units';
import { marksFrom, OWN_WORDS } from './marks';
import { midiFrom } from './pitch';
import { childOf, childrenOf, textOf, type Element } from './xml';

/** A strum whose notes may not have found their strings yet. */
export interface ReadStrum {
  readonly strum: Strum;
  /** Sounding notes, where the file gives no strings; empty otherwise. */
  readonly midi: readonly MidiNote[];
  /** Tied from the bar that is played before: no strum of its own where that one ends here. */
  readonly isHeldOver: boolean;
}

export interface ReadMeasure {
  readonly bar: RiffBar;
  readonly strums: readonly ReadStrum[];
  /** '' where no section begins. */
  readonly rehearsal: string;
  /** '' where no riff begins. */
  readonly letter: string;
  readonly isRepeatStart: boolean;
  /** 0 where no repeat ends; otherwise how often it is played. */
  readonly repeatTimes: number;
  /** Passes of the ending that begins here. */
  readonly endingStart: readonly number[];
  readonly isEndingEnd: boolean;
}

export interface ReadPart {
  readonly name: string;
  readonly hasTablature: boolean;
  /** Null where no staff tells it. */
  readonly tuning: Tuning | null;
  readonly measures: readonly ReadMeasure[];
  /** Beats of the meter a minute; null where it is not told. */
  readonly bpm: number | null;
  readonly fifths: number | null;
  readonly mode: string;
}

/** A note where it stands in its measure. */
interface Placed {
  readonly at: Ticks;
  readonly ticks: Ticks;
  readonly staff: number;
  readonly midi: MidiNote | null;
  readonly place: StringFret | null;
  readonly isRest: boolean;
  readonly isDead: boolean;
  readonly isTiedTo: boolean;
  readonly notations: readonly Element[];
}

const RIFF_WORDS = /^Riff ([A-Z]{1,4})$/;
/** Signs of their own, no notes of the player. */
const SIGNS = /^(P\.? ?M\.?.*|let ring|Riff [A-Z]{1,4})$/i;
/** Longest bar that a riff may have. */
const MOST_BEATS = 32;

function tuningOf(details: Element): Tuning | null {
  const lines = childrenOf(details, 'staff-tuning')
    .map((line) => ({ line: Number(line.attributes['line']), midi: midiFrom(line, 'tuning-') }))
    .sort((a, b) => a.line - b.line);
  const stringsMidi = lines.flatMap(({ midi }) => (midi === null ? [] : [midi]));
  if (stringsMidi.length === 0 || stringsMidi.length > 12) return null;
  const capo = Math.round(Number(textOf(childOf(details, 'capo')))) || 0;
  return { name: 'custom', stringsMidi, capo: Math.max(0, Math.min(12, capo)) };
}

function numberIn(node: Element | null): number | null {
  const text = textOf(node);
  const value = Number(text);
  return text === '' || !Number.isFinite(value) ? null : value;
}

/** Reads one part from its first measure to its last. Throws a RangeError that names the measure that can't be read. */
export function readPart(part: Element, name: string): ReadPart {
  const measures = childrenOf(part, 'measure');
  let divisions = 1;
  let bar: RiffBar = { beats: 4, unit: 4 };
  let tuning: Tuning | null = null;
  let tabStaff: number | null = null;
  let [bpm, fifths]: (number | null)[] = [null, null];
  let mode = '';
  const read = measures.map((measure, index) => {
    const where = `measure ${measure.attributes['number'] ?? index + 1}`;
    const placed: Placed[] = [];
    const notes: { at: Ticks; text: string }[] = [];
    const head = { rehearsal: '', letter: '', isRepeatStart: false, repeatTimes: 0, isEndingEnd: false };
    let endingStart: number[] = [];
    let [at, chordAt, furthest] = [0, 0, 0];
    const ticksIn = (node: Element): Ticks => {
      const duration = numberIn(childOf(node, 'duration')) ?? 0;
      if (duration < 0) throw new RangeError(`${where}: a duration is negative`);
      return Math.round((duration * TICKS_PER_QUARTER) / divisions);
    };
    for (const child of measure.children) {
      if (typeof child === 'string') continue;
      switch (child.name) {
        case 'attributes': {
          const says = numberIn(childOf(child, 'divisions'));
          if (says !== null) {
            if (says <= 0) throw new RangeError(`${where}: divisions must be more than 0, but are ${says}`);
            divisions = says;
          }
          const [beats, unit] = ['beats', 'beat-type'].map((n) => numberIn(childOf(child, 'time', n)));
          if (beats !== null && unit !== null) {
            if (!isUnit(unit) || beats < 1 || beats > MOST_BEATS || !Number.isInteger(beats)) {
              throw new RangeError(`${where}: a meter of ${beats}/${unit} can't be written in a riff`);
            }
            bar = { beats, unit };
          }
          fifths ??= numberIn(childOf(child, 'key', 'fifths'));
          if (mode === '') mode = textOf(childOf(child, 'key', 'mode'));
          for (const clef of childrenOf(child, 'clef')) {
            if (textOf(childOf(clef, 'sign')) === 'TAB') tabStaff ??= Number(clef.attributes['number'] ?? 1);
          }
          for (const details of childrenOf(child, 'staff-details')) tuning ??= tuningOf(details);
          break;
        }
        case 'backup':
          at = Math.max(0, at - ticksIn(child));
          break;
        case 'forward':
          at += ticksIn(child);
          break;
        case 'note': {
          if (childOf(child, 'grace') || childOf(child, 'cue')) break;
          const ticks = ticksIn(child);
          const isChord = childOf(child, 'chord') !== null;
          if (!isChord) chordAt = at;
          placed.push(placedNote(child, chordAt, ticks));
          if (!isChord) at += ticks;
          break;
        }
        case 'direction': {
          for (const type of childrenOf(child, 'direction-type')) {
            const rehearsal = textOf(childOf(type, 'rehearsal'));
            if (rehearsal !== '') head.rehearsal = rehearsal;
            const words = textOf(childOf(type, 'words'));
            const letter = RIFF_WORDS.exec(words)?.[1];
            if (letter) head.letter = letter;
            else if (words !== '' && !SIGNS.test(words)) notes.push({ at, text: words });
            bpm ??= metronomeOf(childOf(type, 'metronome'));
          }
          const tempo = Number(childOf(child, 'sound')?.attributes['tempo']);
          if (bpm === null && tempo > 0) bpm = tempo;
          break;
        }
        case 'barline': {
          const repeat = childOf(child, 'repeat');
          if (repeat?.attributes['direction'] === 'forward') head.isRepeatStart = true;
          if (repeat?.attributes['direction'] === 'backward') {
            const times = Number(repeat.attributes['times'] ?? 2);
            head.repeatTimes = Number.isInteger(times) && times >= 1 && times <= 1000 ? times : 2;
          }
          const ending = childOf(child, 'ending');
          const type = ending?.attributes['type'];
          if (type === 'start') endingStart = passesOf(ending?.attributes['number'] ?? '');
          else if (type) head.isEndingEnd = true;
          break;
        }
      }
      furthest = Math.max(furthest, at);
    }
    const full = (bar.beats * 4 * TICKS_PER_QUARTER) / bar.unit;
    return {
      ...head,
      endingStart,
      // A pick-up is shorter than its meter.
      bar: furthest > 0 && furthest < full ? shortBar(furthest, bar) : bar,
      placed,
      notes,
    };
  });
  const hasTablature = tabStaff !== null;
  const toStrums = strumsOver(hasTablature ? tabStaff : null, tuning);
  return {
    name,
    hasTablature,
    tuning,
    bpm,
    fifths,
    mode,
    measures: read.map(({ placed, notes, ...rest }) => ({ ...rest, strums: toStrums(placed, notes) })),
  };
}

/** The first beats of a bar that ends early, where they are whole; the bar as its meter says otherwise. */
function shortBar(ticks: Ticks, bar: RiffBar): RiffBar {
  const beats = (ticks * bar.unit) / (4 * TICKS_PER_QUARTER);
  return Number.isInteger(beats) ? { ...bar, beats } : bar;
}

/** Beats of the meter a minute. */
function metronomeOf(metronome: Element | null): number | null {
  const perMinute = Number(textOf(childOf(metronome, 'per-minute')).replace(/[^\d.]/g, ''));
  if (!metronome || !(perMinute > 0)) return null;
  const unit = textOf(childOf(metronome, 'beat-unit'));
  const quarters: Readonly<Record<string, number>> = { half: 2, quarter: 1, eighth: 0.5 };
  const isDotted = childOf(metronome, 'beat-unit-dot') !== null;
  return isDotted ? perMinute : perMinute * (quarters[unit] ?? 1);
}

function passesOf(number: string): number[] {
  return number
    .split(/[,\s]+/)
    .map(Number)
    .filter((n) => Number.isInteger(n) && n > 0 && n <= 1000);
}

function placedNote(note: Element, at: Ticks, ticks: Ticks): Placed {
  const notations = childrenOf(note, 'notations');
  const technical = notations.flatMap((n) => childrenOf(n, 'technical'));
  const [string, fret] = ['string', 'fret'].map(
    (n) => technical.map((t) => numberIn(childOf(t, n))).find((v) => v !== null) ?? null,
  );
  const ties = childrenOf(note, 'tie').map((t) => t.attributes['type']);
  return {
    at,
    ticks,
    staff: numberIn(childOf(note, 'staff')) ?? 1,
    midi: midiFrom(childOf(note, 'pitch')),
    place: string !== null && fret !== null ? { string, fret } : null,
    isRest: childOf(note, 'rest') !== null,
    isDead: textOf(childOf(note, 'notehead')) === 'x',
    isTiedTo: ties.includes('stop'),
    notations,
  };
}

/** How this strum is reached: by what begins on it and ends on the one before. */
function joinOf(notations: readonly Element[], own: ReadonlySet<string>): Strum['marks']['join'] {
  if (own.has(OWN_WORDS.tied)) return 'tie';
  const ends = (name: string, parents: readonly Element[]): boolean =>
    parents.some((p) => childrenOf(p, name).some((e) => e.attributes['type'] === 'stop'));
  const technical = notations.flatMap((n) => childrenOf(n, 'technical'));
  if (ends('hammer-on', technical) || ends('pull-off', technical)) return 'hammer';
  return ends('slide', notations) || ends('glissando', notations) ? 'slide' : null;
}

/** Strums of a measure; what is tied on within it belongs to the strum that it is tied to. */
function strumsOver(
  staff: number | null,
  tuning: Tuning | null,
): (placed: readonly Placed[], notes: readonly { at: Ticks; text: string }[]) => ReadStrum[] {
  const strings = tuning?.stringsMidi.length ?? 6;
  const isPlayable = ({ string, fret }: StringFret): boolean =>
    Number.isInteger(string) && string >= 1 && string <= strings && fret >= 0 && fret <= MAX_FRET;
  return (placed, notes) => {
    const own = placed.filter((p) => staff === null || p.staff === staff);
    const instants = [...new Set(placed.map((p) => p.at))].sort((a, b) => a - b);
    const strums: ReadStrum[] = [];
    for (const at of instants) {
      const here = placed.filter((p) => p.at === at);
      const read = readInstant(
        here,
        own.filter((p) => p.at === at),
        isPlayable,
      );
      if (!read) continue;
      const { isHeld, ...found } = read;
      const strum = { ...found.strum, startTicks: at };
      const last = strums.at(-1);
      const longer = isHeld && last ? heldOn(last, { ...found, strum }) : null;
      if (longer) {
        strums[strums.length - 1] = longer;
        continue;
      }
      const note = fitText(notes.find((n) => n.at === at)?.text ?? '', TEXT_LIMITS.note);
      strums.push({ ...found, isHeldOver: isHeld && at === 0, strum: { ...strum, note } });
    }
    return strums;
  };
}

/** A strum that is held for as long as the next one lasts; null where that one is not tied to it. */
export function heldOn<T extends Pick<ReadStrum, 'strum' | 'midi'>>(
  before: T,
  held: Pick<ReadStrum, 'strum' | 'midi'>,
): T | null {
  const { strum } = before;
  const isNext = strum.startTicks + strum.durationTicks === held.strum.startTicks;
  // Silence goes on behind whatever was there.
  const isSilent = held.strum.frets.length === 0 && held.midi.length === 0;
  if (!isNext || !(isSilent || isSameNotes(before, held))) return null;
  const length = held.strum.marks.length ?? strum.marks.length;
  const durationTicks = strum.durationTicks + held.strum.durationTicks;
  return { ...before, strum: { ...strum, durationTicks, marks: { ...strum.marks, length } } };
}

function isSameNotes(a: Pick<ReadStrum, 'strum' | 'midi'>, b: Pick<ReadStrum, 'strum' | 'midi'>): boolean {
  const notes = ({ strum, midi }: typeof a): string => JSON.stringify([strum.frets, midi]);
  return notes(a) === notes(b);
}

/** What is struck at an instant: `own` on the staff that is read, `here` on all; null for silence. */
function readInstant(
  here: readonly Placed[],
  own: readonly Placed[],
  isPlayable: (place: StringFret) => boolean,
): (Pick<ReadStrum, 'strum' | 'midi'> & { readonly isHeld: boolean }) | null {
  const sounding = own.filter((p) => !p.isRest && (p.midi !== null || p.place !== null));
  const said = here.flatMap((p) => p.notations);
  const { marks, own: words } = marksFrom(said);
  const ticks = Math.max(0, ...own.map((p) => p.ticks));
  const isRest = words.has(OWN_WORDS.rest);
  const isBlank = words.has(OWN_WORDS.blank);
  const goesOn = words.has(OWN_WORDS.goesOn);
  if (ticks === 0 || (sounding.length === 0 && !isRest && !isBlank && !goesOn)) return null;
  const isTied = sounding.length > 0 && sounding.every((p) => p.isTiedTo) && !words.has(OWN_WORDS.tied);
  const isHeld = isTied || (sounding.length === 0 && goesOn);
  const dead = sounding.length > 0 && sounding.every((p) => p.isDead);
  const places = sounding.flatMap((p) => p.place ?? []).filter(isPlayable);
  const isEmpty = isRest || isBlank || (dead && words.has(OWN_WORDS.allStrings));
  const frets = [...new Map(places.map((p) => [p.string, p])).values()].sort((a, b) => b.string - a.string);
  return {
    isHeld,
    midi: places.length > 0 || dead ? [] : sounding.flatMap((p) => p.midi ?? []).sort((a, b) => a - b),
    strum: {
      ...PLAIN_STRUM,
      id: '',
      startTicks: 0,
      durationTicks: ticks,
      frets: isEmpty ? [] : frets,
      dead,
      rest: isRest,
      palmMute: words.has(OWN_WORDS.palmMute),
      marks: { ...NO_MARKS, ...marks, join: isTied ? 'tie' : joinOf(said, words) },
      note: '',
      trust: 'guessed',
    },
  };
}
