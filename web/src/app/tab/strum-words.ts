/** A strum in words, for a screen reader. */
import { markWords, type Strum } from '@wild-needle/core/riff';
import type { Key } from '@wild-needle/core/theory';
import { noteNames } from '../shared/note-name';

/** 'E5 palm mute: string 6 fret 0, string 5 fret 2; E2 lost in this tuning' */
export function spokenStrum(strum: Strum, name: string, lost: readonly number[], key: Key | null): string {
  const written = `${spokenFrets(strum, name)}${strum.trust === 'doubtful' ? '; left doubtful' : ''}`;
  return lost.length === 0 ? written : `${written}; ${noteNames(lost, key)} lost in this tuning`;
}

function spokenFrets(strum: Strum, name: string): string {
  const words = markWords(strum).join(', ');
  if (strum.dead || strum.rest) return words;
  if (strum.frets.length === 0) return 'not written yet';
  const frets = strum.frets.map((f) => `string ${f.string} fret ${f.fret}`).join(', ');
  return `${name}${words === '' ? '' : ` ${words}`}: ${frets}`;
}
