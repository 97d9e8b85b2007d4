export { ROUGH_LEAKS_DB, separateRoughly } from './rough';
export { siSdrDb } from './si-sdr';
