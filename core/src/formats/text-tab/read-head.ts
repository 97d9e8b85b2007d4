/** What the words of a text tab say: title, tuning, tempo, key, order of play, and which riff a system belongs to. */
import { STANDARD_TUNING, TUNINGS, type Tuning } from '../../guitar';
import { isUnit, type RiffBar } from '../../riff';
import { KEY_MODES, parseNote, pitchClassOf, TONIC, type Key } from '../../theory';
import type { MidiNote } from '../../units';

/** Each string at the height that is nearest to the usual one: fourths go on under the lowest of six. */
export function tuningOfNames(lowToHigh: readonly string[], capo: number): Tuning | null {
  const { stringsMidi: six } = STANDARD_TUNING;
  const more = Array.from(
    { length: Math.max(0, lowToHigh.length - six.length) },
    (_, i) => six[0] - 5 * (i + 1),
  );
  const usual = [...more.reverse(), ...six].slice(lowToHigh.length < six.length ? 0 : -lowToHigh.length);
  const stringsMidi = lowToHigh.map((name, i): MidiNote | null => {
    const midi = parseNote(`${name.charAt(0).toUpperCase()}${name.slice(1)}4`);
    if (midi === null) return null;
    const up = ((pitchClassOf(midi) - pitchClassOf(usual[i]) + 18) % 12) - 6;
    return usual[i] + up;
  });
  const all = stringsMidi.filter((m): m is MidiNote => m !== null);
  if (all.length < 3 || all.length !== stringsMidi.length) return null;
  const known = TUNINGS.find((t) => t.strings.join() === all.join());
  return { name: known?.name ?? 'custom', stringsMidi: all, capo };
}

/** 'Drop C# or Db' → 'Drop C# or Db', 'Drop C#', 'Drop Db'. */
function namesOf(label: string): string[] {
  const [first, second] = label.split(' or ');
  if (second === undefined) return [label];
  return [label, first, first.replace(/\S+$/, second)];
}

