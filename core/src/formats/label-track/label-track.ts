/**
 * Sections as a label track: start, end and text on a line, tab separated, seconds; as audio editors read and write it. It comes back
 * in as sections at the nearest bars.
 */
import {
  fitText,
  nearestBarLine,
  passesOf,
  PLAIN_SECTION,
  setSections,
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

/** Throws a RangeError that names the line that can't be read. */
export function parseLabelTrack(text: string): Label[] {
  return text
    .split(/\r?\n/)
    .map((line, i) => ({ line, number: i + 1 }))
    .filter(({ line }) => line.trim() !== '')
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

/**
 * Names and bounds of sections taken from labels: each plays the riff that most of it plays now, in as many passes as fit.
 * Labels over bars that hold no riff, or less than one pass, are left out.
 */
export function sectionsFromLabels(document: SongDocument, labels: readonly Label[]): Section[] {
  const passes = document.sections.flatMap((section) => {
    const riff = document.riffs.find((r) => r.id === section.riffId);
    return riff ? passesOf(section, riff, document.grid).map((pass) => ({ pass, riff })) : [];
  });
  let free = 0;
  return labels.flatMap((label, i): Section[] => {
    const startBar = Math.max(free, nearestBarLine(document.grid, label.startS));
    const endBar = nearestBarLine(document.grid, label.endS);
    const playing = passes.find(
      ({ pass }) => pass.startBar <= startBar && startBar < pass.startBar + pass.bars,
    );
    const count = playing ? Math.floor((endBar - startBar) / playing.riff.bars.length) : 0;
    if (!playing || count < 1) return [];
    free = startBar + count * playing.riff.bars.length;
    return [
      {
        ...PLAIN_SECTION,
        id: `label-${i + 1}`,
        name: fitText(label.text, TEXT_LIMITS.name),
        riffId: playing.riff.id,
        startBar,
        passes: count,
        transpose: playing.pass.transpose,
      },
    ];
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
      throw new RangeError('no label lies over a whole pass of a riff');
    }
    return setSections(document, sections);
  },
};
