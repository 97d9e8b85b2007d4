/**
 * A written song played out: every strum of every pass with its time in the recording, and how the pitch of its notes moves.
 * What is slid or hammered is not struck again: the note before goes on at another pitch.
 */
import type { Riff, SongDocument, Strum } from './document';
import { soundingEndTicks } from './edit';
import { passesOf, passTicksToSeconds } from './passes';
import { isStruck, strokeOf, strumNotes } from './strum';
import { riffOfPass } from './variation';
import type { MidiNote, StringNumber } from '../units';

/** Semitones away from the note at a time after its stroke; straight lines between, level before and after. */
export interface PitchPoint {
  readonly afterS: number;
  readonly semitones: number;
}

export interface PlayedNote {
  readonly midi: MidiNote;
  readonly endS: number;
  /** In order of time; empty while the pitch stays. */
  readonly moves: readonly PitchPoint[];
}

export interface PlayedStrum {
  readonly timeS: number;
  /** When the last of its notes ends. */
  readonly endS: number;
  /** In the order that the pick meets the strings. */
  readonly notes: readonly PlayedNote[];
  readonly palmMute: boolean;
  readonly dead: boolean;
  /** 1 = an ordinary stroke. */
  readonly level: number;
}

/** Levels and times by ear (common practice); a slide takes about a tenth of a second, a hammered note a few ms. */
const ACCENT_LEVEL = 1.4;
const UP_LEVEL = 0.85;
const HAMMERED_LEVEL = 0.6;
const SLIDE_S = 0.09;
const HAMMER_S = 0.005;
const BEND_S = 0.16;
const SLIDE_OUT_S = 0.16;
const SLIDE_OUT_SEMITONES = 5;
const SLIDE_IN_SEMITONES = 3;
const VIBRATO = { hz: 5.5, semitones: 0.3, afterS: 0.12 };
const DIP = { semitones: -2, downS: 0.12, backS: 0.3 };
const DIVE_SEMITONES = -9;
/** A pinched string sounds two octaves up beside its note. */
const PINCH_INTERVAL = 24;

/** Strokes of tremolo picking: twelve a second is fast for a hand, not out of reach (common practice). */
const TREMOLO_S = 1 / 12;

/** A dead stroke clicks for this long. */
const DEAD_S = 0.05;

interface OpenNote {
  readonly string: StringNumber;
  readonly midi: MidiNote;
  endS: number;
  readonly moves: PitchPoint[];
}

interface OpenStrum {
  readonly timeS: number;
  readonly notes: OpenNote[];
  readonly palmMute: boolean;
  readonly dead: boolean;
  readonly level: number;
  readonly up: boolean;
}

function lastSemitones({ moves }: OpenNote): number {
  return moves.at(-1)?.semitones ?? 0;
}

/** The marks that move the pitch of a note from `fromS` (after its stroke) to its end. */
function addMoves(note: OpenNote, { marks }: Strum, strokeS: number, fromS: number): void {
  const base = lastSemitones(note);
  const endS = note.endS - strokeS;
  const put = (afterS: number, semitones: number): void => {
    note.moves.push({ afterS: Math.min(endS, Math.max(fromS, afterS)), semitones: base + semitones });
  };
  if (marks.slideIn !== null) {
    put(fromS, marks.slideIn === 'below' ? -SLIDE_IN_SEMITONES : SLIDE_IN_SEMITONES);
    put(fromS + SLIDE_S, 0);
  }
  const bent = marks.bendCents / 100;
  if (bent > 0) {
    put(fromS, 0);
    put(fromS + BEND_S, bent);
  }
  if (marks.vibrato) {
    const step = 1 / (4 * VIBRATO.hz);
    let phase = 0;
    for (let t = fromS + VIBRATO.afterS; t < endS; t += step, phase++) {
      put(t, bent + VIBRATO.semitones * [0, 1, 0, -1][phase % 4]);
    }
  }
  if (marks.whammyBar === 'dip') {
    put(fromS, bent);
    put(fromS + DIP.downS, bent + DIP.semitones);
    put(fromS + DIP.backS, bent);
  } else if (marks.whammyBar === 'dive') {
    put(fromS + (endS - fromS) / 4, bent);
    put(endS, bent + DIVE_SEMITONES);
  }
  if (marks.slideOut !== null) {
    put(endS - SLIDE_OUT_S, bent);
    put(endS, bent + (marks.slideOut === 'up' ? 1 : -1) * SLIDE_OUT_SEMITONES);
  }
}

