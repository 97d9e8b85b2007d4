/**
 * Sections as other programs read them: a label track (start, end and text on a line, tab separated, seconds) and CSV
 * (RFC 4180). A label track comes back in as sections at the nearest bars.
 */
import {
  barTimesS,
  fitText,
  PLAIN_SECTION,
  TEXT_LIMITS,
  passesOf,
  type Section,
  type SongDocument,
} from '../../riff';

interface ChartRow {
  readonly startS: number;
  readonly endS: number;
  readonly name: string;
  readonly riff: string;
  readonly transpose: number;
  readonly passes: number;
  readonly bars: number;
}

function chartRows(document: SongDocument): ChartRow[] {
  return document.sections.flatMap((section) => {
    const riff = document.riffs.find((r) => r.id === section.riffId);
    const passes = riff ? passesOf(section, riff, document.grid) : [];
    if (!riff || passes.length === 0) return [];
    return [
      {
        startS: passes[0].startS,
        endS: passes[passes.length - 1].endS,
        name: section.name,
        riff: riff.letter,
        transpose: section.transpose,
        passes: section.passes,
        bars: section.passes * riff.bars.length,
      },
    ];
  });
}

export function writeLabelTrack(document: SongDocument): string {
  return chartRows(document)
    .map(({ startS, endS, name }) => `${startS.toFixed(3)}\t${endS.toFixed(3)}\t${name}\n`)
    .join('');
}

/** A field with a comma, a quote or a line break stands in quotes, quotes doubled (RFC 4180, section 2). */
function csvField(value: string | number): string {
  const text = String(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

export function writeSectionCsv(document: SongDocument): string {
  const head = ['section', 'start_s', 'end_s', 'bars', 'riff', 'semitones', 'passes'];
  const rows = chartRows(document).map((r) => [
    r.name,
    r.startS.toFixed(3),
    r.endS.toFixed(3),
    r.bars,
    r.riff,
    r.transpose,
    r.passes,
  ]);
  return [head, ...rows].map((row) => `${row.map(csvField).join(',')}\r\n`).join('');
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
  const starts = barTimesS(document.grid);
  const nearestBar = (timeS: number): number =>
    starts.reduce((best, t, i) => (Math.abs(t - timeS) < Math.abs(starts[best] - timeS) ? i : best), 0);
  const passes = document.sections.flatMap((section) => {
    const riff = document.riffs.find((r) => r.id === section.riffId);
    return riff ? passesOf(section, riff, document.grid).map((pass) => ({ pass, riff })) : [];
  });
  let free = 0;
  return labels.flatMap((label, i): Section[] => {
    const startBar = Math.max(free, nearestBar(label.startS));
    const endBar = nearestBar(label.endS);
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
