export { align, ALIGNMENT_ALGORITHM } from './align';
export type { Alignment, AlignmentResult, MonoSignal, SameMoment } from './align';
export { timeMapOf } from './time-map';
export type { OnlyIn, TimeMap } from './time-map';
export { warpOutline } from './warp-outline';
