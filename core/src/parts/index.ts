export { PARTS } from './parts';
export type { BandParts, Part } from './parts';
export {
  interleaveParts,
  keptOf,
  KEPT_SAMPLES,
  MARGIN_S,
  PIECE_CHANNELS,
  PIECE_S,
  pieceCount,
  pieceOrder,
  piecesOf,
  SEPARATION_RATE,
  WINDOW_SAMPLES,
  windowStart,
} from './pieces';
export { missingParts, powersOf } from './missing';
export type { LeaksDb, PartPowers } from './missing';
export {
  gainsOf,
  GUITARS_ALONE,
  PART_LEVELS_DB,
  setLevel,
  toggleAlone,
  toggleSilent,
  WHOLE_BAND,
} from './part-mix';
export type { PartGains, PartMix } from './part-mix';
