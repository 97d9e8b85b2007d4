/** The spectra of each strum, through the chord network. */
import { createChordNetwork, type ChordEvidence, type ChordNetworkWeights } from './chord-network';
import { createChordSpectrum, SPECTRUM_SIZE } from './chord-spectrum';
import type { StrumSpan } from './sounding-end';
import type { MidSide } from './stereo';

/** Pick noise is over after this; the chord is read from here until just before the next strum. */
const AFTER_ONSET_S = 0.012;
const BEFORE_NEXT_S = 0.005;

export function gatherEvidence(
  { mid, side }: MidSide,
  sampleRate: number,
  strums: readonly StrumSpan[],
  offsetCents: number,
  weights: ChordNetworkWeights,
  onStrum: (index: number) => void,
): ChordEvidence[] {
  const extract = createChordSpectrum(sampleRate);
  const network = createChordNetwork(weights);
  const midSpectrum = new Float32Array(SPECTRUM_SIZE);
  const sideSpectrum = new Float32Array(SPECTRUM_SIZE);
  return strums.map(({ timeS, endS }, index) => {
    const from = Math.round((timeS + AFTER_ONSET_S) * sampleRate);
    const to = Math.round((endS - BEFORE_NEXT_S) * sampleRate);
    extract(mid, from, to, offsetCents, midSpectrum);
    if (side) extract(side, from, to, offsetCents, sideSpectrum);
    onStrum(index);
    return network(midSpectrum, side ? sideSpectrum : null);
  });
}
