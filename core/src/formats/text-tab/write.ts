/**
 * A riff and a song as text tab: one line per string with the highest on top, bar lines, counts above, chord
 * names, `PM---|` over palm-muted strums, `x` for dead strokes and the signs of `riff/marks`. The layout is common practice for tab in plain
 * text; columns stand for sixteenths, or for a finer place where a bar has one.
 */
import { spellPitchClass, pitchClassOf, type Key } from '../../theory';
import { tuningLabel, type Tuning } from '../../guitar';
import {
  barOf,
  barStartsTicks,
  countSyllable,
  isBlank,
  MARK_ROWS,
  overallTempo,
  passesWords,
  sectionTimesS,
  shiftFrets,
  swapGuitars,
  ticksPerBeat,
  whereVaried,
  withVariation,
} from '../../riff';
import type { Riff, SongDocument, Variation } from '../../riff';
import { clock } from '../../units';
import type { Format } from '../format';
import { broken, LINE_WIDTH, stringNames, writeBar, type BarText } from './bar';

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

/** The bars [from, to) that a variation stands for. */
function barsOf(riff: Riff, { fromTicks, toTicks }: Variation): readonly [number, number] {
  return [barOf(riff, fromTicks), barOf(riff, toTicks - 1) + 1];
}

/** ', in place of bar 4'; '' in a riff of one bar. */
function insteadOf(riff: Riff, variation: Variation): string {
  const [from, to] = barsOf(riff, variation);
  const replaced = to - from === 1 ? `bar ${from + 1}` : `bars ${from + 1} to ${to}`;
  return riff.bars.length === 1 ? '' : `, in place of ${replaced}`;
}

/** What a riff is called over its tab: with the letter that the order of play names it by. */
function headingOf({ letter, name }: Riff): string {
  return name === `Riff ${letter}` ? name : `${letter}: ${name}`;
}

/** The riffs as one guitar plays them, each with its variations behind it. */
function writeRiffs(document: SongDocument, who: string): string[] {
  const { riffs, tuning, key } = document;
  return riffs.flatMap((riff) => {
    const times = riff.bars.length === 1 ? '1 bar' : `${riff.bars.length} bars`;
    const remarks = remarksOn(riff);
    const variations = riff.variations.flatMap((variation) => {
      const where = whereVaried(document, riff, variation);
      return [
        `${headingOf(riff)}, ${variation.name}${where === '' ? '' : ` (${where})`}${insteadOf(riff, variation)}`,
        ...remarksOn({ ...riff, groups: [], barNotes: [], strums: variation.strums }),
        '',
        ...writeRiffTab(withVariation(riff, variation), tuning, key, barsOf(riff, variation)),
      ];
    });
    return [
      `${headingOf(riff)}${who} (${times})`,
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

/** All frets of a riff moved; null where the neck ends. */
function movedRiff(song: SongDocument, riff: Riff, frets: number): Riff | null {
  const all = new Set(riff.strums.map((s) => s.id));
  const moved = shiftFrets({ ...song, riffs: [riff] }, riff.id, all, { frets, strings: 0 }).riffs[0];
  return moved === riff && riff.strums.length > 0 ? null : moved;
}

/**
 * The riff with its frets moved, once for each distance that its sections play it at, and behind it the variations that they play at
 * that distance.
 */
function writeMoved(song: SongDocument, riff: Riff): string[] {
  const { tuning, key } = song;
  const sections = song.sections.filter((s) => s.riffId === riff.id && s.transpose !== 0);
  return [...new Set(sections.map((s) => s.transpose))].flatMap((by) => {
    const there = sections.filter((s) => s.transpose === by);
    const frets = `${Math.abs(by)} ${Math.abs(by) === 1 ? 'fret' : 'frets'}`;
    const distance = `${frets} ${by > 0 ? 'up' : 'down'}`;
    const write = (heading: string, played: Riff, bars?: readonly [number, number]): string[] => {
      const moved = movedRiff(song, played, by);
      if (!moved) return [`${heading}: the neck ends there, other strings are needed`, ''];
      return [heading, '', ...writeRiffTab(moved, tuning, key, bars)];
    };
    const variations = riff.variations.flatMap((variation) => {
      const where = whereVaried({ ...song, sections: there }, riff, variation);
      if (where === '') return [];
      const heading = `${headingOf(riff)}, ${variation.name}, ${distance} (${where})${insteadOf(riff, variation)}`;
      const alone = { ...withVariation(riff, variation), strums: variation.strums, variations: [] };
      return write(heading, alone, barsOf(riff, variation));
    });
    const heading = `${headingOf(riff)}, ${distance} (${there.map((s) => s.name).join(', ')})`;
    return [...write(heading, { ...riff, variations: [] }), ...variations];
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
  if (cents !== 0) {
    const size = Math.abs(cents);
    lines.push(`Recording: ${cents > 0 ? '+' : '−'}${size} cent${size === 1 ? '' : 's'} from A = 440 Hz`);
  }
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
