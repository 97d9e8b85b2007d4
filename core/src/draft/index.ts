export {
  changePassTo,
  changeRiffTo,
  fretsNear,
  keepWritten,
  leaveDoubtful,
  placesOfStrum,
} from './answer-place';
export type { AskedPlace, HeardThere, Instead } from './answer-place';
export { draftInto, draftPart } from './draft';
export type { Draft } from './draft';
export { confirmedIn } from './confirmed';
export { strokesOfPass, strumsOfPass } from './place';
export type { HeardStroke } from './place';
export { strumsAsHeard } from './write';
export { asHeard, canTake, suggestionsFor, takeSuggestion } from './heard-again';
export type { Suggestion } from './heard-again';
export { rootProbability } from './root-probability';
export { comparePass, isNotable, ownDifferences, sharedDifferences } from './compare';
export type { Difference, PassComparison, StrumVerdict, Verdict } from './compare';
export { variationOfPass } from './variation-of-pass';
export { wholeMoveOf, wholePassVariation } from './whole-pass';
export type { WholeMove } from './whole-pass';
