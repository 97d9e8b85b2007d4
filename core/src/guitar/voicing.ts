/**
 * Which strings and frets can play a set of notes, and how hard each way is for the fretting hand.
 * Exhaustive search over note-to-string assignments; the effort follows the ideas of Sayegh 1989
 * ("Fingering for string instruments with the optimum path paradigm"): stretch and place on the neck inside
 * a chord here, movement between chords in `hand-path.ts`.
 */
import type { MidiNote } from '../units';
import type { StringFret, Tuning } from './tuning';

export interface Voicing {
  /** Pressed or open strings, lowest string first. */
  readonly frets: readonly StringFret[];
  /** Effort of the hand, 0 = one open string; see {@link effortOf}. */
  readonly effort: number;
  /** Lowest pressed fret; null when all strings are open and the hand may be anywhere. */
  readonly position: number | null;
}

export interface VoicingOptions {
  readonly maxFret: number;
  /** Widest distance between the lowest and highest pressed fret. */
  readonly maxSpan: number;
}

/** Power chords above the 17th fret are rare; four frets is what an ordinary hand spans low on the neck. */
const DEFAULT_VOICING_OPTIONS: VoicingOptions = { maxFret: 17, maxSpan: 4 };

/** Weights of the effort, by playing experience (common practice): a stretch beyond the grip costs most. */
const EFFORT = {
  perFretOfSpan: 1,
  /** Two frets are the ordinary power-chord grip, which hardly counts as a stretch. */
  gripSpan: 2,
  perFretInGrip: 0.25,
  /** An unplayed string between played ones must be damped by a finger. */
  perInnerMute: 0.7,
  /** Low positions are home; each fret up the neck is a little farther away. */
  perFretOfPosition: 0.05,
  /** A string higher than needed sounds thinner; riffs sit on the thick strings. */
  perStringFromLowest: 0.2,
  /** Open strings can't be moved or muted with the same hand shape unless all are open. */
  mixedOpen: 0.5,
  /** Four or more pressed strings need a barre or four fingers. */
  perStringOverThree: 0.5,
} as const;

function effortOf(pressed: readonly { index: number; fret: number }[]): number {
  const stopped = pressed.filter((p) => p.fret > 0).map((p) => p.fret);
  const span = stopped.length > 0 ? Math.max(...stopped) - Math.min(...stopped) : 0;
  const innerMutes = pressed.at(-1)!.index - pressed[0].index + 1 - pressed.length;
  return (
    EFFORT.perFretInGrip * Math.min(span, EFFORT.gripSpan) +
    EFFORT.perFretOfSpan * Math.max(0, span - EFFORT.gripSpan) +
    EFFORT.perInnerMute * innerMutes +
    EFFORT.perFretOfPosition * (stopped.length > 0 ? Math.min(...stopped) : 0) +
    EFFORT.perStringFromLowest * pressed[0].index +
    (stopped.length > 0 && stopped.length < pressed.length ? EFFORT.mixedOpen : 0) +
    EFFORT.perStringOverThree * Math.max(0, stopped.length - 3)
  );
}

/**
 * All ways to sound exactly `notes` with each on its own string and higher notes on higher strings,
 * least effort first. Empty when the tuning can't play them. Repeated notes count once.
 */
export function findVoicings(
  notes: readonly MidiNote[],
  tuning: Tuning,
  options: Partial<VoicingOptions> = {},
): Voicing[] {
  const { maxFret, maxSpan } = { ...DEFAULT_VOICING_OPTIONS, ...options };
  const wanted = [...new Set(notes)].sort((a, b) => a - b);
  const strings = tuning.stringsMidi;
  const found: Voicing[] = [];
  const pressed: { index: number; fret: number }[] = [];

  const place = (noteIndex: number, firstString: number, low: number, high: number): void => {
    if (noteIndex === wanted.length) {
      if (pressed.length === 0) return;
      const stopped = pressed.filter((p) => p.fret > 0);
      found.push({
        frets: pressed.map(({ index, fret }) => ({ string: strings.length - index, fret })),
        effort: effortOf(pressed),
        position: stopped.length > 0 ? low : null,
      });
      return;
    }
    const lastString = strings.length - (wanted.length - noteIndex);
    for (let index = firstString; index <= lastString; index++) {
      const fret = wanted[noteIndex] - strings[index] - tuning.capo;
      if (fret < 0 || fret > maxFret) continue;
      const nextLow = fret > 0 ? Math.min(low, fret) : low;
      const nextHigh = fret > 0 ? Math.max(high, fret) : high;
      if (nextHigh - nextLow > maxSpan) continue;
      pressed.push({ index, fret });
      place(noteIndex + 1, index + 1, nextLow, nextHigh);
      pressed.pop();
    }
  };
  place(0, 0, Infinity, -Infinity);
  return found.sort((a, b) => a.effort - b.effort);
}
