export { createLiveJudge } from './live-judge';
export type { JudgedRound, LiveAnswer, LiveJudge, LiveOptions, LiveRound } from './live-judge';
export { mistakesOf, playSimulated, SIMULATED_DELAY_S } from './simulated-player';
export { simulatedTake } from './simulated-take';
