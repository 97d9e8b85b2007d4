/**
 * A recording about a quarter tone off can be written on either side: sharp of these notes, or flat of those a semitone
 * higher. A cent of measuring error must not decide that; what decides is which notes a usual tuning plays with less
 * effort.
 */
import { rankTunings } from '../guitar';
import { estimateKey, type Heard } from '../mir';

/** From here on the other side is weighed too. */
const UNSETTLED_CENTS = 45;

/** The same hearing, written on the likelier side. The offset may then lie a little over 50 cents. */
export function settleQuarterTone(heard: Heard): Heard {
  const { reference } = heard;
  if (!reference || Math.abs(reference.cents) < UNSETTLED_CENTS) return heard;
  const semitones = reference.cents > 0 ? 1 : -1;
  const strums = heard.strums.map((strum) => ({
    ...strum,
    midi: strum.midi.map((note) => note + semitones),
    rootPc: strum.rootPc === null ? null : (strum.rootPc + semitones + 12) % 12,
  }));
  const costOf = (some: Heard['strums']): number => rankTunings(some.map((s) => s.midi))[0]?.cost ?? 0;
  if (costOf(strums) >= costOf(heard.strums)) return heard;
  return {
    ...heard,
    strums,
    reference: { ...reference, cents: reference.cents - 100 * semitones },
    key: estimateKey(strums),
  };
}
