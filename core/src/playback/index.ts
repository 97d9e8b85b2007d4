export { holdSound } from './held-sound';
export type { HeldSound, SamplePeaks, StereoPair } from './held-sound';
export { createTabInStep } from './tab-in-step';
export type { TabInStep } from './tab-in-step';
export { createMix } from './mix';
export type { Mix } from './mix';
export { atOtherPitch } from './other-pitch';
export { partsFrom } from './order';
export { notesAt, stageAt } from './listen-in';
