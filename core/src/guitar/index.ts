export { MAX_FRET, parseTuning, STANDARD_TUNING, soundingNote, soundingNotes, tuningLabel } from './tuning';
export type { StringFret, Tuning } from './tuning';
export { TUNINGS } from './tunings.data';
export { findVoicings } from './voicing';
export type { Voicing } from './voicing';
export { chooseHandPath } from './hand-path';
export { applyHabits } from './habits';
export { rankTunings } from './tuning-candidates';
export type { TuningCandidate } from './tuning-candidates';
