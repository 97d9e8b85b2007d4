/** What is asked, in words: where it is, what is written and heard, and why it is doubted. */
import { strumNotes } from '@wild-needle/core/riff';
import { nameNotes, type Key } from '@wild-needle/core/theory';
import { placeWords } from '../../../shared/difference-words';
import type { Question } from './questions';

/** A dead stroke, as the list shows it. */
const DEAD = '×';

/** 'Chorus 2, pass 2' */
export function passWordsOf({ section, pass }: Question): string {
  return `${section.name}, pass ${pass.index + 1}`;
}

/** 'bar 3, beat 3' */
export function countWords({ riff, ticks }: Question): string {
  return placeWords(riff, ticks);
}

function nameOf(midi: readonly number[], dead: boolean, key: Key | null): string {
  return dead ? DEAD : nameNotes(midi, key).symbol;
}

/** '' where nothing is written. */
export function writtenName({ strum, midi }: Question, key: Key | null): string {
  return strum ? nameOf(midi, strum.dead, key) : '';
}

/** '' where nothing is heard. */
export function heardName({ heard }: Question, key: Key | null): string {
  return heard ? nameOf(heard.midi, heard.dead, key) : '';
}

/** '38 ms late' */
export function lateWords(offsetS: number): string {
  const ms = Math.round(1000 * offsetS);
  return ms === 0 ? 'on the beat' : `${Math.abs(ms)} ms ${ms > 0 ? 'late' : 'early'}`;
}

const NTH = ['First', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth'];

function notesWords(
  question: Question,
  extra: readonly number[],
  missing: readonly number[],
  key: Key | null,
): string {
  const [written, heard] = [writtenName(question, key), heardName(question, key)];
  if (written !== heard) return `${heard} heard`;
  if (extra.length === 1 && missing.length === 0) return `${NTH[question.midi.length] ?? 'Another'} string?`;
  if (missing.length === 1 && extra.length === 0) {
    return missing[0] === question.midi.at(-1) ? 'Top note not heard' : 'A note not heard';
  }
  return extra.length + missing.length === 0 ? 'Hard to hear' : 'Other notes heard';
}

/** Why it is doubted, in a few words; how it was borne out where it is not. */
export function reasonWords(question: Question, key: Key | null): string {
  const { reason, settled, verdict } = question;
  if (settled === 'kept') return 'Kept as written';
  if (verdict === 'unchecked') return 'Not compared yet';
  if (verdict === 'agrees') return 'Heard as written';
  switch (reason.kind) {
    case 'notes':
      return notesWords(question, reason.extra, reason.missing, key);
    case 'mute':
      return reason.heard === 'ringing'
        ? question.strum?.dead
          ? `${heardName(question, key)} heard`
          : 'Rings, not muted'
        : reason.heard === 'muted'
          ? 'Palm mute heard'
          : 'Dead stroke heard';
    case 'time':
      return lateWords(reason.offsetS);
    case 'covered':
      return `The ${reason.by} covers it`;
    case 'not-heard':
      return question.strum?.dead ? 'Dead, not heard' : 'Not heard';
    case 'not-written':
      return `${question.heard?.dead ? 'Dead stroke' : heardName(question, key)}, not written`;
  }
}

const VERDICT_WORDS = {
  agrees: 'agrees',
  doubtful: 'doubtful',
  clashes: 'clashes',
  missing: 'not heard',
  unchecked: 'not compared',
} as const;

/** 'G#5, C#5/G# heard, Chorus 2, pass 2, clashes, doubt 96 of 100': what its row shows, and what its signs say. */
export function spokenQuestion(question: Question, key: Key | null): string {
  const name = writtenName(question, key) || '+';
  const words = question.strum?.dead ? ['dead stroke'] : question.strum ? [] : ['nothing written'];
  const doubt = `doubt ${Math.round(100 * question.doubt)} of 100`;
  const shown = [name, reasonWords(question, key), passWordsOf(question)];
  return [...shown, ...words, VERDICT_WORDS[question.verdict], doubt].join(', ');
}

const beats = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 1 });

/** How it is struck, against what is written: 'Ringing. Sounds for 1.1 beats, written 1.' */
export function ringWords(question: Question, periodS: number | null): string {
  const { heard, strum, timeS, endS } = question;
  if (!heard) return 'Nothing is struck here; what was struck before rings on, or it is too quiet to tell.';
  const rings = heard.endS - heard.timeS;
  const written =
    strum === null ? '' : strum.dead ? ' Written dead.' : strum.palmMute ? ' Written muted.' : '';
  if (heard.dead) return `Dead: a click without a pitch.${written}`;
  if (heard.palmMuted)
    return `Muted. Dies in ${Math.round(1000 * rings)} ms.${strum?.palmMute ? '' : ' Written ringing.'}`;
  if (periodS === null) return `Ringing.${written}`;
  const writtenBeats = strum && written === '' ? `, written ${beats.format((endS - timeS) / periodS)}` : '';
  const long = beats.format(rings / periodS);
  return `Ringing. Sounds for ${long} ${long === '1' ? 'beat' : 'beats'}${writtenBeats}.${written}`;
}

/** The notes of the strum at the height that the riff is written at. */
export function writtenNotes({ strum }: Question, tuning: Parameters<typeof strumNotes>[1]): number[] {
  return strum ? strumNotes(strum, tuning) : [];
}
