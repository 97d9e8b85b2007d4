/** Where the blocks, notches and arcs of the road map lie, for the screen and for the picture that is taken away. */
import { movedBy } from '../../shared/words';

export interface MapBlock {
  readonly id: string;
  readonly name: string;
  /** Of its riff; '' for a part without one. */
  readonly letter: string;
  readonly startS: number;
  readonly endS: number;
  readonly transpose: number;
  /** '×4', '7 bars'. */
  readonly played: string;
  /** Where its passes begin behind the first, as shares of its length. */
  readonly notches: readonly number[];
  readonly isChosen: boolean;
  readonly isDoubtful: boolean;
  /** Of its strums, how many were checked; null where nothing is written. */
  readonly checkedShare: number | null;
}

/** Heights in units of the drawing: room for arcs, a row per riff with a gap between blocks, a notch per pass. */
export const ARC_HEIGHT = 84;
const GAP = 4;
const NOTCH = 5;
/** Rows share the height of five tall ones, so that many riffs leave room for the list below; a label needs the smallest. */
const TALL_ROW = 33;
const ROWS_HEIGHT = 5 * TALL_ROW;
const LEAST_ROW = 20;

export interface DrawnBlock extends MapBlock {
  readonly top: number;
  readonly fromX: number;
  readonly toX: number;
  /** Outline with its notches, as an SVG path. */
  readonly d: string;
  readonly label: string;
}

export interface DrawnArc {
  readonly letter: string;
  readonly isMoved: boolean;
  readonly d: string;
}

/** A riff and the middle of its row. */
export interface DrawnRow {
  readonly letter: string;
  readonly y: number;
}

export interface DrawnMap {
  readonly rows: readonly DrawnRow[];
  readonly blockHeight: number;
  readonly height: number;
  readonly blocks: readonly DrawnBlock[];
  readonly arcs: readonly DrawnArc[];
}

function drawBlock(block: MapBlock, y: number, blockHeight: number, perSecond: number): DrawnBlock {
  const top = y - blockHeight / 2;
  const [fromX, toX] = [block.startS * perSecond, block.endS * perSecond];
  const notches = block.notches
    .map((share) => fromX + share * (toX - fromX))
    .map((x) => `L${(x - 2).toFixed(1)} ${top}L${x.toFixed(1)} ${top + NOTCH}L${(x + 2).toFixed(1)} ${top}`)
    .join('');
  return {
    ...block,
    top,
    fromX,
    toX,
    d: `M${fromX.toFixed(1)} ${top}${notches}L${toX.toFixed(1)} ${top}v${blockHeight}H${fromX.toFixed(1)}z`,
    label: (block.letter === '' ? block.name : `${movedBy(block.transpose)} ${block.played}`).trim(),
  };
}

function drawArc(from: MapBlock, to: MapBlock, perSecond: number): DrawnArc {
  const [a, b, c, d] = [from.startS, from.endS, to.startS, to.endS].map((t) => t * perSecond);
  // Higher for what lies farther apart, within the room there is.
  const peak = (wide: number, bow: number): string =>
    (ARC_HEIGHT - bow * Math.min(ARC_HEIGHT - 6, 14 + wide / 7)).toFixed(1);
  const [outer, inner] = [peak(d - a, 1.33), peak(c - b, 1.2)];
  const [ax, bx, cx, dx] = [a, b, c, d].map((x) => x.toFixed(1));
  return {
    letter: from.letter,
    isMoved: from.transpose !== to.transpose,
    d:
      `M${ax} ${ARC_HEIGHT}C${ax} ${outer} ${dx} ${outer} ${dx} ${ARC_HEIGHT}` +
      `H${cx}C${cx} ${inner} ${bx} ${inner} ${bx} ${ARC_HEIGHT}z`,
  };
}

/** `width` units for the whole recording. */
export function drawMap(blocks: readonly MapBlock[], durationS: number, width: number): DrawnMap {
  const perSecond = width / Math.max(1e-6, durationS);
  // Parts without a riff stand below those with one.
  const letters = [...new Set(blocks.map((b) => b.letter))].sort((a, b) =>
    a === '' ? 1 : b === '' ? -1 : a < b ? -1 : 1,
  );
  const rowHeight = Math.max(LEAST_ROW, Math.min(TALL_ROW, Math.floor(ROWS_HEIGHT / letters.length)));
  const blockHeight = rowHeight - GAP;
  const rows = letters.map((letter, i) => ({
    letter,
    y: ARC_HEIGHT + GAP + rowHeight * i + blockHeight / 2,
  }));
  const yOf = new Map(rows.map(({ letter, y }) => [letter, y]));
  return {
    rows,
    blockHeight,
    height: ARC_HEIGHT + GAP + rowHeight * Math.max(1, letters.length),
    blocks: blocks.map((block) => drawBlock(block, yOf.get(block.letter) ?? 0, blockHeight, perSecond)),
    arcs: letters
      .filter((letter) => letter !== '')
      .flatMap((letter) => {
        const same = blocks.filter((b) => b.letter === letter);
        return same.slice(1).map((to, i) => drawArc(same[i], to, perSecond));
      }),
  };
}
