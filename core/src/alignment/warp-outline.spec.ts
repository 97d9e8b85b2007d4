import { expect, it } from 'vitest';
import { ENVELOPE_RATE } from '../units';
import { warpOutline } from './warp-outline';

it('shows the outline of another recording at its place in the reference', () => {
  // Loud in its second second, which is the first of the reference, at half the tempo.
  const other = new Uint8Array(4 * ENVELOPE_RATE);
  other.fill(200, ENVELOPE_RATE, 3 * ENVELOPE_RATE);
  const outline = warpOutline(other, 2, (t) => 1 + 2 * t);
  expect(outline).toHaveLength(2 * ENVELOPE_RATE);
  expect(outline[ENVELOPE_RATE / 2]).toBe(200);
  expect(outline[1.5 * ENVELOPE_RATE]).toBe(0);
  // Before it begins there is nothing.
  expect(warpOutline(other, 1, (t) => t - 5).every((v) => v === 0)).toBe(true);
});
