export { A4_HZ, A4_MIDI, a4OfOffset, hzToMidi, midiToHz, parseNote, pitchClassOf } from './pitch';
export { CHORD_KINDS } from './chord-kinds.data';
export type { ChordQuality } from './chord-kinds.data';
export { keyOn, spellPitchClass } from './key';
export type { Key } from './key';
export { chordName, identifyChord } from './chord';
export type { Chord } from './chord';
