/** The spectra of each strum, through the chord networks; a strum that was read already is not read again. */
import { createChordCommittee, type ChordCommitteeWeights } from './chord-committee';
import type { ChordEvidence } from './chord-network';
import { createChordSpectrum, SPECTRUM_SIZE } from './chord-spectrum';
import type { StrumSpan } from './sounding-end';
import type { MidSide } from './stereo';

/** Pick noise is over after this; the chord is read from here until just before the next strum. */
const AFTER_ONSET_S = 0.012;
const BEFORE_NEXT_S = 0.005;

export function createEvidence(
  { mid, side }: MidSide,
  sampleRate: number,
  offsetCents: number,
  weights: ChordCommitteeWeights,
): (span: StrumSpan) => ChordEvidence {
  const extract = createChordSpectrum(sampleRate);
  const network = createChordCommittee(weights);
  const midSpectrum = new Float32Array(SPECTRUM_SIZE);
  const sideSpectrum = new Float32Array(SPECTRUM_SIZE);
  const known = new Map<string, ChordEvidence>();
  return ({ timeS, endS }) => {
    const from = Math.round((timeS + AFTER_ONSET_S) * sampleRate);
    const to = Math.round((endS - BEFORE_NEXT_S) * sampleRate);
    const id = `${from}/${to}`;
    const before = known.get(id);
    if (before) return before;
    extract(mid, from, to, offsetCents, midSpectrum);
    if (side) extract(side, from, to, offsetCents, sideSpectrum);
    const evidence = network(midSpectrum, side ? sideSpectrum : null);
    known.set(id, evidence);
    return evidence;
  };
}
