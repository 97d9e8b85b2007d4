/**
 * Text tab brought in, as this program writes it and as people write it by hand: four strings to twelve, with bar lines or without, with
 * counts, palm mutes and signs. What can't be understood is told with its line and column and left out.
 */
import { STANDARD_TUNING, type Tuning } from '../../guitar';
import { countSyllable, fitText, TEXT_LIMITS, ticksPerBeat, type RiffBar, type Strum } from '../../riff';
import { assembleSong, type BroughtMeasure, type BroughtPart } from '../assemble';
import type { Brought, ReadOptions, Remark } from '../brought';
import { plainLine, rowKind, stringLine, type StringLine } from './lines';
import {
  playedSection,
  readHead,
  readHeading,
  tuningOfNames,
  tuningOfWords,
  type Head,
  type Heading,
} from './read-head';
import { readSystem, type NumberedLine, type System, type SystemBar } from './read-system';

/** Characters; the longest tab that a hand has written is a hundredth of it. */
const MOST_CHARACTERS = 5_000_000;
const LEAST_STRINGS = 3;
const MOST_STRINGS = 12;
/** Systems without a line between them are of so many strings. */
const USUAL_STRINGS = 6;
/** What the writer of this folder explains its signs with. */
const OWN = /before a fret = |^For private study, unless the rights holder allows more\.\s*$/m;
const NO_TAB =
  'there is no tab in it: a string is a line of dashes and frets, as in E|--0--3--|, and at least three stand under each other';

type AnyLine = NumberedLine & { readonly string: StringLine | null };

/** Under each other without a gap: the strings of one system, or of several. */
function systemsOf(lines: readonly AnyLine[]): { from: number; to: number }[] {
  const runs: { from: number; to: number }[] = [];
  lines.forEach((line, i) => {
    if (!line.string) return;
    const last = runs.at(-1);
    if (last?.to === i) last.to++;
    else runs.push({ from: i, to: i + 1 });
  });
  return runs.flatMap(({ from, to }) => {
    const count = to - from;
    if (count < LEAST_STRINGS) return [];
    const isStacked = count > MOST_STRINGS || (count > 8 && count % USUAL_STRINGS === 0);
    if (!isStacked) return [{ from, to }];
    return Array.from({ length: Math.floor(count / USUAL_STRINGS) }, (_, i) => ({
      from: from + i * USUAL_STRINGS,
      to: from + (i + 1) * USUAL_STRINGS,
    }));
  });
}

/** A copy of a web page may have an empty line behind each line. */
function withoutDoubleSpacing(lines: readonly AnyLine[]): AnyLine[] {
  const strings = lines.flatMap((l, i) => (l.string ? [i] : []));
  const isDoubled = strings.filter((i) => lines[i + 1]?.text.trim() === '' && lines[i + 2]?.string).length;
  const isTouching = strings.some((i) => lines[i + 1]?.string);
  if (isTouching || isDoubled < LEAST_STRINGS - 1) return [...lines];
  return lines.filter((l, i) => !(l.text.trim() === '' && lines[i - 1]?.text.trim() !== ''));
}

/** A riff, or a way that a part of it is played otherwise, with the lines of words over it. */
interface Block {
  readonly heading: Heading;
  readonly bars: SystemBar[];
  readonly notes: NumberedLine[];
}

const BAR_NOTE = /^\s+Bar (\d+), beat (\d+)(?: (e|&|a|trip|let))?: (.+)$/;

/** Words that stand over a system and are no name of a riff. */
function isAside(text: string): boolean {
  return (
    playedSection(text) !== null ||
    /^\s+Bars? \d+/.test(text) ||
    /^\s*(tuning|tempo|bpm|key|recording|guitar 2|capo|title|artist|order of play|author|tabbed by)\b/i.test(
      text,
    ) ||
    text.startsWith('For private study')
  );
}

