/**
 * Which tunings could have played the heard chords, best first. A tuning scores by the hand effort of the
 * whole song, by chords it can't play at all, by open low strings (riffs are built on them), by strings that would lie under
 * the finger and are not struck, and by how usual it is. Several tunings often explain the same pitches: the caller shows the list, not the first alone.
 */
import type { MidiNote } from '../units';
import { drivenFourthIn } from './driven-fourth';
import { chooseHandPath } from './hand-path';
import type { Tuning } from './tuning';
import { TUNINGS } from './tunings.data';
import { findVoicings, type Voicing } from './voicing';

/** A strum as far as it tells of the tuning. */
export interface PlayedNotes {
  readonly midi: readonly MidiNote[];
  readonly palmMuted: boolean;
}

export interface TuningCandidate {
  readonly tuning: Tuning;
  /** 0 to 1, the candidates' scores add up to 1. */
  readonly score: number;
  /** Hand effort and what else speaks against it, per strum; comparable between songs. */
  readonly cost: number;
  /** Share of strums that the tuning can't play as heard. */
  readonly unplayableShare: number;
  /** Share of strums with an open lowest string. */
  readonly openShare: number;
  /** Share of playable strums of two or more notes that are open or need one finger only. */
  readonly oneFingerShare: number;
  /** Lowest note heard, mishearings left out, less what the lowest string sounds; negative = out of reach. */
  readonly lowestAboveOpen: number;
  /** Mean effort per playable strum, movement included. */
  readonly meanEffort: number;
}

/** Frets a capo is tried on; players seldom go higher for riffs (common practice). */
const CAPO_FRETS = [0, 1, 2, 3, 4, 5];
/** A capo is an extra assumption, and one on another tuning than standard two of them. */
const CAPO_PENALTY = 0.9;
const RETUNED_CAPO_PENALTY = 0.7;
/** Each fret further up: a riff whose lowest chord stands on the fourth fret is seldom one of a capo there (common practice). */
const CAPO_PENALTY_PER_FRET = 0.3;
/**
 * What speaks for a capo is that chords stand on several of the low open strings with it, and without it do not: per share of the chords by which they are
 * more, from some on. Chords on one of them say little, since a riff may have its home at any fret, so that with a capo an open lowest string counts half as
 * well. Chosen on 82 songs and on those in standard tuning moved up, see docs/experiments.md ("A capo, and two strings by habit").
 */
const CAPO_OPEN_BONUS = 3;
const CAPO_OPEN_FROM = 0.1;
const OPEN_LOW_WITH_CAPO = 0.5;
/** The strings that riffs stand on. */
const LOW_STRINGS = 3;
/** An unplayable strum (often a mishearing) weighs as much as a wide stretch, so that few do not decide. */
const UNPLAYABLE_COST = 6;
/**
 * Of a chord whose lowest note may be the amplifier's (see `driven-fourth.ts`): less than one that can't be played, and enough that a song in
 * dropped D is not one of fourths in standard tuning; 2.5 to 3.5 rank 48 songs alike (docs/experiments.md).
 */
const DRIVEN_FOURTH_COST = 3.5;
/** A riff on the open lowest string is what makes players choose a tuning. */
const OPEN_LOW_BONUS = 1.2;
/**
 * Where one finger lies on the three lowest strings, a ringing power chord is struck on all three; two strings are what
 * a grip of two fingers gives (common practice). This much where none of them has its third string; muted ones say nothing.
 */
const LEFT_OUT_COST = 0.9;
/** Who strikes three strings in fewer of the ringing power chords of a song plays two by habit, and leaves nothing out. */
const STRIKES_THREE = 0.2;
/** Fewer power chords than this say less. */
const ENOUGH_FIFTHS = 6;
/**
 * Per semitone that the lowest string lies under the lowest note of the song: nobody tunes down for notes that are
 * not played. Counted up to a point, since a song need not use its lowest string.
 */
// With .16 instead of .12 more songs that are moved up have their capo among the first three (20, 16, 9 of 35 instead of 15, 9, 5); from .3 on capos are
// said where none is.
const UNUSED_DEPTH_COST = 0.16;
const MOST_UNUSED = 4;
/** A few notes heard too low do not count: this share may lie under the lowest note. */
const MISHEARD_SHARE = 0.02;
/** Differences in cost per strum become probabilities by exp(-cost * this); set by hand. */
const SHARPNESS = 3;
/** Voicings kept per strum while ranking; more changes no ranking and costs their square. */
const VOICINGS_PER_STRUM = 4;

function isOneFinger({ frets }: Voicing): boolean {
  const stopped = new Set(frets.map((f) => f.fret).filter((fret) => fret > 0));
  return frets.length > 1 && stopped.size <= 1;
}

/**
 * Of the ringing power chords that this tuning has under one finger, how many leave its third string out, 0 without any; less where the player hardly
 * strikes three strings anywhere.
 */
