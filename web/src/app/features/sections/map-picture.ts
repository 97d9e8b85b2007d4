/**
 * The road map as a picture (SVG 1.1) that is printed or laid beside the guitar: title, names and times of the sections, arcs,
 * a row per riff, the order of play. Nothing in it comes from elsewhere, fonts are those of the one who looks.
 */

import { clock } from '@wild-needle/core/units';
import { ARC_HEIGHT, drawMap, type MapBlock } from './map-geometry';

const WIDTH = 1400;
const MARGIN = 48;
const HEAD = 96;
/** Section names stand slanted over the arcs when they would run into each other. */
const NAME_WIDTH = 7.2;
const FOOT = 64;
const INK = '#1d1a16';
const PAPER = '#ffffff';
const GROOVE = '#2b4a6f';

function escape(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}

function text(x: number, y: number, size: number, words: string, more = ''): string {
  return `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" font-size="${size}" ${more}>${escape(words)}</text>`;
}

export interface PictureOf {
  readonly title: string;
  readonly artist: string;
  /** Tuning and tempo in a line. */
  readonly facts: string;
  readonly order: string;
  readonly durationS: number;
  readonly blocks: readonly MapBlock[];
}

export function roadMapPicture({ title, artist, facts, order, durationS, blocks }: PictureOf): string {
  const map = drawMap(blocks, durationS, WIDTH - 2 * MARGIN);
  const height = HEAD + map.height + FOOT;
  const names = map.blocks.map(({ name, fromX, toX, startS }) => {
    const fits = toX - fromX > NAME_WIDTH * name.length;
    const place = fits ? '' : `transform="rotate(-28 ${fromX.toFixed(1)} -4)"`;
    return text(fromX, -4, 12, fits ? `${name}  ${clock(startS)}` : name, place);
  });
  const arcs = map.arcs.map(
    ({ d, isMoved }) =>
      `<path d="${d}" fill="${GROOVE}" fill-opacity="${isMoved ? 0.06 : 0.16}" stroke="${GROOVE}"${isMoved ? ' stroke-dasharray="4 4"' : ''}/>`,
  );
  const rows = map.rows.map(
    ({ letter, y }) =>
      `<path d="M0 ${y}H${WIDTH - 2 * MARGIN}" stroke="#bbb"/>` +
      text(-30, y + 9, Math.min(26, map.blockHeight), letter, 'font-weight="800"'),
  );
  const drawn = map.blocks.map(
    ({ d, transpose, label, fromX, top }) =>
      `<path d="${d}" fill="${transpose === 0 ? INK : PAPER}" stroke="${INK}" stroke-width="1.5"/>` +
      text(
        fromX + 6,
        top + map.blockHeight - 4,
        Math.min(14, map.blockHeight - 2),
        label,
        transpose === 0 ? `fill="${PAPER}"` : '',
      ),
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${height}" width="${WIDTH}" height="${height}" font-family="'Big Shoulders Display','Arial Narrow',sans-serif" fill="${INK}">
<title>${escape(title)}</title>
<rect width="${WIDTH}" height="${height}" fill="${PAPER}"/>
${text(MARGIN, 40, 30, title, 'font-weight="800"')}
${text(MARGIN, 62, 16, [artist, facts].filter((part) => part !== '').join(' · '))}
<g transform="translate(${MARGIN} ${HEAD})">
${[...names, ...arcs, `<path d="M0 ${ARC_HEIGHT}H${WIDTH - 2 * MARGIN}" stroke="${INK}"/>`, ...rows, ...drawn].join('\n')}
</g>
${text(MARGIN, height - 26, 15, order)}
</svg>
`;
}
