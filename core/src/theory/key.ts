/** Keys and the spelling of pitch classes in them, by way of `tonal`. */
import { Key as TonalKey, Note } from 'tonal';
import type { PitchClass } from '../units';

export interface Key {
  /** Letter with accidental: 'E', 'Bb', 'F#'. */
  readonly tonic: string;
  readonly mode: 'major' | 'minor';
}

const SHARP_NAMES = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];
const FLAT_NAMES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];

/** Sharps (positive) or flats (negative) in the key's signature. */
function alterationOf(key: Key): number {
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

/** Note names of a key: its own scale notes as the signature spells them, others with its kind of accidental. */
export function spellPitchClass(pitchClass: PitchClass, key: Key | null): string {
  if (key === null) return SHARP_NAMES[pitchClass];
  const scale =
    key.mode === 'major' ? TonalKey.majorKey(key.tonic).scale : TonalKey.minorKey(key.tonic).natural.scale;
  const ofScale = scale.find((name) => Note.chroma(name) === pitchClass);
  return ofScale ?? (alterationOf(key) < 0 ? FLAT_NAMES : SHARP_NAMES)[pitchClass];
}
