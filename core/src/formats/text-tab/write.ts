/**
 * A riff and a song as text tab: one line per string with the highest on top, bar lines, counts above, chord
 * names, `PM---|` over palm-muted strums, `x` for dead strokes and the signs of `riff/marks`. The layout is common practice for tab in plain
 * text; columns stand for sixteenths, or for a finer place where a bar has one.
 */
import { nameNotes, spellPitchClass, pitchClassOf, type Key } from '../../theory';
import { tuningLabel, type Tuning } from '../../guitar';
import {
  barOf,
  barStartsTicks,
  countSyllable,
  isBlank,
  MARK_ROWS,
  MARKS,
  passesWords,
  sectionTimesS,
  strokeOf,
  strumNotes,
  swapGuitars,
  ticksPerBeat,
  whereVaried,
  withVariation,
} from '../../riff';
import type { FretPlace, Riff, SongDocument, Strum } from '../../riff';
import { clock, TICKS_PER_QUARTER } from '../../units';
import type { Format } from '../format';

/** Characters per place: chord names of three letters stand on neighbouring places without touching. */
const COLUMN = 4;
/** Bars are put on one line up to this width, that of a page in a fixed-width font. */
const LINE_WIDTH = 100;
/** Finest steps per quarter tried, coarsest first: eighths, triplets, sixteenths, sextuplets, 32nds. */
const DIVISIONS = [2, 3, 4, 6, 8, 12, 24];

/** Columns per quarter so that every strum of the bar falls on one. */
function divisionOf(strums: readonly Strum[], barStart: number): number {
  return (
    DIVISIONS.find((d) => strums.every((s) => ((s.startTicks - barStart) * d) % TICKS_PER_QUARTER === 0)) ??
    24
  );
}

/** Names of the open strings, highest first, padded to one width. */
function stringNames({ stringsMidi }: Tuning, key: Key | null): string[] {
  const names = [...stringsMidi].reverse().map((midi) => spellPitchClass(pitchClassOf(midi), key));
  const width = Math.max(...names.map((n) => n.length));
  return names.map((n) => n.padEnd(width));
}

function nameOf(strum: Strum, tuning: Tuning, key: Key | null): string {
  return nameNotes(strumNotes(strum, tuning), key).symbol;
}

interface BarText {
  readonly names: string;
  readonly mutes: string;
  readonly marks: string;
  readonly strokes: string;
  readonly counts: string;
  /** Highest string first. */
  readonly strings: readonly string[];
}

function put(line: string[], at: number, text: string): void {
  for (let i = 0; i < text.length && at + i < line.length; i++) line[at + i] = text[i];
}

/** Marks that stand above the strings, with their letters. */
function marksAbove(strum: Strum): string {
  if (strum.rest) return MARKS.rest.above(strum);
  return MARK_ROWS.map((row) => row.above?.(strum) ?? '').join('');
}

/** What stands directly before and behind a fret; there is room for one sign before it. */
function aroundFret(strum: Strum, place: FretPlace): { before: string; behind: string } {
  return {
    before: MARK_ROWS.map((row) => row.before?.(strum, place) ?? '').find((sign) => sign !== '') ?? '',
    behind: MARK_ROWS.map((row) => row.behind?.(strum, place) ?? '').join(''),
  };
}

