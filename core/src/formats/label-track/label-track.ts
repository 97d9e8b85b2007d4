/**
 * Sections as a label track: start, end and text on a line, tab separated, seconds; as audio editors read and write it. It comes back
 * in as sections at the nearest bars.
 */
import {
  barsPerPass,
  endBarOf,
  fitText,
  nearestBarLine,
  PLAIN_SECTION,
  setSections,
  spanOver,
  TEXT_LIMITS,
  type Section,
  type SongDocument,
} from '../../riff';
import type { Format } from '../format';
import { chartRows } from '../section-chart/section-chart';

export function writeLabelTrack(document: SongDocument): string {
  return chartRows(document)
    .map(({ startS, endS, name }) => `${startS.toFixed(3)}\t${endS.toFixed(3)}\t${name}\n`)
    .join('');
}

export interface Label {
  readonly startS: number;
  readonly endS: number;
  readonly text: string;
}

/** A line that tells the frequencies of the label before it, as spectral editors write them. */
const FREQUENCIES = '\\';

/** Throws a RangeError that names the line that can't be read. */
export function parseLabelTrack(text: string): Label[] {
  return text
    .split(/\r?\n/)
    .map((line, i) => ({ line, number: i + 1 }))
    .filter(({ line }) => line.trim() !== '' && !line.startsWith(FREQUENCIES))
    .map(({ line, number }) => {
      const [start, end, ...words] = line.split('\t');
      const [startS, endS] = [Number(start), Number(end)];
      if (!Number.isFinite(startS) || !Number.isFinite(endS) || start.trim() === '' || endS < startS) {
        throw new RangeError(
          `line ${number} of a label track must be start, end and text with tabs between them, but was "${line.slice(0, 60)}"`,
        );
      }
      return { startS, endS, text: words.join(' ').trim() || `Part ${number}` };
    })
    .sort((a, b) => a.startS - b.startS);
}

/** Bars that two parts share. */
function shared(a: { from: number; end: number }, b: { from: number; end: number }): number {
  return Math.max(0, Math.min(a.end, b.end) - Math.max(a.from, b.from));
}

/**
 * Sections as labels say: from the nearest bar to the nearest bar, a label without a length to the next one. Each plays the riff
 * that most of it plays now, where that goes on as it does; where nothing is played, it is a part without a riff.
 */
export function sectionsFromLabels(document: SongDocument, labels: readonly Label[]): Section[] {
  const bars = document.grid.bars.length;
  const starts = labels.map(({ startS }) => nearestBarLine(document.grid, startS));
  let free = 0;
  return labels.flatMap((label, i): Section[] => {
    const startBar = Math.max(free, starts[i]);
    const next = Math.max(starts[i + 1] ?? bars, startBar + 1);
    const isPoint = label.endS === label.startS;
    const wanted = isPoint ? next : nearestBarLine(document.grid, label.endS);
    const endBar = Math.min(bars, next, Math.max(startBar + 1, wanted));
    if (endBar <= startBar) return [];
    free = endBar;
    const overlaps = document.sections.map((section) => ({
      section,
      bars: shared(
        { from: startBar, end: endBar },
        { from: section.startBar, end: endBarOf(document, section) },
      ),
    }));
    const [best] = overlaps.sort((a, b) => b.bars - a.bars);
    const playing = best && best.bars > 0 ? best.section : null;
    const perPass = playing ? barsPerPass(document, playing) : 1;
    const into = playing ? playing.skipBars + startBar - playing.startBar : 0;
    const plain: Section = {
      ...PLAIN_SECTION,
      id: `label-${i + 1}`,
      name: fitText(label.text, TEXT_LIMITS.name) || `Part ${i + 1}`,
      riffId: playing?.riffId ?? null,
      startBar,
      passes: 1,
      transpose: playing?.transpose ?? 0,
    };
    return [spanOver(plain, perPass, endBar - startBar, ((into % perPass) + perPass) % perPass)];
  });
}

export const LABEL_TRACK: Format = {
  id: 'label-track',
  label: 'Label track',
  ending: 'txt',
  mime: 'text/plain',
  holds: 'sections',
  write: writeLabelTrack,
  read(document, text) {
    const sections = sectionsFromLabels(document, parseLabelTrack(text));
    if (sections.length === 0) {
      throw new RangeError('no label lies over a bar of this recording');
    }
    return setSections(document, sections);
  },
};
