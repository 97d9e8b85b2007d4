export { ANALYSIS_SAMPLE_RATE } from './types';
export type {
  BeatGrid,
  HeardSection,
  HeardStrum,
  KeyEstimate,
  Meter,
  MeterAlternative,
  ReferenceOffset,
  StereoSignal,
} from './types';
export { estimateReferenceOffset } from './reference-offset';
export { estimateKey } from './key-estimate';
export { listen } from './listen';
export type { Heard, OnProgress } from './listen';
// What the networks see, for those who train them.
export { splitStereo } from './stereo';
export type { MidSide } from './stereo';
export { computeStrengths, findStrokeCandidates } from './stroke-candidates';
export { STROKE_FEATURES } from './stroke-features';
export { BINS_PER_SEMITONE, createChordSpectrum, SPECTRUM_SIZE } from './chord-spectrum';
export { CHORD_FORMS } from './chord-forms.data';
export { CHORD_INPUTS, FORMS, HIGHEST_BASS, LOWEST_BASS, PRESENCES, writeChordInput } from './chord-network';
export { enumerateMeters, gridOfMeter, METER_FEATURES } from './meter';
export type { MeterHypothesis, MeterStrum } from './meter';
export { applyLayer, readLayer } from './network';
