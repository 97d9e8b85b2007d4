export { renderBand } from './band';
export type { BandOptions } from './band';
export { addPluck } from './plucked-string';