/** One bar; every line begins with the place before its first beat, where a slide into it stands. */
function writeBar(
  riff: Riff,
  barIndex: number,
  tuning: Tuning,
  key: Key | null,
  lastName: { value: string },
): BarText {
  const start = barStartsTicks(riff)[barIndex];
  const { beats, unit } = riff.bars[barIndex];
  const end = start + beats * ticksPerBeat(unit);
  const strums = riff.strums.filter((s) => s.startTicks >= start && s.startTicks < end);
  const division = divisionOf(strums, start);
  const tickStep = TICKS_PER_QUARTER / division;
  const columns = Math.round((end - start) / tickStep);
  const width = 1 + columns * COLUMN;
  const blank = (fill: string): string[] => new Array<string>(width).fill(fill);
  const [names, mutes, marks, strokes, counts] = [' ', ' ', ' ', ' ', ' '].map(blank);
  const strings = tuning.stringsMidi.map(() => blank('-'));
  const columnOf = (ticks: number): number => 1 + Math.round((ticks - start) / tickStep) * COLUMN;
  // Directions are written where the player has set any.
  const hasStrokes = riff.strums.some((s) => s.marks.stroke !== null);

  for (let c = 0; c < columns; c++) put(counts, 1 + c * COLUMN, countSyllable(c * tickStep, unit));
  let nameEnd = -1;
  strums.forEach((strum, i) => {
    const at = columnOf(strum.startTicks);
    const name = isBlank(strum) ? '?' : nameOf(strum, tuning, key);
    if (name !== '' && name !== lastName.value && at > nameEnd) {
      put(names, at, name);
      nameEnd = at + name.length;
      lastName.value = name;
    }
    if (strum.palmMute) {
      const before = strums[i - 1]?.palmMute ?? false;
      const next = strums[i + 1];
      const until = next?.palmMute ? columnOf(next.startTicks) : at + 2;
      put(mutes, at, before ? '--' : 'PM');
      for (let c = at + 2; c < until; c++) put(mutes, c, '-');
      if (!next?.palmMute) put(mutes, until, '|');
    }
    put(marks, at, marksAbove(strum));
    const stroke = hasStrokes ? strokeOf(riff, strum) : null;
    if (stroke) put(strokes, at, stroke.charAt(0));
    if (strum.rest) return;
    if (strum.dead) {
      // Over the written strings; over all of them where none is written.
      const struck = strum.frets.length > 0 ? strum.frets.map((f) => f.string) : strings.map((_, s) => s + 1);
      for (const s of struck) put(strings[s - 1], at, 'x');
      return;
    }
    const previous = riff.strums[riff.strums.indexOf(strum) - 1];
    for (const { string, fret } of strum.frets) {
      if (string > strings.length) continue;
      const from = previous?.frets.find((f) => f.string === string)?.fret ?? null;
      const around = aroundFret(strum, { fret, from });
      const text = around.before + String(fret) + around.behind;
      put(strings[string - 1], at - around.before.length, text);
    }
  });
  const line = (characters: readonly string[]): string => characters.join('');
  return {
    names: line(names),
    mutes: line(mutes),
    marks: line(marks),
    strokes: line(strokes),
    counts: line(counts),
    strings: strings.map(line),
  };
}

/** Lines of one riff, or of the bars [from, to) of it, without a heading. */
export function writeRiffTab(
  riff: Riff,
  tuning: Tuning,
  key: Key | null,
  [from, to]: readonly [number, number] = [0, riff.bars.length],
): string[] {
  const labels = stringNames(tuning, key);
  const indent = ' '.repeat(labels[0].length + 1);
  const lines: string[] = [];
  const lastName = { value: '' };
  const written = riff.bars
    .map((_, b) => b)
    .slice(from, to)
    .map((b) => writeBar(riff, b, tuning, key, lastName));
  while (written.length > 0) {
    const bars = [written.shift()!];
    let width = bars[0].counts.length;
    while (written.length > 0 && width + written[0].counts.length <= LINE_WIDTH) {
      width += written[0].counts.length;
      bars.push(written.shift()!);
    }
    const above = (pick: (bar: BarText) => string): string => (indent + bars.map(pick).join(' ')).trimEnd();
    const aboveIfAny = (pick: (bar: BarText) => string): string[] => [above(pick)].filter((l) => l !== '');
    lines.push(above((bar) => bar.names));
    lines.push(...aboveIfAny((bar) => bar.mutes), ...aboveIfAny((bar) => bar.marks));
    labels.forEach((label, s) => lines.push(`${label}|${bars.map((bar) => bar.strings[s]).join('|')}|`));
    lines.push(
      ...aboveIfAny((bar) => bar.strokes),
      above((bar) => bar.counts),
      '',
    );
  }
  return lines;
}

