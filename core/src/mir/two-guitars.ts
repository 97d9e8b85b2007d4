/**
 * Two guitars that play different things, one to each side. Takes that double each other sound alike left and right at
 * every strum; where too many do not, each side is heard on its own, and when the two lists then still differ, each
 * guitar keeps its own. A guitar in the middle belongs to both sides and is not told apart here.
 */
import { cosineSimilarity } from '../dsp';
import { SAME_STROKE_S } from '../units';
import { AFTER_ONSET_S, createChordSpectrum, SPECTRUM_SIZE } from './chords/chord-spectrum';
import { createStrumHearing } from './hear-strums';
import type { KnownForm } from './read-chords';
import { NOTHING_CONFIRMED } from './confirmed';
import type { HeardStrum, StereoSignal } from './types';

export interface HeardGuitar {
  readonly side: 'left' | 'right';
  readonly strums: readonly HeardStrum[];
}

/** Strums looked at, spread over the song: more change no decision. */
const SAMPLED_STRUMS = 80;
/** Spectra of doubled takes agree further than this even through different amplifiers. */
const ALIKE_SPECTRA = 0.4;
/** From this share of unlike strums on, it is worth hearing each side. */
const UNLIKE_SHARE = 0.25;
/** Lists that agree on this share of strums are one part, played twice. */
const SAME_PART_SHARE = 0.7;

/** Share of strums at which left and right sound different chords, 0 to 1. */
export function unlikeShare(
  { channels, sampleRate }: StereoSignal,
  strums: readonly HeardStrum[],
  offsetCents: number,
): number {
  const pitched = strums.filter((s) => !s.dead);
  if (channels.length < 2 || pitched.length === 0) return 0;
  const step = Math.max(1, Math.floor(pitched.length / SAMPLED_STRUMS));
  const extract = createChordSpectrum(sampleRate);
  const spectra = [new Float32Array(SPECTRUM_SIZE), new Float32Array(SPECTRUM_SIZE)];
  let unlike = 0;
  let count = 0;
  for (let k = 0; k < pitched.length; k += step, count++) {
    const { timeS, endS } = pitched[k];
    const [from, to] = [Math.round((timeS + AFTER_ONSET_S) * sampleRate), Math.round(endS * sampleRate)];
    spectra.forEach((spectrum, c) => extract(channels[c], from, to, offsetCents, spectrum));
    if (cosineSimilarity(spectra[0], spectra[1]) < ALIKE_SPECTRA) unlike++;
  }
  return unlike / count;
}

/** Share of strums that both lists have at the same time with the same notes. */
export function agreement(a: readonly HeardStrum[], b: readonly HeardStrum[]): number {
  let [i, j, same] = [0, 0, 0];
  while (i < a.length && j < b.length) {
    const gap = a[i].timeS - b[j].timeS;
    if (Math.abs(gap) <= SAME_STROKE_S) {
      if (a[i].midi.join() === b[j].midi.join()) same++;
      i++;
      j++;
    } else if (gap < 0) i++;
    else j++;
  }
  return same / Math.max(1, a.length, b.length);
}

/** Empty for one channel, for one guitar, and for two that double each other. */
export function hearGuitarsApart(
  signal: StereoSignal,
  together: readonly HeardStrum[],
  offsetCents: number,
  known: KnownForm,
  onShare: (share: number) => void,
): HeardGuitar[] {
  if (unlikeShare(signal, together, offsetCents) < UNLIKE_SHARE) return [];
  const durationS = signal.channels[0].length / signal.sampleRate;
  const [left, right] = signal.channels.map((mid, c) => {
    const only = { whole: { mid, side: null }, guitars: null };
    const hearing = createStrumHearing(only, signal.sampleRate, offsetCents, durationS, NOTHING_CONFIRMED);
    return hearing.hear({ ...known, lowerGuitar: null }, (share) => onShare((c + share) / 2)).strums;
  });
  if (left.length === 0 || right.length === 0 || agreement(left, right) >= SAME_PART_SHARE) return [];
  return [
    { side: 'left', strums: left },
    { side: 'right', strums: right },
  ];
}
