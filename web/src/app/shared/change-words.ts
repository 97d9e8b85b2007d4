/** What changed from one version of a song to another, in words. */
import type { Riff, SongChange, SongDocument, SongPart, StrumBrief } from '@wild-needle/core/riff';
import { nameNotes, type Key } from '@wild-needle/core/theory';
import { placeWords } from './difference-words';

const PART_WORDS: Readonly<Record<SongPart, string>> = {
  title: 'Title',
  artist: 'Artist',
  tuning: 'Tuning',
  guitar2: 'Second guitar',
  pitch: 'What the guitar is tuned to',
  key: 'Key',
  beats: 'Beats and bars',
  loops: 'Loops',
};
const WHAT_WORDS = {
  added: 'new',
  removed: 'taken away',
  changed: 'changed',
  settled: 'checked by ear',
} as const;

function briefWords({ midi, palmMute, dead }: StrumBrief, key: Key | null): string {
  const name = dead ? 'dead stroke' : nameNotes(midi, key).symbol || 'a blank place';
  return palmMute ? `${name} muted` : name;
}

function strumWords(before: StrumBrief | null, after: StrumBrief | null, key: Key | null): string {
  if (!before) return after ? `${briefWords(after, key)} written` : '';
  if (!after) return `${briefWords(before, key)} taken out`;
  return `from ${briefWords(before, key)} to ${briefWords(after, key)}`;
}

function riffWords(riff: Riff | undefined): string {
  return riff ? riff.name || `Riff ${riff.letter}` : 'A riff that is gone';
}

/** 'Verse riff: bar 2, beat 3 from A5 to D5/A'. `documents`: where its riffs may be found. */
export function changeWords(change: SongChange, documents: readonly SongDocument[], key: Key | null): string {
  const riffOf = (id: string): Riff | undefined => documents.flatMap((d) => d.riffs).find((r) => r.id === id);
  switch (change.kind) {
    case 'strum': {
      const riff = riffOf(change.riffId);
      const where = riff ? `${placeWords(riff, change.ticks)} ` : '';
      const what = strumWords(change.before, change.after, key);
      const guitar = change.guitar === 2 ? ', guitar 2' : '';
      const variation = change.variation === '' ? '' : `, ${change.variation}`;
      return `${riffWords(riff)}${variation}${guitar}: ${where}${what}`;
    }
    case 'marks': {
      const riff = riffOf(change.riffId);
      return `${riffWords(riff)}: ${riff ? placeWords(riff, change.ticks) : ''} marks`;
    }
    case 'riff':
      return `${riffWords(riffOf(change.riffId))}: ${WHAT_WORDS[change.what]}`;
    case 'section':
      return `Section ${change.name}: ${WHAT_WORDS[change.what]}`;
    case 'part':
      return `${PART_WORDS[change.part]}: changed`;
  }
}
