export { A4_HZ, A4_MIDI, a4OfOffset, hzToMidi, midiToHz, parseNote, pitchClassOf } from './pitch';
export { CHORD_KINDS } from './chord-kinds.data';
export type { ChordQuality } from './chord-kinds.data';
export { keyOn, spellingKey, spellPitchClass } from './key';
export type { Key, Spelling } from './key';
export { chordName, identifyChord } from './chord';
export type { Chord } from './chord';
export { nameNotes } from './name-notes';
export type { NotesName } from './name-notes';
