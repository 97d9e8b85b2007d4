/** What a strum is drawn with, marked or not: SVG paths around its block. */
import type { StrumBlock } from './row-layout';

/** Tenths of a pixel are enough. */
export const r = (v: number): number => Math.round(v * 10) / 10;

/** Curved wedge from block height to a point at the end of the ring; a short strum has a flat stub instead. */
export function tailPath({ x, width, top, height, tailX, marks }: StrumBlock): string {
  const start = x + width - 2;
  const middle = top + height / 2;
  if (marks.length === 'short') return `M${r(start)} ${r(top + 5)}h8v${r(height - 10)}h-8Z`;
  const bend = start + (tailX - start) * 0.45;
  return (
    `M${r(start)} ${r(top + 2)} Q${r(bend)} ${r(middle - height * 0.12)} ${r(tailX)} ${r(middle)} ` +
    `Q${r(bend)} ${r(middle + height * 0.12)} ${r(start)} ${r(top + height - 2)}Z`
  );
}

/** A cross on one string of a dead stroke. */
export function crossPath({ x, width }: StrumBlock, y: number): string {
  const half = r(Math.min(6, width / 2));
  const middle = x + Math.min(8, width / 2);
  return `M${r(middle - half)} ${y - half}l${2 * half} ${2 * half}m0 ${-2 * half}l${-2 * half} ${2 * half}`;
}

/** Brackets round the chosen strum. */
export function bracketPath({ x, width, top, height }: StrumBlock): string {
  const [left, right, up, down] = [x - 6, x + width + 6, top - 5, top + height + 5];
  return `M${left + 7} ${up}H${left}V${down}H${left + 7} M${right - 7} ${up}H${right}V${down}H${right - 7}`;
}

/** A wedge under the strings: filled and pointing down, or hollow and pointing up. */
export function strokePath({ x, width, top, height }: StrumBlock, direction: 'down' | 'up'): string {
  const middle = x + Math.min(width, 28) / 2;
  const y = top + height + 4;
  return direction === 'down'
    ? `M${r(middle - 5)} ${r(y)}h10l-5 9Z`
    : `M${r(middle - 5)} ${r(y + 9)}h10l-5 -9Z`;
}

export function diamondPath(x: number, y: number, half: number): string {
  return `M${r(x)} ${r(y - half)}L${r(x + half)} ${r(y)}L${r(x)} ${r(y + half)}L${r(x - half)} ${r(y)}Z`;
}
