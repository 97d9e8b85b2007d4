/** Samples per second that analysis hears: power chords and the fizz of an amplifier live below 10 kHz. */
export const ANALYSIS_SAMPLE_RATE = 22050;