/** Systems with their rows, and the words before each. */
function blocksOf(
  lines: readonly AnyLine[],
  head: Head,
  usual: RiffBar | null,
  isOwn: boolean,
): {
  readonly blocks: Block[];
  readonly remarks: Remark[];
  readonly strings: number;
  readonly labels: readonly string[];
} {
  const spans = systemsOf(lines);
  const blocks: Block[] = [];
  const remarks: Remark[] = [];
  let free = 0;
  spans.forEach(({ from, to }, s) => {
    let top = from;
    while (top > free && lines[top - 1].text.trim() !== '' && rowKind(lines[top - 1].text, false) !== 'words')
      top--;
    let foot = to;
    const limit = spans[s + 1]?.from ?? lines.length;
    while (foot < limit && ['counts', 'strokes'].includes(rowKind(lines[foot].text, true))) foot++;
    const words = lines.slice(free, top).filter((l) => l.text.trim() !== '');
    const isName = ({ text }: AnyLine): boolean =>
      rowKind(text, false) === 'words' && !isAside(text) && !(s === 0 && text.trim() === head.title);
    const names = words.filter(isName);
    const name = names.at(-1)?.text.trim();
    const isLegend = name !== undefined && /\s=\s/.test(name);
    if (blocks.length === 0 || (name !== undefined && !isLegend)) {
      const known = [...new Set(blocks.filter((b) => !b.heading.variation).map((b) => b.heading.riff))];
      const heading = readHeading(isLegend ? '' : (name ?? ''), known);
      // What is played otherwise belongs to the guitar that it stands under.
      const guitar = heading.variation ? (blocks.at(-1)?.heading.guitar ?? 1) : heading.guitar;
      blocks.push({ heading: { ...heading, guitar }, bars: [], notes: [] });
    }
    const block = blocks[blocks.length - 1];
    block.notes.push(...words.filter((l) => BAR_NOTE.test(l.text)));
    const system: System = {
      strings: lines.slice(from, to).map((l) => ({ ...l.string!, line: l.line })),
      above: lines.slice(top, from),
      below: lines.slice(to, foot),
    };
    const read = readSystem(system, usual, { isOwn });
    remarks.push(...read.remarks);
    for (const bar of read.bars) {
      const before = block.bars.at(-1);
      if (bar.goesOn && before) block.bars.splice(-1, 1, joined(before, bar));
      else block.bars.push(bar);
    }
    free = foot;
  });
  const widest = spans.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a), spans[0]);
  const labels = widest ? lines.slice(widest.from, widest.to).map((l) => l.string!.label) : [];
  const strings = labels.length;
  for (const { from, to } of spans) {
    if (to - from !== strings) {
      const words = `${to - from} strings here, and ${strings} elsewhere`;
      remarks.push({ line: lines[from].line, column: null, words });
    }
  }
  return { blocks, remarks, strings, labels };
}

/** A bar that was broken at the end of a line. */
function joined(before: SystemBar, rest: SystemBar): SystemBar {
  const beats = Math.max(before.bar.beats, rest.bar.beats);
  const last = before.strums.at(-1);
  const first = rest.strums[0];
  const end = first?.startTicks ?? beats * ticksPerBeat(before.bar.unit);
  const longer = last && { ...last, durationTicks: end - last.startTicks };
  return {
    ...before,
    bar: { ...before.bar, beats },
    repeatTimes: rest.repeatTimes,
    strums: [...before.strums.slice(0, -1), ...(longer ? [longer] : []), ...rest.strums],
  };
}

