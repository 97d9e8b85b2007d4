/**
 * Pitch numbers and frequencies in twelve-tone equal temperament.
 * A4 = 440 Hz is the standard tuning frequency of ISO 16:1975; MIDI numbers follow the MIDI 1.0
 * specification with 69 = A4 and 60 = C4.
 */
import { Note } from 'tonal';
import type { MidiNote, PitchClass } from '../units';

export const A4_HZ = 440;
export const A4_MIDI = 69;

/** Also takes fractions of a semitone; `a4Hz` is the recording's own A4. */
export function midiToHz(midi: number, a4Hz = A4_HZ): number {
  return a4Hz * 2 ** ((midi - A4_MIDI) / 12);
}

/** The inverse of {@link midiToHz}; a fraction is the distance from the semitone in hundreds of cents. */
export function hzToMidi(freqHz: number, a4Hz = A4_HZ): number {
  return A4_MIDI + 12 * Math.log2(freqHz / a4Hz);
}

/** The frequency that A4 has in a recording which sounds `offsetCents` above standard pitch. */
export function a4OfOffset(offsetCents: number): number {
  return A4_HZ * 2 ** (offsetCents / 1200);
}

export function pitchClassOf(midi: MidiNote): PitchClass {
  return ((midi % 12) + 12) % 12;
}

/** `E2`, `Bb1`, `f#3` in scientific pitch notation (C4 = middle C = 60); null when it names no note. */
export function parseNote(name: string): MidiNote | null {
  return Note.midi(name.charAt(0).toUpperCase() + name.slice(1));
}
