/**
 * A seeded generator, so that synthesized sound and generated test material are the same on every run.
 * Method: mulberry32 by Tommy Ettinger (public domain), a 32-bit state mixed by multiply and xor-shift.
 */
export type Random = () => number;

/** Uniform numbers in [0, 1); the same seed gives the same sequence. */
export function createRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Standard normal numbers by the Box–Muller transform (Box and Muller 1958). */
export function gaussian(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
