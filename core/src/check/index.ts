export { gatherEvidence } from './evidence';
export type { Evidence, StrumEvidence, WrittenStrum } from './evidence';
export { judge } from './judge';
export type { Doubts, Judgement, Verdict } from './judge';
