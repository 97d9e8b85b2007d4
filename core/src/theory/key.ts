/** Keys and the spelling of pitch classes in them, by way of `tonal`. */
import { Key as TonalKey, Note } from 'tonal';
import type { PitchClass } from '../units';

export const KEY_MODES = ['major', 'minor'] as const;
/** What a tonic looks like: a letter with an accidental or without. */
export const TONIC = /^[A-G][#b]?$/;

export interface Key {
  /** Letter with accidental: 'E', 'Bb', 'F#'. */
  readonly tonic: string;
  readonly mode: (typeof KEY_MODES)[number];
}

const SHARP_NAMES = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];
const FLAT_NAMES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];

/** Sharps (positive) or flats (negative) in the key's signature. */
export function alterationOf(key: Key): number {
  return key.mode === 'major'
    ? TonalKey.majorKey(key.tonic).alteration
    : TonalKey.minorKey(key.tonic).alteration;
}

/**
 * The key on a pitch class, with the tonic spelled so that the signature has the fewest accidentals
 * (at six of each: sharps).
 */
export function keyOn(pitchClass: PitchClass, mode: Key['mode']): Key {
  const sharp: Key = { tonic: SHARP_NAMES[pitchClass], mode };
  const flat: Key = { tonic: FLAT_NAMES[pitchClass], mode };
  if (sharp.tonic === flat.tonic) return sharp;
  return Math.abs(alterationOf(flat)) < Math.abs(alterationOf(sharp)) ? flat : sharp;
}

/** How a player wants notes named: as the key says, or as a tuner shows them. */
export type Spelling = 'key' | 'sharps' | 'flats';

/** The key to spell by: the song's own, or one that names everything with sharps (none) or with flats. */
export function spellingKey(key: Key | null, spelling: Spelling): Key | null {
  if (spelling === 'key') return key;
  return spelling === 'sharps' ? null : { tonic: 'F', mode: 'major' };
}

/** Names of the twelve pitch classes in each key that was asked for: every chord on screen is spelled by them. */
const NAMES = new Map<string, readonly string[]>();

function namesIn(key: Key): readonly string[] {
  const id = `${key.tonic} ${key.mode}`;
  const known = NAMES.get(id);
  if (known) return known;
  const scale =
    key.mode === 'major' ? TonalKey.majorKey(key.tonic).scale : TonalKey.minorKey(key.tonic).natural.scale;
  const others = alterationOf(key) < 0 ? FLAT_NAMES : SHARP_NAMES;
  const names = others.map((other, pc) => scale.find((name) => Note.chroma(name) === pc) ?? other);
  NAMES.set(id, names);
  return names;
}

/** Note names of a key: its own scale notes as the signature spells them, others with its kind of accidental. */
export function spellPitchClass(pitchClass: PitchClass, key: Key | null): string {
  return (key === null ? SHARP_NAMES : namesIn(key))[pitchClass];
}
