/** The four parts that a band is taken apart into. */

export const PARTS = ['drums', 'bass', 'voice', 'guitars'] as const;
/** `guitars`: and all the rest. */
export type Part = (typeof PARTS)[number];

/** Left and right of each part. */
export type BandParts = Readonly<Record<Part, readonly [Float32Array, Float32Array]>>;
