/**
 * Longer recordings play at a lower rate, so that half an hour stays under 600 MB in the page, also while other ears are
 * made ready. A guitar loudspeaker carries 5 to 6 kHz; these rates carry 12 and 6.
 */
const LONG_RATES: readonly { readonly overS: number; readonly rate: number }[] = [
  { overS: 20 * 60, rate: 12_000 },
  { overS: 12 * 60, rate: 24_000 },
];

/** Samples a second for a recording of this length; undefined = as the sound device has it. */
export function playingRate(lengthS: number): number | undefined {
  return LONG_RATES.find((long) => lengthS > long.overS)?.rate;
}