/** The player's notes, put to their strums. */
function withNotes({ bars, notes }: Block, fromBar: number): SystemBar[] {
  return bars.map((bar, b) => {
    const here = notes.flatMap(({ text }) => {
      const [, number, beat, part, words] = BAR_NOTE.exec(text) ?? [];
      if (Number(number) - 1 !== b + fromBar) return [];
      return [{ syllable: part ?? beat, beat: Number(beat), words }];
    });
    if (here.length === 0) return bar;
    const strums = bar.strums.map((s): Strum => {
      const unit = ticksPerBeat(bar.bar.unit);
      const own = here.find(
        (n) =>
          Math.floor(s.startTicks / unit) + 1 === n.beat &&
          countSyllable(s.startTicks, bar.bar.unit) === n.syllable,
      );
      return own ? { ...s, note: fitText(own.words, TEXT_LIMITS.note) } : s;
    });
    return { ...bar, strums };
  });
}

/** A riff with what guitar 2 plays in it, and its variations. */
interface RiffBlock {
  readonly name: string;
  readonly letter: string;
  readonly measures: BroughtMeasure[];
  readonly bars: readonly SystemBar[];
  readonly passes: { readonly section: string; readonly pass: number; readonly measures: BroughtMeasure[] }[];
}

function riffBlocks(blocks: readonly Block[]): RiffBlock[] {
  const riffs: RiffBlock[] = [];
  for (const block of blocks) {
    const { heading } = block;
    if (heading.isMoved) continue;
    const riff = riffs.find((r) => r.name === heading.riff);
    const fromBar = heading.variation?.fromBar ?? 0;
    const bars = withNotes(block, heading.variation ? fromBar : 0);
    const put = (measures: readonly BroughtMeasure[]): BroughtMeasure[] =>
      measures.map((m, i) => {
        const bar = bars[i - fromBar];
        if (!bar) return m;
        return heading.guitar === 2 ? { ...m, guitar2: bar.strums } : { ...m, strums: bar.strums };
      });
    if (riff && heading.variation) {
      for (const { section, pass } of heading.variation.passes) {
        const there = riff.passes.find((p) => p.section === section && p.pass === pass);
        if (there) there.measures.splice(0, there.measures.length, ...put(there.measures));
        else riff.passes.push({ section, pass, measures: put(riff.measures) });
      }
    } else if (riff && heading.guitar === 2) {
      riff.measures.splice(0, riff.measures.length, ...put(riff.measures));
      for (const { measures } of riff.passes) measures.splice(0, measures.length, ...put(measures));
    } else {
      const measures = bars.map(({ bar, strums }) => ({ bar, strums, guitar2: [] }));
      riffs.push({ name: heading.riff, letter: heading.letter, measures, bars, passes: [] });
    }
  }
  return riffs;
}

/** A block without an order of play: once, or as often as its repeats say. */
function partsOfRiff({ name, letter, measures, bars }: RiffBlock): BroughtPart[] {
  const cuts = [0];
  bars.forEach((bar, b) => {
    if (bar.isRepeatStart) cuts.push(b);
    if (bar.repeatTimes > 0) cuts.push(b + 1);
  });
  const edges = [...new Set([...cuts, bars.length])].sort((a, b) => a - b);
  return edges.slice(1).map((to, i) => {
    const from = edges[i];
    const times = Math.max(1, bars[to - 1]?.repeatTimes ?? 1);
    const pass = measures.slice(from, to);
    const own = name.replace(/^[A-Z]{1,4}: /, '');
    return {
      name: edges.length > 2 && own !== '' && i > 0 ? `${own} (${i + 1})` : own,
      letter: i === 0 ? letter : '',
      riffName: i === 0 ? own : '',
      passes: Array.from({ length: times }, () => pass),
    };
  });
}

function moved(measures: readonly BroughtMeasure[], by: number): BroughtMeasure[] {
  const up = (strums: readonly Strum[]): Strum[] =>
    strums.map((s) => ({ ...s, frets: s.frets.map((f) => ({ ...f, fret: f.fret + by })) }));
  return measures.map((m) => ({ ...m, strums: up(m.strums), guitar2: up(m.guitar2) }));
}