/** 'Drop D (D A D G B E, low to high)', 'DADGBE', 'D A D G B E', 'Drop D'; null for what names no tuning. */
export function tuningOfWords(words: string, capo: number): Tuning | null {
  const inBrackets = /\(([^)]*)\)/.exec(words)?.[1];
  for (const text of [inBrackets, words]) {
    const names = text?.replace(/,?\s*low to high/i, '').match(/[A-Ga-g][#b]?(?![a-z])/g) ?? [];
    const rest = text?.replace(/,?\s*low to high/i, '').replace(/[A-Ga-g][#b]?(?![a-z])|[\s,\-/0-9]/g, '');
    if (rest === '' && names.length >= 3) return tuningOfNames(names, capo);
    const packed = /^\s*([A-Ga-g][#b]?){4,12}\s*$/.exec(text ?? '') && (text?.match(/[A-Ga-g][#b]?/g) ?? []);
    if (packed) return tuningOfNames(packed, capo);
  }
  // 'Drop C# or Db' is called by either; of 'Drop C' and 'Drop C#' the longer one is meant.
  const [known] = TUNINGS.flatMap((t) => namesOf(t.label).map((name) => ({ ...t, called: name })))
    .filter(({ called }) => words.toLowerCase().includes(called.toLowerCase()))
    .sort((a, b) => b.called.length - a.called.length);
  return known ? { name: known.name, stringsMidi: known.strings, capo } : null;
}

export interface Head {
  readonly title: string;
  readonly artist: string;
  /** As it is written; it is understood when the number of strings is known. */
  readonly tuning: string;
  readonly tuning2: string;
  readonly capo: number;
  readonly bpm: number | null;
  /** The one meter of the tab; null where none is named, or several are. */
  readonly meter: RiffBar | null;
  readonly key: Key | null;
  readonly cents: number;
}

const CAPO = /capo\D{0,12}?(\d{1,2})/i;

/** From the lines before the first system. */
export function readHead(lines: readonly string[]): Head {
  const after = (label: RegExp): string => {
    const line = lines.find((l) => label.test(l));
    return line === undefined ? '' : line.replace(label, '').trim();
  };
  const tempo = after(/^\s*tempo\s*[:=]\s*/i) || after(/^\s*bpm\s*[:=]\s*/i);
  const bpm = Number(/(\d+(?:\.\d+)?)/.exec(tempo)?.[1]);
  const meters = [...lines.join('\n').matchAll(/(?<![\d/])(\d{1,2})\/(2|4|8|16)(?![\d/])/g)].map(
    ([, b, u]) => ({
      beats: Number(b),
      unit: Number(u),
    }),
  );
  const [meter] = meters;
  const isOne = meters.length > 0 && meters.every((m) => m.beats === meter.beats && m.unit === meter.unit);
  const [tonic = '', mode = ''] = after(/^\s*key\s*[:=]\s*/i).split(/\s+/);
  const known = KEY_MODES.find((m) => m === mode.toLowerCase());
  const cents = Number(/([+−-]?\d+) cents/.exec(after(/^\s*recording\s*:\s*/i))?.[1].replace('−', '-'));
  const isLabelled = (line: string): boolean => /^\s*[\p{L}\d ]{2,14}\s*[:=]/u.test(line);
  const first = lines.find((l) => l.trim() !== '' && !isLabelled(l))?.trim() ?? '';
  const said = after(/^\s*title\s*[:=]\s*/i);
  const [title, ...artists] = (said || first).split(' / ');
  return {
    title: title.trim(),
    artist: (after(/^\s*artist\s*[:=]\s*/i) || artists.join(' / ')).trim(),
    tuning: after(/^\s*tuning\s*[:=]\s*/i),
    tuning2: after(/^\s*guitar 2\s*:\s*/i),
    capo: Math.min(12, Number(CAPO.exec(lines.join('\n'))?.[1]) || 0),
    bpm: bpm > 0 ? bpm : null,
    meter:
      isOne && isUnit(meter.unit) && meter.beats >= 1 && meter.beats <= 32
        ? { ...meter, unit: meter.unit }
        : null,
    key: TONIC.test(tonic) && known ? { tonic, mode: known } : null,
    cents: Number.isFinite(cents) ? cents : 0,
  };
}

export interface PlayedSection {
  readonly name: string;
  readonly letter: string;
  readonly transpose: number;
  readonly passes: number;
}

/** A row of the order of play, as '  0:07.8  Verse 1: B (+2) x4'. */
export function playedSection(line: string): PlayedSection | null {
  const m = /^\s+[\d:.]+\s{2}(.+): ([A-Z]{1,4})(?: \(([+-]\d{1,2})\))? x(\d{1,3})\b/.exec(line);
  if (!m) return null;
  return { name: m[1], letter: m[2], transpose: Number(m[3] ?? 0), passes: Number(m[4]) };
}

export interface Heading {
  readonly riff: string;
  /** '' for one that is told by its name only. */
  readonly letter: string;
  readonly guitar: 1 | 2;
  /** A variation of the riff, and where it is played. */
  readonly variation: {
    readonly passes: readonly { readonly section: string; readonly pass: number }[];
    readonly fromBar: number | null;
  } | null;
  /** The riff once more, elsewhere on the neck. */
  readonly isMoved: boolean;
}

/** Over a system: 'Riff A, guitar 2 (2 bars)', 'Riff A, Ending (pass 4 of Verse 1), in place of bar 2', or any words. */
export function readHeading(text: string, known: readonly string[]): Heading {
  const named = [...known].sort((a, b) => b.length - a.length).find((name) => text.startsWith(`${name}, `));
  const rest = named ? text.slice(named.length + 2) : '';
  const guitar = /guitar 2/i.test(text) ? 2 : 1;
  if (named && !/^guitar [12]( \(\d+ bars?\))?$/.test(rest)) {
    if (/^\d+ frets? (up|down)/.test(rest) || / \d+ frets? (up|down) \(/.test(rest)) {
      return { riff: named, letter: '', guitar, variation: null, isMoved: true };
    }
    const passes = [
      ...rest.matchAll(/pass(?:es)? ([\d, and]+) of ((?:(?!, pass(?:es)? \d| and pass(?:es)? \d|\)).)+)/g),
    ].flatMap(([, numbers, section]) =>
      (numbers.match(/\d+/g) ?? []).map((n) => ({ section: section.trim(), pass: Number(n) - 1 })),
    );
    const bar = /in place of bars? (\d+)/.exec(rest)?.[1];
    const fromBar = bar === undefined ? null : Number(bar) - 1;
    return { riff: named, letter: '', guitar, variation: { passes, fromBar }, isMoved: false };
  }
  const plain = text
    .replace(/\s*\(\d+ bars?\)\s*$/, '')
    .replace(/, guitar [12]$/i, '')
    .replace(/^[\s[(*#=-]+|[\s\]):*#=-]+$/g, '')
    .trim();
  const lettered = /^([A-Z]{1,4}): (.+)$/.exec(plain);
  const letter = lettered?.[1] ?? /^Riff ([A-Z]{1,4})$/.exec(plain)?.[1] ?? '';
  return { riff: lettered ? plain : plain, letter, guitar, variation: null, isMoved: false };
}
