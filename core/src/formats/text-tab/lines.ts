/**
 * The lines of a text tab, told apart: those that are strings, counts, chord names, palm mutes and signs above them, strokes below, and
 * everything else, which is words. As people write it by hand and as this program does.
 */

/** Characters that only look different, each for one: columns stay where they are. */
const LOOKALIKES: readonly (readonly [RegExp, string])[] = [
  [/[\u00a0\u2000-\u200a\u202f\u3000]/g, ' '],
  [/[‐‑‒–—―−─━]/g, '-'],
  [/[│┃¦‖∣]/g, '|'],
  [/[♯＃]/g, '#'],
  [/♭/g, 'b'],
  [/[’‘`´]/g, "'"],
];
const TAB_WIDTH = 8;

/** Tabulators as spaces, look-alikes as what they stand for. */
export function plainLine(line: string): string {
  let plain = '';
  for (const character of line.replace(/\r$/, '')) {
    if (character === '\t') plain += ' '.repeat(TAB_WIDTH - (plain.length % TAB_WIDTH));
    else plain += character;
  }
  return LOOKALIKES.reduce((text, [like, as]) => text.replace(like, as), plain);
}

export interface StringLine {
  /** Name of the open string before it; '' for none. */
  readonly label: string;
  /** Column at which the music begins: behind the label and the first bar line. */
  readonly from: number;
  readonly text: string;
}

const LABELLED = /^(\s*)([A-Ga-g][#b]?)?\s*(\|{1,2}|:|\[)?/;
/** What may stand on a string, beside the dashes. */
const ON_STRING = /^[-\d\sxXhHpPbBrRsStTvV/\\~^()<>|:*.oO=+¼½¾']*(x\d+|\d+x)?\s*$/;

/** A line of a string; null for any other. */
export function stringLine(text: string): StringLine | null {
  // Over the strings, indented as they are.
  if (PALM_MUTE.test(text) || (SPAN_GOES_ON.test(text) && text.startsWith('  '))) return null;
  const [whole, , label = '', bar = ''] = LABELLED.exec(text) ?? [''];
  const body = text.slice(whole.length);
  const dashes = (body.match(/-/g) ?? []).length;
  const isDashed = dashes >= 3 && body.includes('--') && dashes >= 0.4 * body.trim().length;
  // Spaces for dashes: only behind a name and a bar line is that a string.
  const isSpaced = label !== '' && bar !== '' && body.includes('|') && ON_STRING.test(body);
  if (!isDashed && !isSpaced) return null;
  return { label, from: whole.length, text };
}

export interface Token {
  readonly column: number;
  readonly text: string;
}

export function tokensOf(line: string): Token[] {
  return [...line.matchAll(/\S+/g)].map((m) => ({ column: m.index, text: m[0] }));
}

/** Counts may stand side by side, as in `1e&a` and `triplet`. */
const COUNT = /^([1-9]\d?|&|\+|e|a|n|trip|let|and)+$/;
const ONE_COUNT = /\d+|and|trip|let|[&+ean]/g;

/** Every count by itself. */
export function countsOf(line: string): Token[] {
  return [...line.matchAll(ONE_COUNT)].map((m) => ({ column: m.index, text: m[0] }));
}

/** Of the last one of a line the end may be cut off. */
const CHORD = /^[A-G][#b]?(\(.*|(mi?n?|maj?|M|su?s?|add?|di?m?|au?g?|[-+°\d)/#b♭,A-G])*(\(.*)?)$/;
const STROKE = /^[duDU↓↑∏⊓V]$/;
const PALM_MUTE = /^[\s\-.|]*(P\.?\s?M\.?[\s\-.|]*)+$/i;
const SPAN_GOES_ON = /^\s*-+\|?\s*$/;
/** Signs over the strings that the writer of this folder sets, and the same spelled out. */
const SIGN = /^(r|PH|vv?|lr|let|ring|TP|\.|>|>\.?|A\.?H\.?|N\.?H\.?|[.>]+|(PH|vv?|lr|TP|>|\.)+)$/;

export type RowKind = 'counts' | 'chords' | 'mutes' | 'strokes' | 'signs' | 'words';

/** `isBelow`: it stands under the strings, where counts and strokes do. */
export function rowKind(line: string, isBelow: boolean): RowKind {
  if (PALM_MUTE.test(line)) return 'mutes';
  if (!isBelow && SPAN_GOES_ON.test(line)) return 'mutes';
  const tokens = tokensOf(line).map((t) => t.text);
  if (tokens.length === 0) return 'words';
  const isCounted = tokens.every((t) => COUNT.test(t)) && tokens.some((t) => /\d/.test(t));
  if (isCounted && (isBelow || tokens.some((t) => !/^\d+$/.test(t)))) return 'counts';
  // Numbers of bars.
  if (isCounted) return 'chords';
  if (isBelow && tokens.every((t) => STROKE.test(t))) return 'strokes';
  if (!isBelow && tokens.every((t) => SIGN.test(t))) return 'signs';
  if (!isBelow && tokens.every((t) => CHORD.test(t) || t === '?' || 'octave'.startsWith(t))) return 'chords';
  // What is left of a name that was broken with its line.
  return /[\p{L}\d]/u.test(line) ? 'words' : 'chords';
}
