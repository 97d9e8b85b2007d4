export { ALGORITHM_VERSION, analyse, fretList } from './analyse';
export type { AnalysedStrum, Analysis, RankedVoicing } from './analyse';
export { draftDocument } from './draft';
