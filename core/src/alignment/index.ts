export { align, ALIGNMENT_ALGORITHM } from './align';
export type { Alignment, AlignmentResult, SameMoment } from './align';
export type { MonoSignal } from './sound-features';
export { timeMapOf } from './time-map';
export type { OnlyIn, TimeMap } from './time-map';
export { warpOutline } from './warp-outline';
