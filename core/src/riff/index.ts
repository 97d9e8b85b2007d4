export { isUnit, SETTLED_ANSWERS, TRUSTS, TUNE_TO, UNITS } from './enums';
export type { SettledAnswer, Trust, TuneTo, Unit } from './enums';
export { COUNT_LIMITS, fitText, isWithin, RANGES, TEXT_LIMITS } from './limits';
export { DOCUMENT_SCHEMA, PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG, PLAIN_STRUM } from './document';
export type {
  Bar,
  BarGroup,
  BarNote,
  BeatGrid,
  NamedLoop,
  PassAnswer,
  RecordingRef,
  Riff,
  RiffBar,
  Section,
  SettledStrum,
  SongDocument,
  Strum,
  Variation,
  WrittenAs,
} from './document';
export {
  barStartsTicks,
  barTimesS,
  countAt,
  nearestBarLine,
  nearestBeat,
  riffTicks,
  beatPeriodAt,
  overallTempo,
  tempoAt,
  timeAtBeat,
  ticksPerBeat,
} from './grid';
export { passesOf, passTicksToSeconds, secondsToPassTicks } from './passes';
export type { Pass } from './passes';
export {
  barsPerPass,
  endBarOf,
  playedPart,
  sectionBars,
  sectionTimesS,
  spanOver,
  spanSame,
} from './section-span';
export type { PlayedPart } from './section-span';
export type { Refusal } from './refusal';
export { quantise, SIXTEENTH } from './quantise';
export { countSyllable, rulerCounts } from './counts';
export type { CountMark } from './counts';
export {
  addStrums,
  changeRiff,
  clearFret,
  findStrum,
  lengthenStrums,
  markChecked,
  markUnchecked,
  rewriteStrums,
  moveStrums,
  placeBehind,
  removeStrums,
  repeatBar,
  setFret,
  setFrets,
  setMark,
  setStrumNote,
  setTrust,
  shiftFrets,
  soundingEndTicks,
} from './edit';
export { keepLoop, removeLoop, setReferenceCents, setTitle, setTuneTo } from './song-edit';
export {
  addPickUp,
  fillGap,
  freeBars,
  moveBarLine,
  moveDownbeat,
  setBarBeats,
  whyNotFill,
  whyNotFree,
  whyNotPickUp,
} from './bar-edit';
export { doubleTempo, FASTEST_BPM, halveTempo, whyNotDoubleTempo, whyNotHalve } from './tempo-edit';
export { setMeter, useReading } from './meter-edit';
export type { BarRange, Reading } from './meter-edit';
export { replaceGrid } from './regrid';
export type { Keeps } from './regrid';
export { layTapped, tappedBeats } from './tapped';
export type { Tapped } from './tapped';
export {
  addPasses,
  beginPart,
  beginSection,
  joinWithNext,
  lengthenSection,
  moveSection,
  orderOfPlay,
  passesWords,
  removeSection,
  renameSection,
  setSectionKey,
  setSectionRiff,
  setSectionTone,
  setSections,
  setSectionTranspose,
  confirmStart,
  splitSection,
  whyNotBegin,
  whyNotJoin,
  whyNotSplit,
} from './section-edit';
export {
  addSecondGuitar,
  asGuitar,
  changeAsGuitar,
  giveToOther,
  removeSecondGuitar,
  swapGuitars,
} from './guitars';
export type { GuitarNumber } from './guitars';
export { allLostNotes, leaveOutLost, lostNotes, retune, retuneStrums } from './retune';
export type { LostNotes } from './retune';
export { MARK_FIELDS, NO_MARKS } from './marks/fields';
export type { Marks } from './marks/fields';
export { applyMark, MARK_ROWS, MARKS, markWords } from './marks/marks';
export type { FretPlace, MarkCommand, MarkRow } from './marks/marks';
export { progressOf } from './progress';
export { changeReference, retimed } from './retime';
export type { SectionProgress, SongProgress } from './progress';
export { checkedCount, isBlank, isStruck, strokeOf, strumNotes } from './strum';
export {
  answerOf,
  isEnding,
  addVariation,
  keepVariation,
  mergeVariations,
  removeVariation,
  renameVariation,
  reopenPass,
  riffOfPass,
  sameRiff,
  useVariation,
  variationOf,
  whereVaried,
  withVariation,
} from './variation';
export { NOTHING_WRITTEN, settle, settledAt, signatureOf } from './settled';
export type { PlaceInPass } from './settled';
export { checkedBySection, strumsInPasses } from './strums-in-passes';
export type { StrumInPass } from './strums-in-passes';
export { bringRiffBack, changesBetween, SONG_PARTS } from './changes';
export type { SongChange, SongPart, StrumBrief } from './changes';
export { performDocument } from './performance';
export type { PitchPoint, PlayedStrum } from './performance';
export { atSteadyTempo } from './steady';
export { layerOf } from './layers';
export type { Layer } from './layers';
export {
  addBars,
  addRiff,
  barOf,
  beatInBar,
  mergeRiffs,
  nextLetter,
  removeRiff,
  renameRiff,
  setBarNote,
  setGroup,
  splitRiff,
  doubleRiff,
  whyNotMerge,
  whyNotDouble,
} from './riff-edit';
export { HAND_FIELDS, handFieldsOf } from './by-hand';
export type { HandField } from './by-hand';
