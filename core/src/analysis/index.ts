export { ALGORITHM_VERSION, analyse, fretList } from './analyse';
export type { AnalysedStrum, AnalyseOptions, Analysis, RankedVoicing } from './analyse';
export type { Doubt } from './doubts';
export { draftDocument } from './draft';
export { settledIn } from './settle';
