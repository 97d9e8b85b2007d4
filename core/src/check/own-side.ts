/**
 * Which side of the recording plays what is written: for one of two guitars that the hearing has not told apart. Each side is asked
 * about the same strums.
 */
import { resumeHearing, type HeardBefore, type StereoSignal } from '../mir';
import { strumsInPasses, type SongDocument } from '../riff';

export type Side = 'left' | 'right' | 'both';

/** Strums asked about, spread over the song: more change no decision. */
const ASKED = 80;
/** One strum that a side has not must not decide. */
const LEAST = 0.01;
/** A side is taken where it explains a strum so much better than the other, in log-probability: doubled guitars differ by less. */
const CLEARLY = 0.3;

/** Of guitar 1 of this document; `both` where neither side has it alone, and for a recording in mono. */
export function ownSide(signal: StereoSignal, before: HeardBefore, document: SongDocument): Side {
  const [left, right] = signal.channels;
  const sounding = strumsInPasses(document).filter(({ midi }) => midi.length > 0);
  if (signal.channels.length < 2 || sounding.length === 0) return 'both';
  const step = Math.ceil(sounding.length / ASKED);
  const spans = sounding.filter((_, i) => i % step === 0);
  const explainedBy = (channel: Float32Array): number => {
    const chords = resumeHearing({ ...signal, channels: [channel] }, before).ask(spans);
    const likely = chords.map((chord, i) => Math.log(Math.max(LEAST, chord.probabilityOf(spans[i].midi))));
    return likely.reduce((sum, p) => sum + p, 0) / likely.length;
  };
  const [onLeft, onRight] = [explainedBy(left), explainedBy(right)];
  if (Math.abs(onLeft - onRight) < CLEARLY) return 'both';
  return onLeft > onRight ? 'left' : 'right';
}
