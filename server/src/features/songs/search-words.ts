/** What a song is found by: title, artist, tags, names, notes, tunings, and the chords of its riffs in their order. */
import { tuningLabel } from '@wild-needle/core/guitar';
import { strumNotes, type SongDocument, type Strum } from '@wild-needle/core/riff';
import { nameNotes } from '@wild-needle/core/theory';

/** Lower case, one blank between words and around all of them: a word is found whole by ' word '. */
export function searchable(text: string): string {
  return ` ${text
    .toLowerCase()
    .replace(/[♯]/g, '#')
    .replace(/[♭]/g, 'b')
    .split(/[\s,;:()]+/)
    .filter(Boolean)
    .join(' ')} `;
}

/** A chord that is struck again is one: 'A5 A5 C5' is found by 'a5 c5'. */
function chordsOf(strums: readonly Strum[], { tuning, key }: SongDocument): string {
  const names = strums.map((s) => nameNotes(strumNotes(s, tuning), key).symbol).filter(Boolean);
  return names.filter((name, i) => name !== names[i - 1]).join(' ');
}

export function searchWords(document: SongDocument, tags: readonly string[]): string {
  const { title, artist, tuning, riffs, sections } = document;
  const notes = riffs.flatMap((r) => [
    ...r.barNotes.map((n) => n.text),
    ...r.strums.map((s) => s.note),
    ...r.variations.map((v) => v.name),
  ]);
  return searchable(
    [
      ...[title, artist, ...tags, tuningLabel(tuning), tuning.name],
      ...sections.flatMap((s) => [s.name, s.tone]),
      ...riffs.flatMap((r) => [r.name, chordsOf(r.strums, document)]),
      ...notes,
    ].join(' '),
  );
}

const CHORD = /^[a-g][#b]?(5|m|7|sus[24]|maj7|m7)?$/;
const escaped = (word: string): string => word.replace(/[\\%_]/g, '\\$&');

/**
 * Patterns for LIKE, all of which must be there: chords one after the other are one phrase, a word of one or two letters is whole, a
 * longer one may be a part.
 */
export function patternsOf(search: string): string[] {
  const words = searchable(search).trim().split(' ').filter(Boolean);
  const patterns: string[] = [];
  for (let i = 0; i < words.length;) {
    let end = i;
    while (end < words.length && CHORD.test(words[end])) end++;
    const isPhrase = end - i > 1;
    const part = words.slice(i, isPhrase ? end : i + 1).map(escaped);
    patterns.push(isPhrase || part[0].length <= 2 ? `% ${part.join(' ')} %` : `%${part[0]}%`);
    i += part.length;
  }
  return patterns;
}
