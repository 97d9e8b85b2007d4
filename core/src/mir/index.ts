export { ANALYSIS_SAMPLE_RATE } from '../units';
export type {
  HeardAlternative,
  BeatGrid,
  HeardSection,
  HeardStrum,
  KeyEstimate,
  Meter,
  MeterAlternative,
  ReferenceOffset,
  StereoSignal,
} from './types';
export { harmonySimilarity, hearBarHarmony } from './bar-harmony';
export type { BarChroma } from './bar-harmony';
export { estimateReferenceOffset } from './reference-offset';
export { estimateKey, estimateSectionKeys } from './key-estimate';
export { listen } from './listen';
export type { DescribedSection, Heard, HeardSoFar, ListenOptions, OnProgress } from './listen';
export type { HeardPass, PassDifference } from './compare-passes';
export type { HeardGuitar } from './two-guitars';
export type { Settled, SettledStrum } from './settled';
// What the networks see, for those who train them.
export { splitStereo } from './stereo';
export type { MidSide } from './stereo';
export { computeStrengths, findStrokeCandidates } from './stroke-candidates';
export { STROKE_FEATURES } from './stroke-features';
export { createStrokeNetwork, type StrokeNetworkWeights } from './strokes';
export { BINS_PER_SEMITONE, createChordSpectrum, SPECTRUM_SIZE } from './chord-spectrum';
export { createChordCommittee } from './chord-committee';
export { CHORD_FORMS } from './chord-forms.data';
export {
  BASS_NOTES,
  CHORD_INPUTS,
  createChordNetwork,
  FORMS,
  HIGHEST_BASS,
  LOWEST_BASS,
  PRESENCES,
  RIVALS,
  writeChordInput,
  type ChordNetworkWeights,
} from './chord-network';
export { enumerateMeters, gridOfMeter, METER_FEATURES } from './meter';
export type { MeterHypothesis, MeterStrum } from './meter';
export { applyLayer, readLayer, softmax } from './network';
export { FIRST_HEARD_NOTE, hearNotes } from './heard-notes';
export type { HeardNotes, NoteSpan } from './heard-notes';
export type { LayerWeights } from './network';
