/** The words on the sheet. */
import { tuningLabel, type Tuning } from '@wild-needle/core/guitar';
import { barOf, type Riff, type SongDocument } from '@wild-needle/core/riff';
import { standardFor, type SheetVersion, type VersionedSong } from '@wild-needle/core/sheet';
import type { Key } from '@wild-needle/core/theory';
import { clock } from '@wild-needle/core/units';
import { noteNames } from '../../shared/note-name';
import { counted, movedBy, signedCents } from '../../shared/words';

export const VERSION_WORDS: Readonly<
  Record<SheetVersion, { readonly name: string; readonly words: string }>
> = {
  'as-written': { name: 'As written', words: 'all strings, every mute' },
  'two-strings': { name: 'Two strings', words: 'root and fifth, same places' },
  'one-string': { name: 'One string', words: 'for a first day' },
  'no-mutes': { name: 'No mutes', words: 'nor dead strokes' },
  'standard-tuning': { name: 'Standard tuning', words: 'the same sound' },
  'with-capo': { name: 'With a capo', words: 'open strings, the same sound' },
  'one-guitar': { name: 'One guitar for both', words: 'what one hand reaches' },
};

/** What a version changed, in one sentence. */
export function versionWords(
  { changed, gone, lost, lostNotes, taken }: VersionedSong,
  key: Key | null,
): string {
  const parts = [
    changed > 0 ? `${counted(changed, 'strum')} ${changed === 1 ? 'is' : 'are'} played otherwise` : '',
    gone > 0 ? `${counted(gone, 'stroke')} left out` : '',
    taken > 0 ? `${counted(taken, 'strum')} of guitar 2 taken in` : '',
    lost > 0 ? `${counted(lost, 'note')} lost: ${noteNames(lostNotes, key)}` : '',
  ].filter((words) => words !== '');
  return parts.length === 0 ? 'Every strum as it is written.' : `${parts.join(', ')}.`;
}

export interface Fact {
  readonly name: string;
  readonly words: string;
}

export function factsOf(
  document: SongDocument,
  version: SheetVersion,
  bpm: number | null,
  key: Key | null,
): Fact[] {
  const { tuning, grid } = document;
  const [bar] = grid.bars;
  const meter = bar ? `, ${bar.beats}/${bar.unit}` : '';
  return [
    { name: 'Tuning', words: tuningLabel({ ...tuning, capo: 0 }) },
    { name: 'Capo', words: tuning.capo > 0 ? `fret ${tuning.capo}` : 'none' },
    { name: 'Version', words: VERSION_WORDS[version].name },
    { name: 'Tempo', words: bpm === null ? 'free' : `${Math.round(bpm)}${meter}` },
    { name: 'Key', words: key ? `${key.tonic} ${key.mode}` : '–' },
  ];
}

/** 'Verse 1, moved up: the same, 2 frets up'; '' where nothing is moved. */
export function movedWords({ sections }: SongDocument, riff: Riff): string {
  return sections
    .filter((s) => s.riffId === riff.id && s.transpose !== 0)
    .map(
      (s) =>
        `${s.name}: the same, ${counted(Math.abs(s.transpose), 'fret')} ${s.transpose > 0 ? 'up' : 'down'}`,
    )
    .join('; ');
}

/** The player's own notes: of bars, and of strums. */
export function listenFor({ riffs }: SongDocument): { readonly title: string; readonly words: string }[] {
  return riffs.flatMap((riff) => [
    ...riff.barNotes.map(({ bar, text, todo }) => ({
      title: `${riff.letter}, bar ${bar + 1}${todo ? ', to do' : ''}`,
      words: text,
    })),
    ...riff.strums
      .filter((s) => s.note !== '')
      .map((s) => ({ title: `${riff.letter}, bar ${barOf(riff, s.startTicks) + 1}`, words: s.note })),
  ]);
}

/** Semitones over and under the usual pitch of a string from which on it is said. */
const HIGH_FROM = 2;
const SLACK_FROM = -4;

/** What the tuning asks of strings and eyes. Common practice. */
export function cautionsOf(tuning: Tuning): string[] {
  const usual = standardFor(tuning).stringsMidi;
  const steps = tuning.stringsMidi.map((midi, i) => midi - usual[i]);
  return [
    ...(steps.some((s) => s >= HIGH_FROM)
      ? [
          'A string is tuned above its usual pitch: go up slowly, with thin strings and the eyes away, or use a capo.',
        ]
      : []),
    ...(steps.some((s) => s <= SLACK_FROM)
      ? ['A string hangs slack in this tuning: a thicker one holds it.']
      : []),
  ];
}

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** `forWhom`: '' for nobody in particular. */
export function footOf(
  document: SongDocument,
  durationS: number | null,
  doubtful: number,
  { forWhom, on }: { readonly forWhom: string; readonly on: Date },
): string {
  const cents = Math.round(document.referenceOffsetCents);
  const recording =
    durationS === null
      ? []
      : [
          `Recording of ${clock(durationS).replace(/\.\d$/, '')}${cents === 0 ? '' : `, plays ${signedCents(cents)} from A 440`}`,
        ];
  const doubts = doubtful === 0 ? [] : [`◇ ${counted(doubtful, 'strum')} still doubtful`];
  const written = forWhom === '' ? DAY.format(on) : `For ${forWhom}, ${DAY.format(on)}`;
  return [...recording, ...doubts, written, 'For private study'].join('. ') + '.';
}

/** 'A ×4', moved 'B+2 ×2', over the name of the section. */
export function roadMapOf({
  sections,
  riffs,
}: SongDocument): { readonly name: string; readonly plays: string }[] {
  return sections.map((section) => {
    const letter = riffs.find((r) => r.id === section.riffId)?.letter;
    const plays = letter === undefined ? '–' : `${letter}${movedBy(section.transpose)} ×${section.passes}`;
    return { name: section.name, plays };
  });
}
