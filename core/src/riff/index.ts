export { DOCUMENT_SCHEMA } from './document';
export type {
  Bar,
  BeatGrid,
  NamedLoop,
  RecordingRef,
  Riff,
  Section,
  SongDocument,
  Strum,
  Trust,
} from './document';
export {
  barStartsTicks,
  barTimesS,
  countAt,
  passesOf,
  passTicksToSeconds,
  riffTicks,
  secondsToPassTicks,
  tempoAt,
  ticksPerBeat,
} from './grid';
export type { Pass } from './grid';
export { retune } from './retune';
export type { LostNotes } from './retune';
export { countSyllable, rulerCounts } from './counts';
export type { CountMark } from './counts';
export {
  addStrum,
  clearFret,
  keepLoop,
  markChecked,
  moveStrum,
  placeBehind,
  removeLoop,
  removeStrum,
  setFret,
  setFrets,
  setReferenceCents,
  setTitle,
  setTuneTo,
  soundingEndTicks,
  toggleDead,
  togglePalmMute,
} from './edit';
export {
  doubleTempo,
  gridFromTaps,
  halveTempo,
  moveBarLine,
  moveOne,
  replaceGrid,
  setBarBeats,
  whyNotHalve,
} from './grid-edit';
export {
  addPasses,
  joinWithNext,
  moveSection,
  orderOfPlay,
  renameSection,
  setSectionRiff,
  setSections,
  setSectionTranspose,
  splitSection,
  whyNotJoin,
} from './section-edit';
