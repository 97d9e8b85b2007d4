export { draftInto } from './draft';
export type { Draft } from './draft';
export { confirmedIn } from './confirmed';
export { strokesOfPass, strumsOfPass } from './place';
export type { HeardStroke } from './place';
export { strumsAsHeard } from './write';
export { comparePass, isNotable, ownDifferences, sharedDifferences } from './compare';
export type { Difference, PassComparison, StrumVerdict, Verdict } from './compare';
export { variationOfPass } from './variation-of-pass';