/** What each sign means; only those are explained that the song has. */
function legendOf({ riffs }: SongDocument): string {
  const strums = riffs.flatMap((r) =>
    [r, ...r.variations].flatMap((part) => [...part.strums, ...part.guitar2]),
  );
  return MARK_ROWS.flatMap((row) => row.legend)
    .filter(([has]) => strums.some(has))
    .map(([, words]) => words)
    .join(', ');
}

/** The riffs as one guitar plays them, each with its variations behind it. */
function writeRiffs(document: SongDocument, who: string): string[] {
  const { riffs, tuning, key } = document;
  return riffs.flatMap((riff) => {
    const times = riff.bars.length === 1 ? '1 bar' : `${riff.bars.length} bars`;
    const remarks = riff.barNotes.map((n) => `  Bar ${n.bar + 1}: ${n.todo ? 'to do: ' : ''}${n.text}`);
    const variations = riff.variations.flatMap((variation) => {
      const where = whereVaried(document, riff, variation);
      const bars = [barOf(riff, variation.fromTicks), barOf(riff, variation.toTicks - 1) + 1] as const;
      return [
        `${riff.name}, ${variation.name}${where === '' ? '' : ` (${where})`}`,
        '',
        ...writeRiffTab(withVariation(riff, variation), tuning, key, bars),
      ];
    });
    return [
      `${riff.name}${who} (${times})`,
      ...remarks,
      '',
      ...writeRiffTab(riff, tuning, key),
      ...variations,
    ];
  });
}

/** The whole song: heading, tuning, order of play with times, then each riff. Ends with a newline. */
export function writeTextTab(document: SongDocument): string {
  const { title, artist, tuning, guitar2, key, referenceOffsetCents, riffs, sections } = document;
  const stringsOf = ({ stringsMidi }: Tuning): string =>
    stringsMidi.map((m) => spellPitchClass(pitchClassOf(m), key)).join(' ');
  const cents = Math.round(referenceOffsetCents);
  const lines = [
    artist === '' ? title : `${title} / ${artist}`,
    `Tuning: ${tuningLabel(tuning)} (${stringsOf(tuning)}, low to high)`,
  ];
  if (guitar2) lines.push(`Guitar 2: ${tuningLabel(guitar2)} (${stringsOf(guitar2)}, low to high)`);
  if (key) lines.push(`Key: ${key.tonic} ${key.mode}`);
  if (cents !== 0) lines.push(`Recording: ${cents > 0 ? '+' : '−'}${Math.abs(cents)} cents from A = 440 Hz`);
  const legend = legendOf(document);
  lines.push(...(legend === '' ? [''] : [legend, '']));
  if (sections.length > 0) {
    lines.push('Order of play');
    for (const section of sections) {
      const riff = riffs.find((r) => r.id === section.riffId);
      const from = sectionTimesS(document, section)?.startS ?? 0;
      const moved =
        section.transpose === 0 ? '' : ` (${section.transpose > 0 ? '+' : ''}${section.transpose})`;
      const tone = section.tone === '' ? '' : `, ${section.tone}`;
      // Plain text: a letter for the sign of multiplication.
      const passes = passesWords(document, section).replace('×', 'x');
      const played = [riff ? `${riff.letter}${moved}` : '', passes].filter((w) => w !== '').join(' ');
      lines.push(`  ${clock(from)}  ${section.name}: ${played}${tone}`);
    }
    lines.push('');
  }
  lines.push(...writeRiffs(document, guitar2 ? ', guitar 1' : ''));
  if (guitar2) lines.push(...writeRiffs(swapGuitars(document), ', guitar 2'));
  lines.push('For private study, unless the rights holder allows more.');
  return `${lines.join('\n')}\n`;
}

export const TEXT_TAB: Format = {
  id: 'text-tab',
  label: 'Text tab',
  ending: 'txt',
  mime: 'text/plain',
  holds: 'tab',
  write: writeTextTab,
};
