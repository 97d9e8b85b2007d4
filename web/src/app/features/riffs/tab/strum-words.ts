/** A strum in words, for a screen reader. */
import { markWords, type Strum } from '@wild-needle/core/riff';

/** 'E5 palm mute: string 6 fret 0, string 5 fret 2' */
export function spokenStrum(strum: Strum, name: string): string {
  const words = markWords(strum).join(', ');
  if (strum.dead || strum.rest) return words;
  if (strum.frets.length === 0) return 'not written yet';
  const frets = strum.frets.map((f) => `string ${f.string} fret ${f.fret}`).join(', ');
  return `${name}${words === '' ? '' : ` ${words}`}: ${frets}`;
}
