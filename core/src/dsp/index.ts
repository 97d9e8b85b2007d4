export { hannWindow } from './window';
export { createSpectrumAnalyser } from './spectrum';
export type { SpectrumAnalyser } from './spectrum';
export { createLogFilterbank } from './log-filterbank';
export { parabolicPeak, pickPeaks } from './peaks';
export { cosineSimilarity, median, quantile } from './statistics';
export { applyBiquad, highPass, lowPass, peaking } from './biquad';
export type { Biquad } from './biquad';
export { peakEnvelope } from './envelope';
