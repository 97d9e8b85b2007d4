/**
 * How well a sound was separated: the scale-invariant signal-to-distortion ratio (Le Roux, Wisdom, Erdogan and Hershey 2019,
 * "SDR - half-baked or well done?", ICASSP, equation 5).
 */

/**
 * dB; the estimate may be louder or softer than the reference. Channels are taken one after the other, as one long vector. Infinity for
 * an estimate that is the reference but for its level; null where the reference is silent, since no estimate can be near to it. Throws a
 * RangeError for channels of other lengths.
 */
export function siSdrDb(
  reference: readonly Float32Array[],
  estimate: readonly Float32Array[],
): number | null {
  if (reference.length !== estimate.length || reference.some((c, i) => c.length !== estimate[i].length)) {
    throw new RangeError('reference and estimate must have as many channels of the same length');
  }
  let [ofReference, common] = [0, 0];
  reference.forEach((channel, c) => {
    for (let n = 0; n < channel.length; n++) {
      ofReference += channel[n] * channel[n];
      common += channel[n] * estimate[c][n];
    }
  });
  if (ofReference === 0) return null;
  const scale = common / ofReference;
  let distortion = 0;
  reference.forEach((channel, c) => {
    for (let n = 0; n < channel.length; n++) distortion += (scale * channel[n] - estimate[c][n]) ** 2;
  });
  return 10 * Math.log10((scale * scale * ofReference) / distortion);
}
