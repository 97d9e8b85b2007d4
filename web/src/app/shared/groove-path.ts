/** The outline of recorded sound as an SVG path: mirrored around the middle, one step per pixel. */
import { area } from 'd3-shape';
import { ENVELOPE_RATE } from '@wild-needle/core/units';

/** Loudest value of the envelope in [fromS, toS), 0 to 1. */
function loudest(envelope: Uint8Array, fromS: number, toS: number): number {
  const from = Math.max(0, Math.floor(fromS * ENVELOPE_RATE));
  const to = Math.min(envelope.length, Math.max(from + 1, Math.ceil(toS * ENVELOPE_RATE)));
  let peak = 0;
  for (let i = from; i < to; i++) if (envelope[i] > peak) peak = envelope[i];
  return peak / 255;
}

/** `timeAt` says which second stands at a pixel; it may run unevenly, as over beats that drift. */
export function groovePath(
  envelope: Uint8Array,
  widthPx: number,
  heightPx: number,
  timeAt: (xPx: number) => number,
  stepPx = 1,
): string {
  const columns: { x: number; half: number }[] = [];
  for (let x = 0; x < widthPx; x += stepPx) {
    const level = loudest(envelope, timeAt(x), timeAt(x + stepPx));
    columns.push({ x, half: Math.max(0.5, (level * heightPx) / 2) });
  }
  const middle = heightPx / 2;
  return (
    area<{ x: number; half: number }>()
      .x((c) => Math.round(c.x))
      .y0((c) => Math.round((middle + c.half) * 10) / 10)
      .y1((c) => Math.round((middle - c.half) * 10) / 10)(columns) ?? ''
  );
}
