export { TICKS_PER_QUARTER } from './brands';
export type { MidiNote, PitchClass, StringNumber, Ticks } from './brands';
export { clamp, requireRange } from './range';
export { createRandom, gaussian } from './random';
export type { Random } from './random';
export { dbToRatio, ratioToDb } from './level';
export { ANALYSIS_SAMPLE_RATE } from './analysis-rate';
export { ENVELOPE_RATE } from './envelope-rate';