/** Carries the strings of the strum before on to this one; answers those that it does not share. */
function join(before: OpenStrum, strum: Strum, notes: readonly OpenNote[], timeS: number): OpenNote[] {
  const fresh: OpenNote[] = [];
  const takenS = strum.marks.join === 'slide' ? SLIDE_S : HAMMER_S;
  const afterS = timeS - before.timeS;
  const shared = new Set(notes.map((n) => n.string));
  for (const note of before.notes) {
    if (!shared.has(note.string)) note.endS = Math.min(note.endS, timeS);
  }
  for (const next of notes) {
    const note = before.notes.find((n) => n.string === next.string);
    if (!note) {
      fresh.push(next);
      continue;
    }
    if (strum.marks.join !== 'tie') {
      note.moves.push({ afterS: Math.max(0, afterS - takenS), semitones: lastSemitones(note) });
      note.moves.push({ afterS, semitones: next.midi - note.midi });
    }
    note.endS = next.endS;
    addMoves(note, strum, before.timeS, afterS);
  }
  return fresh;
}

/** A stroke struck again and again up to an instant, down and up in turn; the pitch moves on through all of them. */
function strikeAgain(stroke: OpenStrum, endS: number): OpenStrum[] {
  const count = Math.max(1, Math.floor((endS - stroke.timeS) / TREMOLO_S));
  return Array.from({ length: count }, (_, k) => {
    const afterS = k * TREMOLO_S;
    const isLast = k === count - 1;
    return {
      ...stroke,
      timeS: stroke.timeS + afterS,
      up: stroke.up !== (k % 2 === 1),
      notes: stroke.notes.map((note) => ({
        ...note,
        endS: isLast ? note.endS : Math.min(note.endS, stroke.timeS + afterS + TREMOLO_S),
        moves: note.moves.map((m) => ({ ...m, afterS: m.afterS - afterS })),
      })),
    };
  });
}

/** Strums of one pass. */
function performPass(
  riff: Riff,
  tuning: SongDocument['tuning'],
  transpose: number,
  at: (ticks: number) => number,
): OpenStrum[] {
  const played: OpenStrum[] = [];
  riff.strums.forEach((strum, i) => {
    if (strum.rest || (strum.frets.length === 0 && !strum.dead)) return;
    const [timeS, endS] = [at(strum.startTicks), at(soundingEndTicks(riff, i))];
    const notes = strum.dead
      ? []
      : strum.frets.map(({ string, fret }): OpenNote => {
          const midi = strumNotes({ ...strum, frets: [{ string, fret }] }, tuning)[0] + transpose;
          return { string, midi, endS, moves: [] };
        });
    const before = played.at(-1);
    const isJoined = !isStruck(strum) && !strum.dead && before && !before.dead;
    const struck = isJoined ? join(before, strum, notes, timeS) : notes;
    if (isJoined && struck.length === 0) return;
    for (const note of struck) addMoves(note, strum, timeS, 0);
    const up = strokeOf(riff, strum) === 'up';
    const level =
      (isJoined ? HAMMERED_LEVEL : 1) * (strum.marks.accent ? ACCENT_LEVEL : 1) * (up ? UP_LEVEL : 1);
    const pinched =
      strum.marks.harmonic === 'pinch'
        ? struck.map((n) => ({ ...n, string: 0, midi: n.midi + PINCH_INTERVAL }))
        : [];
    const stroke = {
      timeS,
      notes: [...struck, ...pinched],
      palmMute: strum.palmMute,
      dead: strum.dead,
      level,
      up,
    };
    if (strum.marks.tremolo) played.push(...strikeAgain(stroke, endS));
    else played.push(stroke);
  });
  return played;
}

/** In order of time, as the first guitar plays them. Sections that are moved sound moved, whatever the frets. */
export function performDocument(document: SongDocument): PlayedStrum[] {
  const { tuning, grid } = document;
  const played: PlayedStrum[] = [];
  for (const section of document.sections) {
    const riff = document.riffs.find((r) => r.id === section.riffId);
    if (!riff) continue;
    for (const pass of passesOf(section, riff, grid)) {
      const varied = riffOfPass(riff, section, pass);
      const strums = performPass(varied, tuning, section.transpose, (ticks) =>
        passTicksToSeconds(pass, grid, ticks),
      );
      for (const { timeS, notes, palmMute, dead, level, up } of strums) {
        const inOrder = up ? [...notes].reverse() : notes;
        played.push({
          timeS,
          endS: notes.reduce((end, n) => Math.max(end, n.endS), timeS + (dead ? DEAD_S : 0)),
          notes: inOrder.map(({ midi, endS, moves }) => ({ midi, endS, moves })),
          palmMute,
          dead,
          level,
        });
      }
    }
  }
  return played.sort((a, b) => a.timeS - b.timeS);
}