function leftOutShare(
  played: readonly PlayedNotes[],
  lowest: MidiNote,
  second: MidiNote,
  third: MidiNote,
): number {
  if (second - lowest !== 7 || third - lowest !== 12) return 0;
  const all = { two: 0, three: 0 };
  const underOneFinger = { two: 0, three: 0 };
  for (const { midi, palmMuted } of played) {
    const above = midi.map((m) => m - midi[0]).join();
    const strings = above === '0,7' ? 'two' : above === '0,7,12' ? 'three' : null;
    if (palmMuted || strings === null) continue;
    all[strings]++;
    // From the second string's open note on there is another place to play it.
    if (midi[0] >= lowest && midi[0] < second) underOneFinger[strings]++;
  }
  const { two, three } = underOneFinger;
  const threeByHabit = all.three / Math.max(1, all.two + all.three);
  return (Math.min(1, threeByHabit / STRIKES_THREE) * two) / Math.max(ENOUGH_FIFTHS, two + three);
}

/** Of the chords, how many have an open low string as their lowest note, the most usual of these strings left out. */
function openBesideHome(played: readonly PlayedNotes[], strings: readonly MidiNote[], capo: number): number {
  const chords = played.filter(({ midi }) => midi.length > 1);
  const [, ...besideHome] = strings
    .slice(0, LOW_STRINGS)
    .map((note) => chords.filter(({ midi }) => midi[0] === note + capo).length)
    .sort((a, b) => b - a);
  return besideHome.reduce((sum, n) => sum + n, 0) / Math.max(1, chords.length);
}

function capoPenalty(capo: number, name: string): number {
  if (capo === 0) return 0;
  return CAPO_PENALTY + CAPO_PENALTY_PER_FRET * (capo - 1) + (name === 'standard' ? 0 : RETUNED_CAPO_PENALTY);
}

/** `strums`: in order; those without notes say nothing. Returns [] when nothing was heard. */
export function rankTunings(strums: readonly PlayedNotes[]): TuningCandidate[] {
  const played = strums.filter(({ midi }) => midi.length > 0);
  if (played.length === 0) return [];
  const scored = TUNINGS.flatMap(({ name, strings, prior }) =>
    CAPO_FRETS.map((capo) => {
      const tuning: Tuning = { name, stringsMidi: strings, capo };
      const cache = new Map<string, Voicing[]>();
      const layers: Voicing[][] = [];
      let [openCount, fourthCount] = [0, 0];
      const lowestNotes: MidiNote[] = [];
      for (const { midi } of played) {
        const fourth = drivenFourthIn(midi, strings[0] + capo);
        if (fourth) fourthCount++;
        const notes = fourth ?? midi;
        lowestNotes.push(Math.min(...notes));
        const id = notes.join();
        let voicings = cache.get(id);
        if (!voicings) cache.set(id, (voicings = findVoicings(notes, tuning).slice(0, VOICINGS_PER_STRUM)));
        if (voicings.length === 0) continue;
        layers.push(voicings);
        if (Math.min(...notes) === strings[0] + capo) openCount++;
      }
      const unplayableShare = 1 - layers.length / played.length;
      const { path, cost: effort } = chooseHandPath(layers);
      const meanEffort = layers.length > 0 ? effort / layers.length : UNPLAYABLE_COST;
      const oneFingerShare = path.filter(isOneFinger).length / Math.max(1, path.length);
      const lowestNote = lowestNotes.sort((a, b) => a - b)[Math.floor(MISHEARD_SHARE * lowestNotes.length)];
      const lowestAboveOpen = lowestNote - strings[0] - capo;
      const openShare = openCount / played.length;
      const openWithCapo = openBesideHome(played, strings, capo) - openBesideHome(played, strings, 0);
      const cost =
        meanEffort * (1 - unplayableShare) +
        UNPLAYABLE_COST * unplayableShare +
        (DRIVEN_FOURTH_COST * fourthCount) / played.length -
        OPEN_LOW_BONUS * (capo > 0 ? OPEN_LOW_WITH_CAPO : 1) * openShare +
        LEFT_OUT_COST * leftOutShare(played, strings[0] + capo, strings[1] + capo, strings[2] + capo) +
        UNUSED_DEPTH_COST * Math.min(MOST_UNUSED, Math.max(0, lowestAboveOpen)) +
        capoPenalty(capo, name) -
        CAPO_OPEN_BONUS * Math.max(0, openWithCapo - CAPO_OPEN_FROM) -
        Math.log(prior) / SHARPNESS;
      const weight = Math.exp(-SHARPNESS * cost);
      return {
        tuning,
        cost,
        unplayableShare,
        openShare,
        oneFingerShare,
        lowestAboveOpen,
        meanEffort,
        weight,
      };
    }),
  );
  const total = scored.reduce((sum, s) => sum + s.weight, 0);
  return scored
    .map(({ weight, ...rest }) => ({ ...rest, score: weight / total }))
    .sort((a, b) => b.score - a.score);
}
