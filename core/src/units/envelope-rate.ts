/** Values per second of a recording's drawn outline: a bar of 2 s on 400 pixels still has one per pixel. */
export const ENVELOPE_RATE = 200;
