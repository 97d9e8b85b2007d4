/**
 * A recording about a quarter tone off can be written on either side: sharp of these notes, or flat of those a semitone
 * higher. A cent of measuring error must not decide that; what decides is which notes a usual tuning plays with less
 * effort.
 */
import { rankTunings } from '../guitar';
import { estimateKey, estimateSectionKeys, type Heard, type HeardStrum } from '../mir';

/** The same hearing, written on the likelier side. The offset may then lie a little over 50 cents. */
export function chooseQuarterToneSide(heard: Heard): Heard {
  const { reference } = heard;
  if (!reference?.isNearQuarterTone) return heard;
  const semitones = reference.cents > 0 ? 1 : -1;
  const move = (some: readonly HeardStrum[]): HeardStrum[] =>
    some.map((strum) => ({
      ...strum,
      midi: strum.midi.map((note) => note + semitones),
      alternatives: strum.alternatives.map((a) => ({ ...a, midi: a.midi.map((note) => note + semitones) })),
      rootPc: strum.rootPc === null ? null : (strum.rootPc + semitones + 12) % 12,
    }));
  const strums = move(heard.strums);
  const costOf = (some: Heard['strums']): number => rankTunings(some)[0]?.cost ?? 0;
  if (costOf(strums) >= costOf(heard.strums)) return heard;
  const keys = estimateSectionKeys(strums, heard.sections);
  return {
    ...heard,
    strums,
    guitars: heard.guitars.map((guitar) => ({ ...guitar, strums: move(guitar.strums) })),
    reference: {
      ...reference,
      cents: reference.cents - 100 * semitones,
      overTime: reference.overTime.map((o) => ({ ...o, cents: o.cents - 100 * semitones })),
    },
    key: estimateKey(strums),
    sections: heard.sections.map((section, s) => ({
      ...section,
      key: keys[s],
    })),
  };
}
