/**
 * The reference offset once more, now that the notes are known: only partials of the notes themselves are read, at
 * octaves and fifths over them, so that neither fifth partials (14 cents flat) nor tones of distortion pull. For
 * recordings near a quarter tone off, where a cent decides on which side they are written.
 */
import { createSpectrumAnalyser, parabolicPeak } from '../dsp';
import { midiToHz } from '../theory';
import type { MidiNote } from '../units';
import type { StrumSpan } from './sounding-end';

/** Partials that lie within two cents of equal temperament. */
const PARTIALS = [1, 2, 3, 4, 6, 8];
const FFT_SIZE = 16384;
/** Strums shorter than this show no pitch to the cent. */
const SHORTEST_S = 0.18;
const LONGEST_S = 0.7;
const AFTER_ONSET_S = 0.03;
/** At most this many strums, spread evenly: more change nothing. */
const MAX_STRUMS = 150;
/** Peaks farther off are other notes. */
const SEARCH_CENTS = 40;
/** Width of the kernel of the mean shift, cents. */
const KERNEL_CENTS = 4;
const MAX_HZ = 1800;

/** Cents to add to `offsetCents`; null when too little was heard to say. */
export function refineOffset(
  samples: Float32Array,
  sampleRate: number,
  strums: readonly (StrumSpan & { readonly midi: readonly MidiNote[] })[],
  offsetCents: number,
): number | null {
  const long = strums.filter((s) => s.midi.length > 0 && s.endS - s.timeS >= SHORTEST_S);
  const step = Math.max(1, Math.ceil(long.length / MAX_STRUMS));
  const analyser = createSpectrumAnalyser(FFT_SIZE);
  const magnitudes = new Float32Array(analyser.bins);
  const binHz = sampleRate / FFT_SIZE;
  const found: { cents: number; weight: number }[] = [];
  for (let i = 0; i < long.length; i += step) {
    const { timeS, endS, midi } = long[i];
    const from = Math.round((timeS + AFTER_ONSET_S) * sampleRate);
    const length = Math.round((Math.min(LONGEST_S, endS - timeS) - AFTER_ONSET_S) * sampleRate);
    analyser.magnitudes(samples, from, magnitudes, length);
    for (const note of midi) {
      for (const partial of PARTIALS) {
        const hz = midiToHz(note + offsetCents / 100) * partial;
        if (hz > MAX_HZ) break;
        const low = Math.ceil((hz * 2 ** (-SEARCH_CENTS / 1200)) / binHz);
        const high = Math.floor((hz * 2 ** (SEARCH_CENTS / 1200)) / binHz);
        let peak = low;
        for (let k = low; k <= high; k++) if (magnitudes[k] > magnitudes[peak]) peak = k;
        // A slope towards another partial is no peak.
        if (peak === low || peak === high || magnitudes[peak] <= 1e-6) continue;
        const { offset } = parabolicPeak(
          Math.log(magnitudes[peak - 1] + 1e-12),
          Math.log(magnitudes[peak]),
          Math.log(magnitudes[peak + 1] + 1e-12),
        );
        const cents = 1200 * Math.log2(((peak + offset) * binHz) / hz);
        found.push({ cents, weight: Math.sqrt(magnitudes[peak]) });
      }
    }
  }
  if (found.length < 12) return null;
  let mode = 0;
  for (let round = 0; round < 30; round++) {
    let [sum, total] = [0, 0];
    for (const { cents, weight } of found) {
      const w = weight * Math.exp(-0.5 * ((cents - mode) / KERNEL_CENTS) ** 2);
      sum += w * cents;
      total += w;
    }
    if (total === 0) return null;
    mode = sum / total;
  }
  return mode;
}
