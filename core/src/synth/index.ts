export { renderBand, renderGuitar } from './band';
export type { BandOptions } from './band';
export { addPluck } from './plucked-string';
export { createTabPlayer } from './tab';
export type { TabPlayer } from './tab';
