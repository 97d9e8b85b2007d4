/** The spectra of each strum, through the chord networks; a strum that was read already is not read again. */
import { createChordEnsemble, type ChordEnsembleWeights } from './chord-ensemble';
import type { ChordEvidence } from './chord-network';
import { AFTER_ONSET_S, createChordSpectrum, SPECTRUM_SIZE, STEADY } from './chord-spectrum';
import type { MidSide, StrumSpan } from '../types';

/** A chord is read until just before the next strum. */
const BEFORE_NEXT_S = 0.005;

export function createEvidence(
  { mid, side }: MidSide,
  sampleRate: number,
  offsetCents: number,
  weights: ChordEnsembleWeights,
): (span: StrumSpan) => ChordEvidence {
  const extract = createChordSpectrum(sampleRate, STEADY);
  const network = createChordEnsemble(weights);
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
