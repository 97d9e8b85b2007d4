/** The outline of recorded sound as an SVG path: mirrored around the middle, one step per pixel. */
import { area } from 'd3-shape';
import { ENVELOPE_RATE, loudestPeak, type PeakPyramid } from '@wild-needle/core/units';

/** Loudest value of the envelope in [fromS, toS), 0 to 1. */
function loudest(envelope: PeakPyramid, fromS: number, toS: number): number {
  const from = Math.max(0, Math.floor(fromS * ENVELOPE_RATE));
  const to = Math.max(from + 1, Math.ceil(toS * ENVELOPE_RATE));
  return loudestPeak(envelope, from, to) / 255;
}

/** `timeAt` says which second stands at a pixel; it may run unevenly, as over beats that drift. */
export function groovePath(
  envelope: PeakPyramid,
  widthPx: number,
  heightPx: number,
  timeAt: (xPx: number) => number,
  { stepPx = 1, topPx = 0 } = {},
): string {
  const columns: { x: number; half: number }[] = [];
  for (let x = 0; x < widthPx; x += stepPx) {
    const level = loudest(envelope, timeAt(x), timeAt(x + stepPx));
    columns.push({ x, half: Math.max(0.5, (level * heightPx) / 2) });
  }
  const middle = topPx + heightPx / 2;
  return (
    area<{ x: number; half: number }>()
      .x((c) => Math.round(c.x))
      .y0((c) => Math.round((middle + c.half) * 10) / 10)
      .y1((c) => Math.round((middle - c.half) * 10) / 10)(columns) ?? ''
  );
}

/** The samples themselves as an SVG path: the lowest and highest of each column, joined. -1 to 1 fills the height. */
export function samplePath(
  lows: Float32Array,
  highs: Float32Array,
  widthPx: number,
  heightPx: number,
): string {
  const step = widthPx / Math.max(1, lows.length);
  const y = (value: number): number => Math.round((heightPx / 2) * (1 - value) * 10) / 10;
  const columns = Array.from(lows, (low, i) => ({ x: i * step, low, high: highs[i] }));
  return (
    area<{ x: number; low: number; high: number }>()
      .x((c) => Math.round(c.x * 10) / 10)
      // A line that is thinner than a pixel is not seen.
      .y0((c) => y(c.low) + 0.5)
      .y1((c) => y(c.high) - 0.5)(columns) ?? ''
  );
}