/** Throws a RangeError that says what can't be read. */
export function readTextTab(text: string, options: ReadOptions): Brought {
  if (text.length > MOST_CHARACTERS) throw new RangeError('it is longer than any tab');
  const lines = withoutDoubleSpacing(
    text.split('\n').map((raw, i): AnyLine => {
      const plain = plainLine(raw);
      return { line: i + 1, text: plain, string: stringLine(plain) };
    }),
  );
  const first = systemsOf(lines)[0];
  if (!first) throw new RangeError(NO_TAB);
  const head = readHead(lines.slice(0, first.from).map((l) => l.text));
  const { blocks, remarks, strings, labels } = blocksOf(lines, head, head.meter, OWN.test(text));
  if (blocks.every((b) => b.bars.every((bar) => bar.strums.length === 0))) {
    throw new RangeError('its strings are empty: no fret is written');
  }
  const order = lines.flatMap((l) => {
    const section = playedSection(l.text);
    return section ? [{ ...section, line: l.line }] : [];
  });
  const riffs = riffBlocks(blocks);
  const parts =
    order.length === 0
      ? riffs.flatMap(partsOfRiff)
      : order.flatMap(({ name, letter, transpose, passes, line }): BroughtPart[] => {
          const riff = riffs.find((r) => r.letter === letter);
          if (!riff) {
            remarks.push({ line, column: null, words: `no riff ${letter} is written` });
            return [];
          }
          const own = Array.from({ length: passes }, (_, pass) => {
            const varied = riff.passes.find((p) => p.section === name && p.pass === pass);
            return moved(varied?.measures ?? riff.measures, transpose);
          });
          return [{ name, letter, riffName: riff.name.replace(/^[A-Z]{1,4}: /, ''), passes: own }];
        });
  const unplayed = order.length === 0 ? [] : riffs.filter((r) => !order.some((o) => o.letter === r.letter));
  const tuning = tuningFor(head.tuning, head.capo, strings, labels, options.tuning, remarks);
  const hasSecond = blocks.some((b) => b.heading.guitar === 2);
  return {
    remarks: remarks.sort((a, b) => (a.line ?? 0) - (b.line ?? 0) || (a.column ?? 0) - (b.column ?? 0)),
    tracks: [],
    track: 0,
    document: assembleSong({
      title: head.title,
      artist: head.artist,
      tuning,
      guitar2: hasSecond ? (tuningOfWords(head.tuning2, 0) ?? tuning) : null,
      key: head.key,
      bpm: head.bpm,
      referenceOffsetCents: head.cents,
      parts: [...parts, ...unplayed.flatMap(partsOfRiff)],
    }),
  };
}

/** What the tab says, then what its strings are called, then the tuning of the song where it has as many strings. */
function tuningFor(
  words: string,
  capo: number,
  strings: number,
  labels: readonly string[],
  usual: Tuning,
  remarks: Remark[],
): Tuning {
  const said = tuningOfWords(words, capo);
  const called = labels.every((l) => l !== '') ? tuningOfNames([...labels].reverse(), capo) : null;
  if (said?.stringsMidi.length === strings) {
    const isSame = called?.stringsMidi.every((m, i) => (m - said.stringsMidi[i]) % 12 === 0) ?? true;
    if (isSame || !called) return said;
    remarks.push({
      line: null,
      column: null,
      words: 'the strings are called otherwise than the tuning: they count',
    });
    return called;
  }
  if (said) {
    const count = said.stringsMidi.length;
    remarks.push({
      line: null,
      column: null,
      words: `the tuning names ${count} strings, and ${strings} are written`,
    });
  }
  if (called) return called;
  if (usual.stringsMidi.length === strings) return usual;
  if (strings === STANDARD_TUNING.stringsMidi.length) return { ...STANDARD_TUNING, capo };
  const names = Array.from(
    { length: strings },
    (_, i) => ['E', 'A', 'D', 'G', 'B', 'E'].at(i - strings) ?? 'B',
  );
  return tuningOfNames(names, capo) ?? { ...STANDARD_TUNING, capo };
}
