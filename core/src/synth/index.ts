export { renderBand } from './band';
export type { BandOptions } from './band';
