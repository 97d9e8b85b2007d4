/**
 * A pass that is the riff moved as a whole: the same shapes some frets up or down, or everything pushed early or dragged late. Told
 * strum by strum it would be nothing but strokes missed and strokes too many.
 */
import { writtenVoicings, MAX_FRET, type StringFret, type Tuning } from '../guitar';
import { isStruck, riffTicks, SIXTEENTH, strumNotes, type Riff, type Strum, type Variation } from '../riff';
import type { Ticks } from '../units';
import { comparePass } from './compare';
import type { HeardStroke } from './place';

/** How a whole pass lies against the riff; one of the two is 0. */
export interface WholeMove {
  /** Up is positive. */
  readonly semitones: number;
  /** Late is positive. */
  readonly ticks: Ticks;
}

/** A push or a drag is an eighth, or in dense riffs a sixteenth. */
const PUSHES: readonly Ticks[] = [-2 * SIXTEENTH, -SIXTEENTH, SIXTEENTH, 2 * SIXTEENTH];
/** Farther than a fifth the hand plays other shapes, and the octave sounds as the same chord. */
const MOST_SEMITONES = 7;
/** Fewer strums prove no move: any two chords are some other two moved. */
const LEAST_STRUMS = 4;
/** Strums of the riff that must be heard as they are moved, and how many more than without the move. */
const LEAST_AGREEING = 0.7;
const LEAST_GAIN = 0.4;

const MOVES: readonly WholeMove[] = [
  ...Array.from({ length: MOST_SEMITONES }, (_, i) => i + 1).flatMap((n) => [
    { semitones: n, ticks: 0 },
    { semitones: -n, ticks: 0 },
  ]),
  ...PUSHES.map((ticks) => ({ semitones: 0, ticks })),
];

/** The share of the riff's strums that are heard as they are written. */
function agreeing(riff: Riff, heard: readonly HeardStroke[], tuning: Tuning): number {
  const { verdicts, differences } = comparePass(riff, heard, tuning);
  const other = new Set(
    differences.flatMap(({ kind, strumId }) => (kind === 'mute' || strumId === null ? [] : [strumId])),
  );
  const struck = riff.strums.filter(isStruck).length;
  return verdicts.filter((v) => v.heard !== null && !other.has(v.strumId)).length / Math.max(1, struck);
}

/** How a pass is the riff moved as a whole; null where it is not, or where too little was heard to say so. */
export function wholeMoveOf(riff: Riff, heard: readonly HeardStroke[], tuning: Tuning): WholeMove | null {
  const chords = riff.strums.filter((s) => isStruck(s) && !s.dead);
  if (chords.length < LEAST_STRUMS || heard.length < LEAST_STRUMS) return null;
  const unmoved = agreeing(riff, heard, tuning);
  if (unmoved > 1 - LEAST_GAIN) return null;
  const tried = MOVES.map((move) => {
    const back = heard.map((s) => ({
      ...s,
      ticks: s.ticks - move.ticks,
      endTicks: s.endTicks - move.ticks,
      midi: s.midi.map((note) => note - move.semitones),
    }));
    return { move, share: agreeing(riff, back, tuning) };
  });
  const best = tried.reduce((a, b) => (b.share > a.share ? b : a));
  return best.share >= LEAST_AGREEING && best.share >= unmoved + LEAST_GAIN ? best.move : null;
}

/** The same shape so many frets on; where the neck ends, another one that sounds the same, or none. */
function movedFrets(strum: Strum, semitones: number, tuning: Tuning): readonly StringFret[] {
  const frets = strum.frets.map((f) => ({ ...f, fret: f.fret + semitones }));
  if (frets.every(({ fret }) => fret >= 0 && fret <= MAX_FRET)) return frets;
  return (
    writtenVoicings(
      strumNotes(strum, tuning).map((n) => n + semitones),
      tuning,
    )[0]?.frets ?? []
  );
}

/**
 * The riff moved as a whole, as a variation of it. A strum that is pushed over the edge of the riff sounds in the pass before or
 * behind: it is left out here, and `note` says so at its neighbour.
 */
export function wholePassVariation(
  riff: Riff,
  { semitones, ticks }: WholeMove,
  tuning: Tuning,
  {
    id,
    name,
    note,
    newId,
  }: { readonly id: string; readonly name: string; readonly note: string; readonly newId: () => string },
): Variation {
  const end = riffTicks(riff);
  const inside = riff.strums.filter(({ startTicks }) => startTicks + ticks >= 0 && startTicks + ticks < end);
  const edge = inside.length === riff.strums.length ? null : ticks < 0 ? inside.at(0) : inside.at(-1);
  const strums = inside.map((strum): Strum => ({
    ...strum,
    id: newId(),
    startTicks: strum.startTicks + ticks,
    durationTicks: Math.min(strum.durationTicks, end - strum.startTicks - ticks),
    frets: semitones === 0 ? strum.frets : movedFrets(strum, semitones, tuning),
    note: strum === edge ? note : strum.note,
    trust: 'heard',
  }));
  const guitar2 = riff.guitar2.map((s) => ({ ...s, id: newId() }));
  return { id, name, fromTicks: 0, toTicks: end, strums, guitar2 };
}
