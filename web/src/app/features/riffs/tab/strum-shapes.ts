/** The lines that strums and their marks are drawn with: SVG paths around a block. */
import type { Join, StrumBlock } from './row-layout';

const r = (v: number): number => Math.round(v * 10) / 10;

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
export function crossPath(x: number, y: number): string {
  return `M${x - 6} ${y - 6} l12 12 M${x + 6} ${y - 6} l-12 12`;
}

/** Brackets round the chosen strum. */
export function bracketPath({ x, width, top, height }: StrumBlock): string {
  const [left, right, up, down] = [x - 6, x + width + 6, top - 5, top + height + 5];
  return `M${left + 7} ${up}H${left}V${down}H${left + 7} M${right - 7} ${up}H${right}V${down}H${right - 7}`;
}

/** One slanted line per string, up to the right when the fret rises. */
export function slidePath({ fromX, toX, y, rises }: Join): string {
  const lift = rises === 0 ? 0 : 8 * rises;
  return `M${r(fromX + 2)} ${r(y + lift)}L${r(toX - 2)} ${r(y - lift)}`;
}

/** An arch over what is hammered or pulled off, from one block to the next; under it for a tie. */
export function archPath(joins: readonly Join[], { top, height, width }: StrumBlock, isTie: boolean): string {
  if (joins.length === 0) return '';
  const { fromX, toX } = joins[0];
  const from = fromX - width / 2;
  const to = toX + width / 2;
  const y = isTie ? top + height + 2 : top - 1;
  const bow = isTie ? 12 : -13;
  return `M${r(from)} ${r(y)}Q${r((from + to) / 2)} ${r(y + bow)} ${r(to)} ${r(y)}`;
}

/** A slide from nowhere into each string, or away from it. */
export function slideEndPath(block: StrumBlock): string {
  const { marks, digits, x, tailX, width } = block;
  return digits
    .map(({ y }) => {
      const parts: string[] = [];
      if (marks.slideIn !== null) {
        const lift = marks.slideIn === 'below' ? 6 : -6;
        parts.push(`M${r(x - 12)} ${r(y + lift)}L${r(x - 2)} ${r(y - lift / 2)}`);
      }
      if (marks.slideOut !== null) {
        const lift = marks.slideOut === 'up' ? -6 : 6;
        const end = Math.max(tailX, x + width + 14);
        parts.push(`M${r(end - 12)} ${r(y)}L${r(end)} ${r(y + lift)}`);
      }
      return parts.join('');
    })
    .join('');
}

/** An arrow that rises from the top string. */
export function bendPath({ x, width, top }: StrumBlock): string {
  const from = x + width + 2;
  return `M${r(from)} ${r(top + 15)}Q${r(from + 10)} ${r(top + 14)} ${r(from + 10)} ${r(top - 2)}m-4 5l4 -5l4 5`;
}

/** A wave over the tail. */
export function vibratoPath({ x, width, top, tailX }: StrumBlock): string {
  const from = x + width + 4;
  const waves = Math.max(2, Math.floor((Math.min(tailX, from + 70) - from) / 8));
  return `M${r(from)} ${r(top + 4)}${'q2 -5 4 0t4 0'.repeat(waves)}`;
}

/** A shallow V under the tail for a dip, a falling line for a dive. */
export function barPath({ x, width, top, height, tailX, marks }: StrumBlock): string {
  const from = x + width + 3;
  const y = top + height - 2;
  if (marks.whammyBar === 'dip') return `M${r(from)} ${r(y)}l8 7l8 -7`;
  return `M${r(from)} ${r(y - 4)}Q${r(from + 8)} ${r(y - 4)} ${r(Math.max(from + 16, tailX))} ${r(y + 10)}`;
}

/** Three slanted strokes through the tail, as they stand through a stem. */
export function tremoloPath({ x, width, top, height }: StrumBlock): string {
  const middle = top + height / 2;
  return [0, 1, 2].map((k) => `M${r(x + width + 5 + 5 * k)} ${r(middle + 7)}l6 -14`).join('');
}

/** A wedge under the strings: filled and pointing down, or hollow and pointing up. */
export function strokePath({ x, width, top, height }: StrumBlock, direction: 'down' | 'up'): string {
  const middle = x + Math.min(width, 28) / 2;
  const y = top + height + 4;
  return direction === 'down'
    ? `M${r(middle - 5)} ${r(y)}h10l-5 9Z`
    : `M${r(middle - 5)} ${r(y + 9)}h10l-5 -9Z`;
}

export function accentPath({ x, width, top }: StrumBlock): string {
  const middle = x + width / 2;
  return `M${r(middle - 8)} ${r(top - 11)}l14 4l-14 4`;
}

export function diamondPath(x: number, y: number, half: number): string {
  return `M${r(x)} ${r(y - half)}L${r(x + half)} ${r(y)}L${r(x)} ${r(y + half)}L${r(x - half)} ${r(y)}Z`;
}
