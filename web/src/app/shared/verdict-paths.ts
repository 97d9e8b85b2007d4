/**
 * The five verdicts as SVG paths around a place: agrees = solid disc, doubtful = hollow diamond with ?, clashes = two wedges
 * meeting, missing = dashed ring, not checked = dash. The same in lists, rows and panels.
 */
import type { Verdict } from '@wild-needle/core/draft';

const circle = (x: number, y: number, r: number): string =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;

/** `x`, `y`: the middle; drawn about 13 pixels wide. */
export function verdictPath(verdict: Verdict, x: number, y: number): string {
  const r = (v: number): number => Math.round(v * 10) / 10;
  const [cx, cy] = [r(x), r(y)];
  switch (verdict) {
    case 'agrees':
      return circle(cx, cy, 3.5);
    case 'doubtful':
      return (
        `M${cx} ${r(cy - 5.7)}l5.7 5.7l-5.7 5.7l-5.7 -5.7Z` +
        `M${r(cx - 1.4)} ${r(cy - 1.2)}a1.5 1.5 0 1 1 2.1 1.4c-.5.3-.7.5-.7 1M${cx} ${r(cy + 2.6)}v.2`
      );
    case 'clashes':
      return `M${r(cx - 6)} ${r(cy - 4.8)}l6 4.8l-6 4.8ZM${r(cx + 6)} ${r(cy - 4.8)}l-6 4.8l6 4.8Z`;
    case 'missing':
      return circle(cx, cy, 4.8);
    case 'unchecked':
      return `M${r(cx - 3.5)} ${cy}h7`;
  }
}

export const VERDICTS: readonly Verdict[] = ['agrees', 'doubtful', 'clashes', 'missing', 'unchecked'];
