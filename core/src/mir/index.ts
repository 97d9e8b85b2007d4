export { ANALYSIS_SAMPLE_RATE } from '../units';
export type {
  HeardAlternative,
  BeatGrid,
  HeardSection,
  HeardStrum,
  KeyEstimate,
  MeterAlternative,
  MidSide,
  ReferenceOffset,
  StereoSignal,
  StrumSpan,
} from './types';
export { chromaSimilarity, computeBarChroma } from './form/bar-chroma';
export type { BarChroma } from './form/bar-chroma';
export { estimateReferenceOffset } from './reference-offset';
export { estimateKey, estimateSectionKeys } from './chords/key-estimate';
export { hearSong, listen } from './listen';
export type { DescribedSection, Heard, HeardSoFar, ListenOptions, OnProgress, SongHearing } from './listen';
export type { HeardGuitar } from './two-guitars';
export { askableOf, recallHearing, resumeHearing } from './resume-hearing';
export type { AskableSong, HeardBefore } from './resume-hearing';
export { NOTHING_CONFIRMED } from './confirmed';
export type { Confirmed, ConfirmedStrum } from './confirmed';
export type { StrokeCandidate } from './hear-strums';
export type { AskedSpan, StagedLevels } from './read-chords';
export type { DecodedChord } from './chords/chord-decoding';
// What the networks see, for those who train them.
export { splitStereo } from './stereo';
export { computeStrengths, findStrokeCandidates } from './strokes/stroke-candidates';
export { STROKE_FEATURES } from './strokes/stroke-features';
export { createStrokeNetwork, type StrokeNetworkWeights } from './strokes/stroke-classifier';
export { decideKind, kindOf, STROKE_KINDS, strokeProbability } from './strokes/stroke-kinds';
export { BINS_PER_SEMITONE, createChordSpectrum, SPECTRUM_SIZE } from './chords/chord-spectrum';
export { createChordEnsemble } from './chords/chord-ensemble';
export { CHORD_SHAPES } from './chords/chord-shapes.data';
export {
  BASS_NOTES,
  CHORD_INPUTS,
  createChordNetwork,
  SHAPES,
  HIGHEST_BASS,
  LOWEST_BASS,
  ACTIVATIONS,
  CONTEXT_NOTES,
  writeChordInput,
  type ChordNetworkWeights,
} from './chords/chord-network';
export { enumerateMeters, gridOfMeter, METER_FEATURES } from './meter/meter';
export type { MeterHypothesis, MeterStrum } from './meter/meter';
export { scoreMeters, standardisedFeatures } from './meter/score-meters';
export type { MeterNetworkWeights, MeterWeights } from './meter/score-meters';
export { applyLayer, readLayer } from './net/network';
export { logistic, logOdds, softmax } from './net/probability';
export { FIRST_HEARD_NOTE, hearNotes } from './chords/heard-notes';
export type { HeardNotes, NoteSpan } from './chords/heard-notes';
export type { LayerWeights } from './net/network';
