/**
 * A riff and a song as text tab: one line per string with the highest on top, bar lines, counts above, chord
 * names, `PM---|` over palm-muted strums and `x` for dead strokes. The layout is common practice for tab in plain
 * text; columns stand for sixteenths, or for a finer place where a bar has one.
 */
import { chordName, identifyChord, spellPitchClass, pitchClassOf, type Key } from '../../theory';
import { soundingNotes, tuningLabel, type Tuning } from '../../guitar';
import { countSyllable, passesOf, barStartsTicks, ticksPerBeat } from '../../riff';
import type { Riff, SongDocument, Strum } from '../../riff';
import { TICKS_PER_QUARTER } from '../../units';

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
  const chord = strum.dead ? null : identifyChord(soundingNotes(tuning, strum.frets));
  return chord ? chordName(chord, key) : '';
}

interface BarText {
  readonly names: string;
  readonly mutes: string;
  readonly counts: string;
  /** Highest string first. */
  readonly strings: readonly string[];
}

function put(line: string[], at: number, text: string): void {
  for (let i = 0; i < text.length && at + i < line.length; i++) line[at + i] = text[i];
}

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
  const width = columns * COLUMN;
  const blank = (fill: string): string[] => new Array<string>(width).fill(fill);
  const names = blank(' ');
  const mutes = blank(' ');
  const counts = blank(' ');
  const strings = tuning.stringsMidi.map(() => blank('-'));

  for (let c = 0; c < columns; c++) put(counts, c * COLUMN, countSyllable(c * tickStep, unit));
  let nameEnd = -1;
  strums.forEach((strum, i) => {
    const at = Math.round((strum.startTicks - start) / tickStep) * COLUMN;
    const name = nameOf(strum, tuning, key);
    if (name !== '' && name !== lastName.value && at > nameEnd) {
      put(names, at, name);
      nameEnd = at + name.length;
      lastName.value = name;
    }
    if (strum.palmMute) {
      const before = strums[i - 1]?.palmMute ?? false;
      const next = strums[i + 1];
      const until = next?.palmMute ? Math.round((next.startTicks - start) / tickStep) * COLUMN : at + 2;
      put(mutes, at, before ? '--' : 'PM');
      for (let c = at + 2; c < until; c++) put(mutes, c, '-');
      if (!next?.palmMute) put(mutes, until, '|');
    }
    const lines = strings.length;
    if (strum.dead) {
      // Over the written strings; over all of them where none is written.
      const struck = strum.frets.length > 0 ? strum.frets.map((f) => f.string) : strings.map((_, s) => s + 1);
      for (const s of struck) put(strings[s - 1], at, 'x');
    } else {
      for (const { string, fret } of strum.frets)
        if (string <= lines) put(strings[string - 1], at, String(fret));
    }
  });
  return {
    names: names.join(''),
    mutes: mutes.join(''),
    counts: counts.join(''),
    strings: strings.map((s) => s.join('')),
  };
}

/** Lines of one riff, without a heading. */
export function writeRiffTab(riff: Riff, tuning: Tuning, key: Key | null): string[] {
  const labels = stringNames(tuning, key);
  const indent = ' '.repeat(labels[0].length + 2);
  const lines: string[] = [];
  const lastName = { value: '' };
  const written = riff.bars.map((_, b) => writeBar(riff, b, tuning, key, lastName));
  while (written.length > 0) {
    const bars = [written.shift()!];
    let width = bars[0].counts.length;
    while (written.length > 0 && width + written[0].counts.length <= LINE_WIDTH) {
      width += written[0].counts.length;
      bars.push(written.shift()!);
    }
    const above = (pick: (bar: BarText) => string): string => (indent + bars.map(pick).join('  ')).trimEnd();
    lines.push(above((bar) => bar.names));
    const mutes = above((bar) => bar.mutes);
    if (mutes !== '') lines.push(mutes);
    labels.forEach((label, s) => lines.push(`${label}|-${bars.map((bar) => bar.strings[s]).join('|-')}|`));
    lines.push(
      above((bar) => bar.counts),
      '',
    );
  }
  return lines;
}

function clock(s: number): string {
  return `${Math.floor(s / 60)}:${(s % 60).toFixed(1).padStart(4, '0')}`;
}

/** The whole song: heading, tuning, order of play with times, then each riff. Ends with a newline. */
export function writeTextTab(document: SongDocument): string {
  const { title, artist, tuning, key, referenceOffsetCents, riffs, sections, grid } = document;
  const strings = [...tuning.stringsMidi].map((m) => spellPitchClass(pitchClassOf(m), key)).join(' ');
  const cents = Math.round(referenceOffsetCents);
  const lines = [
    artist === '' ? title : `${title} / ${artist}`,
    `Tuning: ${tuningLabel(tuning)} (${strings}, low to high)`,
  ];
  if (key) lines.push(`Key: ${key.tonic} ${key.mode}`);
  if (cents !== 0) lines.push(`Recording: ${cents > 0 ? '+' : '−'}${Math.abs(cents)} cents from A = 440 Hz`);
  lines.push('PM = palm mute, x = dead stroke', '');
  if (sections.length > 0) {
    lines.push('Order of play');
    for (const section of sections) {
      const riff = riffs.find((r) => r.id === section.riffId);
      if (!riff) continue;
      const from = passesOf(section, riff, grid)[0]?.startS ?? 0;
      const moved =
        section.transpose === 0 ? '' : ` (${section.transpose > 0 ? '+' : ''}${section.transpose})`;
      lines.push(`  ${clock(from)}  ${section.name}: ${riff.letter}${moved} x${section.passes}`);
    }
    lines.push('');
  }
  for (const riff of riffs) {
    const times = riff.bars.length === 1 ? '1 bar' : `${riff.bars.length} bars`;
    lines.push(`${riff.name} (${times})`, '', ...writeRiffTab(riff, tuning, key));
  }
  lines.push('For private study, unless the rights holder allows more.');
  return `${lines.join('\n')}\n`;
}
