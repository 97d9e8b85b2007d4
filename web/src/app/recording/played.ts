/** How loud the sound is that waits to be played. */

/**
 * The stretcher plays from samples of 16 bits: half the memory of floats. The difference of the sides can be twice as loud as a
 * recording; what is left is 90 dB over the finest step.
 */
export const PLAYED_LOUDEST = 2;
