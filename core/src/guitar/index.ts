export { MAX_FRET, parseTuning, STANDARD_TUNING, soundingNote, soundingNotes, tuningLabel } from './tuning';
export type { StringFret, Tuning } from './tuning';
export { TUNINGS } from './tunings.data';
export { findVoicings } from './voicing';
export type { Voicing } from './voicing';
export { candidateVoicings, chooseVoicings, writtenVoicings } from './finger';
export { rankTunings } from './tuning-candidates';
export type { TuningCandidate } from './tuning-candidates';
export { drivenFourthIn } from './driven-fourth';
export { describeStrings } from './strings';
export type { StringTarget } from './strings';
export {
  SCALES_MM,
  STRING_SETS,
  stringTension,
  unitWeight,
  USUAL_GAUGES,
  USUAL_SCALE_MM,
} from './string-tension';
export type { TensionVerdict } from './string-tension';
export { harmonicInterval, hasHarmonic } from './harmonics';
export { isOwnShape, placeOwnShape, placeShape, POWER_SHAPES, shapeOf } from './shapes';
export type { OwnShape, PowerShape } from './shapes';
export { fretAtMm, handSpanMm, pressedAtMm } from './reach';
export { fingersOf, quietStrings } from './hand';
export type { Finger, FingerPlace, QuietString } from './hand';
export { placesOf, rankFingerings } from './fingerings';
export type { Fingering, FingeringReason, HeardStrength } from './fingerings';
