export { separateRoughly } from './rough';
export { siSdrDb } from './si-sdr';
