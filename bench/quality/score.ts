/** The figures of one analysed song against its truth. */
import type { Analysis } from '@wild-needle/core/analysis';
import { fMeasure, matchTimes, pairwiseF, timesF, weightedRecall, type LabelledSpan } from './metrics';

export interface Truth {
  readonly strums: readonly {
    readonly timeS: number;
    readonly endS: number;
    readonly midi: readonly number[];
    readonly palmMuted: boolean;
    readonly dead?: boolean;
  }[];
  readonly downbeatsS: readonly number[];
  readonly sections: readonly LabelledSpan[];
}

export interface Figures {
  readonly onsetF: number;
  /** Shares of all true strums with pitch. */
  readonly lowestNote: number;
  readonly noteSet: number;
  readonly muteF: number;
  /** Share of sounding time with the right notes. */
  readonly soundingTime: number;
  readonly downbeatF: number;
  readonly sectionPairs: number;
}

const ONSET_S = 0.05;
const BEAT_S = 0.07;

export function score(analysis: Analysis, { strums, downbeatsS, sections }: Truth): Figures {
  const pairs = matchTimes(
    analysis.strums.map((s) => s.timeS),
    strums.map((s) => s.timeS),
    ONSET_S,
  );
  const pitched = strums.filter((s) => s.midi.length > 0).length;
  const share = (
    isRight: (heard: Analysis['strums'][number], truth: Truth['strums'][number]) => boolean,
  ): number =>
    pairs.filter(([h, t]) => strums[t].midi.length > 0 && isRight(analysis.strums[h], strums[t])).length /
    pitched;
  const muted = pairs.filter(([h, t]) => analysis.strums[h].palmMuted && strums[t].palmMuted).length;
  const spans = (some: Truth['strums']): LabelledSpan[] =>
    some.map(({ timeS, endS, midi }) => ({ startS: timeS, endS, label: midi.join() }));
  const first = downbeatsS[0] - 0.3;
  const last = downbeatsS[downbeatsS.length - 1] + 0.3;
  return {
    onsetF: fMeasure(pairs.length, analysis.strums.length, strums.length),
    lowestNote: share((heard, truth) => heard.midi[0] === truth.midi[0]),
    noteSet: share((heard, truth) => heard.midi.join() === truth.midi.join()),
    muteF: fMeasure(
      muted,
      analysis.strums.filter((s) => s.palmMuted).length,
      strums.filter((s) => s.palmMuted).length,
    ),
    soundingTime: weightedRecall(spans(analysis.strums), spans(strums)),
    downbeatF: timesF(
      analysis.downbeatsS.filter((t) => t > first && t < last),
      downbeatsS,
      BEAT_S,
    ),
    sectionPairs: pairwiseF(analysis.sections, sections),
  };
}
