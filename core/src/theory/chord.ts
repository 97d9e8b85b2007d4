/** From sounding notes to a chord: kind, root and name. */
import type { MidiNote, PitchClass } from '../units';
import { CHORD_KINDS, type ChordQuality } from './chord-kinds.data';
import { spellPitchClass, type Key } from './key';
import { pitchClassOf } from './pitch';

export interface Chord {
  readonly rootPc: PitchClass;
  readonly quality: ChordQuality;
  /** Pitch class of the lowest note; differs from the root in inverted shapes. */
  readonly bassPc: PitchClass;
}

/**
 * The chord that a set of sounding notes forms; null for no notes. Two pitch classes a fourth apart are a
 * power chord with the fifth in the bass, since guitarists read that shape so. Notes that form no known
 * kind are `other` on their lowest note. Doublings do not matter.
 */
export function identifyChord(notes: readonly MidiNote[]): Chord | null {
  if (notes.length === 0) return null;
  const lowest = Math.min(...notes);
  const bassPc = pitchClassOf(lowest);
  const present = new Set(notes.map(pitchClassOf));
  if (present.size === 1) {
    return { rootPc: bassPc, quality: new Set(notes).size === 1 ? 'single' : 'oct', bassPc };
  }
  // The bass is tried first as the root: D A D is D5, not A with an added fourth.
  const roots = [bassPc, ...[...present].filter((pc) => pc !== bassPc)];
  for (const rootPc of roots) {
    const kind = CHORD_KINDS.find(
      ({ intervals }) =>
        intervals.length === present.size && intervals.every((i) => present.has((rootPc + i) % 12)),
    );
    if (kind) return { rootPc, quality: kind.quality, bassPc };
  }
  return { rootPc: bassPc, quality: 'other', bassPc };
}

/** The symbol on screen and in text tab, spelled by the key: `G5`, `Bbsus4`, `C5/G`, `E?` for `other`. */
export function chordName({ rootPc, quality, bassPc }: Chord, key: Key | null): string {
  const kind = CHORD_KINDS.find((k) => k.quality === quality);
  const name = spellPitchClass(rootPc, key) + (kind ? kind.suffix : '?');
  return bassPc === rootPc ? name : `${name}/${spellPitchClass(bassPc, key)}`;
}
