/** Each string of a tuning as a player tunes it: note, frequency, steps from standard, and how hard it pulls. */
import type { MidiNote, StringNumber } from '../units';
import { a4OfOffset, midiToHz } from '../theory';
import {
  judgeTension,
  stringTension,
  USUAL_GAUGES,
  USUAL_SCALE_MM,
  type StringGauge,
  type TensionVerdict,
} from './string-tension';
import type { Tuning } from './tuning';

export interface StringTarget {
  readonly string: StringNumber;
  readonly midi: MidiNote;
  readonly freqHz: number;
  /** Semitones from the standard tuning of a guitar with as many strings; negative = down. */
  readonly steps: number;
  readonly gauge: StringGauge;
  readonly tensionKg: number;
  readonly verdict: TensionVerdict;
}

/** Standard strings, highest first, down to the eighth (common practice: fourths below the sixth). */
const STANDARD = [64, 59, 55, 50, 45, 40, 35, 30, 25, 20, 15, 10];

export interface StringOptions {
  /** How far above A4 = 440 Hz the guitar is tuned. */
  readonly offsetCents: number;
  readonly gauges?: readonly StringGauge[];
  readonly scaleMm?: number;
}

/** Lowest string first, as tunings are listed. */
export function describeStrings(
  { stringsMidi }: Tuning,
  { offsetCents, gauges = USUAL_GAUGES, scaleMm = USUAL_SCALE_MM }: StringOptions,
): StringTarget[] {
  return stringsMidi.map((midi, i) => {
    const string = stringsMidi.length - i;
    const freqHz = midiToHz(midi, a4OfOffset(offsetCents));
    const gauge = gauges[Math.min(string, gauges.length) - 1];
    const tensionKg = stringTension(gauge, freqHz, scaleMm);
    return {
      string,
      midi,
      freqHz,
      steps: midi - STANDARD[string - 1],
      gauge,
      tensionKg,
      verdict: judgeTension(tensionKg, gauge.isWound),
    };
  });
}
