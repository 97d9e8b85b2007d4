export { createWitness, gatherEvidence, paperWitness, recallWitness } from './evidence';
export type { Evidence, Placing, StruckAt, StrumEvidence, Witness, WrittenStrum } from './evidence';
export { judge } from './judge';
export type { Doubts, Habit, Judgement, Reason, Verdict } from './judge';
export { JUDGE_VERSION, judgeSong, settledIn } from './judge-song';
export type { ExtraStrum, JudgedPlace, SongJudgement } from './judge-song';
export { ownSide } from './own-side';
export type { Side } from './own-side';
