/**
 * Sections as a table of Markdown, for notes, wikis and issues (the tables extension of GitHub Flavored Markdown 0.29,
 * section 4.10: pipes in a cell are escaped, numbers stand right).
 */
import type { SongDocument } from '../../riff';
import { clock } from '../../units';
import type { Format } from '../format';
import { chartRows } from '../section-chart/section-chart';

/** One line; what would end the cell, begin markup or hide as HTML is escaped. */
function cell(text: string): string {
  return text.replace(/\s+/g, ' ').replace(/[\\|`*_~<>[\]]/g, '\\$&');
}

function row(cells: readonly string[]): string {
  return `| ${cells.join(' | ')} |\n`;
}

export function writeSectionMarkdown(document: SongDocument): string {
  const head = row(['Section', 'Starts', 'Ends', 'Bars', 'Riff', 'Moved', 'Passes']);
  const rule = row(['---', '---:', '---:', '---:', '---', '---:', '---:']);
  const rows = chartRows(document).map(({ name, startS, endS, bars, riff, transpose, passes }) =>
    row([
      cell(name),
      clock(startS),
      clock(endS),
      String(bars),
      cell(riff),
      transpose > 0 ? `+${transpose}` : String(transpose),
      String(passes),
    ]),
  );
  return [head, rule, ...rows].join('');
}

export const SECTION_MARKDOWN: Format = {
  id: 'section-markdown',
  label: 'Table (Markdown)',
  ending: 'md',
  mime: 'text/markdown',
  holds: 'sections',
  write: writeSectionMarkdown,
};
