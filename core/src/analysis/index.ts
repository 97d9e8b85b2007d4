export { ALGORITHM_VERSION, analyse } from './analyse';
export type { AnalysedStrum, AnalyseOptions, Analysis, RankedVoicing } from './analyse';
export type { Doubt } from './doubts';
