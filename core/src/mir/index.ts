export { ANALYSIS_SAMPLE_RATE } from './types';
export type {
  BeatGrid,
  HeardSection,
  HeardStrum,
  KeyEstimate,
  Meter,
  ReferenceOffset,
  StereoSignal,
} from './types';
export { estimateReferenceOffset } from './reference-offset';
export { listen } from './listen';
export type { Heard, OnProgress } from './listen';
