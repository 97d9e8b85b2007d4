/** Analysis windows. */

/** Periodic Hann window of `size` samples (Harris 1978, "On the use of windows", eq. 27). */
export function hannWindow(size: number): Float32Array {
  const window = new Float32Array(size);
  for (let i = 0; i < size; i++) window[i] = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size);
  return window;
}
