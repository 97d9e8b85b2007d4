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
  overallTempo,
  passesWords,
  sectionTimesS,
  shiftFrets,
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
  readonly number: string;
  /** Names that would stand on the one before. */
  readonly upperNames: string;
  readonly names: string;
  readonly mutes: string;
  readonly marks: string;
  readonly strokes: string;
  readonly counts: string;
  /** Highest string first. */
  readonly strings: readonly string[];
  /** Characters at which a beat begins, where a bar that is too long may be broken. */
  readonly beatsAt: readonly number[];
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
  const [upperNames, names, mutes, marks, strokes, counts] = Array.from({ length: 6 }, () => blank(' '));
  const strings = tuning.stringsMidi.map(() => blank('-'));
  const columnOf = (ticks: number): number => 1 + Math.round((ticks - start) / tickStep) * COLUMN;
  // Directions are written where the player has set any.
  const hasStrokes = riff.strums.some((s) => s.marks.stroke !== null);

  for (let c = 0; c < columns; c++) put(counts, 1 + c * COLUMN, countSyllable(c * tickStep, unit));
  const nameEnds = [-1, -1];
  strums.forEach((strum, i) => {
    const at = columnOf(strum.startTicks);
    const name = isBlank(strum) ? '?' : nameOf(strum, tuning, key);
    const row = nameEnds.findIndex((end) => at > end);
    if (name !== '' && name !== lastName.value && row >= 0) {
      put(row === 0 ? names : upperNames, at, name);
      nameEnds[row] = at + name.length;
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
  const beatColumns = Math.round(ticksPerBeat(unit) / tickStep) * COLUMN;
  return {
    number: (riff.bars.length > 1 ? String(barIndex + 1) : '').padEnd(width).slice(0, width),
    upperNames: line(upperNames),
    names: line(names),
    mutes: line(mutes),
    marks: line(marks),
    strokes: line(strokes),
    counts: line(counts),
    strings: strings.map(line),
    beatsAt: Array.from({ length: beats - 1 }, (_, beat) => (beat + 1) * beatColumns),
  };
}

/** A bar that is longer than a line, in pieces that begin with a beat. */
function broken(bar: BarText): BarText[] {
  const length = bar.counts.length;
  if (length <= LINE_WIDTH) return [bar];
  const at = bar.beatsAt.findLast((beat) => beat <= LINE_WIDTH) ?? bar.beatsAt[0];
  if (at === undefined) return [bar];
  const part = (from: number, to: number): BarText => {
    const cut = (text: string): string => text.slice(from, to);
    return {
      number: cut(bar.number),
      upperNames: cut(bar.upperNames),
      names: cut(bar.names),
      mutes: cut(bar.mutes),
      marks: cut(bar.marks),
      strokes: cut(bar.strokes),
      counts: cut(bar.counts),
      strings: bar.strings.map(cut),
      beatsAt: bar.beatsAt.filter((beat) => beat > from).map((beat) => beat - from),
    };
  };
  return [part(0, at), ...broken(part(at, length))];
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
    .flatMap((b) => broken(writeBar(riff, b, tuning, key, lastName)));
  while (written.length > 0) {
    const bars = [written.shift()!];
    let width = bars[0].counts.length;
    while (written.length > 0 && width + written[0].counts.length <= LINE_WIDTH) {
      width += written[0].counts.length;
      bars.push(written.shift()!);
    }
    const above = (pick: (bar: BarText) => string): string => (indent + bars.map(pick).join(' ')).trimEnd();
    const aboveIfAny = (pick: (bar: BarText) => string): string[] => [above(pick)].filter((l) => l !== '');
    lines.push(...aboveIfAny((bar) => bar.number), ...aboveIfAny((bar) => bar.upperNames));
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
  const marks = MARK_ROWS.flatMap((row) => row.legend)
    .filter(([has]) => strums.some(has))
    .map(([, words]) => words);
  return [...marks, ...(strums.some(isBlank) ? ['? = struck, not written yet'] : [])].join(', ');
}

/** The riffs as one guitar plays them, each with its variations behind it. */
function writeRiffs(document: SongDocument, who: string): string[] {
  const { riffs, tuning, key } = document;
  return riffs.flatMap((riff) => {
    const times = riff.bars.length === 1 ? '1 bar' : `${riff.bars.length} bars`;
    const remarks = remarksOn(riff);
    const variations = riff.variations.flatMap((variation) => {
      const where = whereVaried(document, riff, variation);
      const bars = [barOf(riff, variation.fromTicks), barOf(riff, variation.toTicks - 1) + 1] as const;
      const replaced = bars[1] - bars[0] === 1 ? `bar ${bars[0] + 1}` : `bars ${bars[0] + 1} to ${bars[1]}`;
      const instead = riff.bars.length === 1 ? '' : `, in place of ${replaced}`;
      return [
        `${riff.name}, ${variation.name}${where === '' ? '' : ` (${where})`}${instead}`,
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
      ...writeMoved(document, riff),
    ];
  });
}

/** Remarks on bars and strums, and the names of parts, in order of place. */
function remarksOn(riff: Riff): string[] {
  const starts = barStartsTicks(riff);
  const remarks = [
    ...riff.groups.map(({ name, startBar, bars }) => {
      const where = bars === 1 ? `Bar ${startBar + 1}` : `Bars ${startBar + 1} to ${startBar + bars}`;
      return { ticks: starts[startBar], text: `${where}: ${name}` };
    }),
    ...riff.barNotes.map(({ bar, todo, text }) => ({
      ticks: starts[bar],
      text: `Bar ${bar + 1}: ${todo ? 'to do: ' : ''}${text}`,
    })),
    ...riff.strums
      .filter((s) => s.note !== '')
      .map(({ startTicks, note }) => {
        const bar = barOf(riff, startTicks);
        const { unit } = riff.bars[bar];
        const beat = Math.floor((startTicks - starts[bar]) / ticksPerBeat(unit)) + 1;
        const syllable = countSyllable(startTicks - starts[bar], unit);
        const count = syllable === String(beat) ? '' : ` ${syllable}`;
        return { ticks: startTicks, text: `Bar ${bar + 1}, beat ${beat}${count}: ${note}` };
      }),
  ];
  return remarks.sort((a, b) => a.ticks - b.ticks).map(({ text }) => `  ${text}`);
}

/** The riff with its frets moved, once for each distance that its sections play it at and the neck has. */
function writeMoved(song: SongDocument, riff: Riff): string[] {
  const { sections, tuning, key } = song;
  const distances = [
    ...new Set(sections.filter((s) => s.riffId === riff.id && s.transpose !== 0).map((s) => s.transpose)),
  ];
  const all = new Set(riff.strums.map((s) => s.id));
  return distances.flatMap((by) => {
    const document = { ...song, riffs: [riff] };
    const moved = shiftFrets(document, riff.id, all, { frets: by, strings: 0 }).riffs[0];
    const who = sections
      .filter((s) => s.riffId === riff.id && s.transpose === by)
      .map((s) => s.name)
      .join(', ');
    const frets = `${Math.abs(by)} ${Math.abs(by) === 1 ? 'fret' : 'frets'}`;
    const heading = `${riff.name}, ${frets} ${by > 0 ? 'up' : 'down'} (${who})`;
    if (moved === riff) return [`${heading}: the neck ends there, other strings are needed`, ''];
    return [heading, '', ...writeRiffTab(moved, tuning, key)];
  });
}

/** 'Tempo: 132 bpm, 4/4', with every meter of the song; '' without beats. */
function tempoLine({ grid }: SongDocument): string {
  const bpm = overallTempo(grid);
  if (bpm === null) return '';
  const meters = [...new Set(grid.bars.map(({ beats, unit }) => `${beats}/${unit}`))];
  return `Tempo: ${Math.round(bpm)} bpm${meters.length > 0 ? `, ${meters.join(', ')}` : ''}`;
}

/** Something is written for the second guitar. */
function isSecondWritten({ guitar2, riffs }: SongDocument): boolean {
  return (
    guitar2 !== null &&
    riffs.some((r) => [r, ...r.variations].some(({ guitar2: strums }) => strums.length > 0))
  );
}

/** The whole song: heading, tuning, order of play with times, then each riff. Ends with a newline. */
export function writeTextTab(document: SongDocument): string {
  const { title, artist, tuning, key, referenceOffsetCents, riffs, sections } = document;
  const guitar2 = isSecondWritten(document) ? document.guitar2 : null;
  const stringsOf = ({ stringsMidi }: Tuning): string =>
    stringsMidi.map((m) => spellPitchClass(pitchClassOf(m), key)).join(' ');
  const cents = Math.round(referenceOffsetCents);
  const lines = [
    artist === '' ? title : `${title} / ${artist}`,
    `Tuning: ${tuningLabel(tuning)} (${stringsOf(tuning)}, low to high)`,
  ];
  if (guitar2) lines.push(`Guitar 2: ${tuningLabel(guitar2)} (${stringsOf(guitar2)}, low to high)`);
  const tempo = tempoLine(document);
  if (tempo !== '') lines.push(tempo);
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
  if (guitar2) {
    const second = swapGuitars(document);
    const isWritten = (r: Riff): boolean => [r, ...r.variations].some(({ strums }) => strums.length > 0);
    lines.push(...writeRiffs({ ...second, riffs: second.riffs.filter(isWritten) }, ', guitar 2'));
  }
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
