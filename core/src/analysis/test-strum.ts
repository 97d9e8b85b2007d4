/** A power chord as it was heard, for tests. */
import type { HeardAlternative, HeardStrum } from '../mir';

export function heardFifth(
  midi: readonly number[],
  rootPc: number,
  alternatives: readonly HeardAlternative[],
): HeardStrum {
  return {
    ...{ timeS: 0, endS: 1, midi, rootPc, quality: '5', confidence: 0.9, alternatives },
    ...{ palmMuted: false, dead: false },
  };
}
