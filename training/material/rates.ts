/** Songs are made at this rate and heard at the analysis' own. */
export const SAMPLE_RATE = 44100;
