/** Why a way to play a strum is offered, in words. */
import type { QuietString, Fingering, FingeringReason } from '@wild-needle/core/guitar';
import type { Key } from '@wild-needle/core/theory';
import { noteName } from '../../../shared/note-name';
import { capital } from '../../../shared/words';

/** A note is told as heard from this probability on, and as not heard below the other. */
const HEARD = 0.6;
const NOT_HEARD = 0.3;

function noteReason(midi: number, heard: number | null, adds: boolean, key: Key | null): string {
  const name = noteName(midi, key);
  if (heard !== null && heard >= HEARD)
    return adds ? `with the ${name} that sounds` : `without the ${name} that sounds`;
  if (heard !== null && heard <= NOT_HEARD)
    return adds ? `adds ${name}, not heard` : `leaves out ${name}, not heard`;
  return adds ? `with ${name}` : `without ${name}`;
}

function reasonWords(reason: FingeringReason, key: Key | null): string {
  switch (reason.kind) {
    case 'own-shape':
      return `your “${reason.name}”`;
    case 'same-notes':
      return '';
    case 'heard-as':
      return `${Math.round(100 * reason.probability)} %: might be this`;
    case 'adds':
      return noteReason(reason.midi, reason.heard, true, key);
    case 'leaves-out':
      return noteReason(reason.midi, reason.heard, false, key);
    case 'open-strings':
      return reason.count === 1 ? 'one open string' : `${reason.count} open strings`;
    case 'one-finger':
      return 'one finger';
    case 'nearest':
      return 'nearest to the hand';
    case 'moves':
      return reason.frets === 1 ? 'a fret away' : `${reason.frets} frets away`;
    case 'fullest':
      return 'fuller, on thicker strings';
    case 'wide-span':
      return `stretches ${reason.mm} mm`;
  }
}

/** 'Nearest to the hand, one finger' */
export function fingeringWords({ reasons, position }: Fingering, key: Key | null): string {
  const told = reasons.map((r) => reasonWords(r, key)).filter((w) => w !== '');
  const words =
    told.length > 0 ? told.slice(0, 3).join(', ') : position === null ? 'open' : `at fret ${position}`;
  return capital(words);
}

const BY_WORDS: Readonly<Record<QuietString['by'], string>> = {
  fingertip: 'the fingertip',
  'flat-finger': 'the flat index',
  thumb: 'the thumb',
  palm: 'the palm',
};

/** 'Fingers 1 3 4; mute 3 2 1 with the flat index' */
export function handWords({ fingers, quiet, frets }: Fingering): string {
  const pressed = fingers?.filter((f) => f.finger > 0).map((f) => f.finger) ?? [];
  const taken = frets.every((f) => f.fret === 0)
    ? 'All open'
    : fingers
      ? `${pressed.length === 1 ? 'Finger' : 'Fingers'} ${pressed.join(' ')}`
      : 'More than four fingers';
  const byWhat = new Map<QuietString['by'], number[]>();
  for (const { string, by } of quiet) byWhat.set(by, [...(byWhat.get(by) ?? []), string]);
  const hushed = [...byWhat].map(([by, strings]) => `${strings.join(' ')} with ${BY_WORDS[by]}`);
  return hushed.length > 0 ? `${taken}; mute ${hushed.join(', ')}` : taken;
}

/** '5 5 5 · · ·', lowest string first. */
export function fretText(frets: Fingering['frets'], strings: number): string {
  const cells = new Array<string>(strings).fill('·');
  for (const { string, fret } of frets) cells[strings - string] = String(fret);
  return cells.join(' ');
}
