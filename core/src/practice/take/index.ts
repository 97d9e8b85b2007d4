export { judgeTake, placeTake } from './judge-take';
export type { JudgedStrum, JudgedTake, PlacedTake, Take } from './judge-take';
