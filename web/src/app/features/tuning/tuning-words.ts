/** What was measured of pitch and tuning, in sentences. */
import type { Analysis } from '@wild-needle/core/analysis';
import type { TensionVerdict } from '@wild-needle/core/guitar';
import { spellPitchClass, type Key } from '@wild-needle/core/theory';
import { clock } from '@wild-needle/core/units';
import { counted, signedCents } from '../../shared/words';

type Candidate = Analysis['tuning']['candidates'][number];

/** Half of the partials within this many cents: the pitch is as good as exact. */
const STEADY_CENTS = 12;
/** Drift that is heard. */
const DRIFT_CENTS = 6;
/** From here on a recording is nearer to the middle between two notes than to one. */
const BETWEEN_CENTS = 25;

export function sharpOrFlat(cents: number): string {
  const rounded = Math.round(cents);
  if (rounded === 0) return 'at concert pitch';
  return `${Math.abs(rounded) === 1 ? 'cent' : 'cents'} ${rounded > 0 ? 'sharp' : 'flat'}`;
}

/** What is heard of a recording so many cents off when it is put right. */
export function correctionWords(cents: number): string {
  const rounded = Math.round(cents);
  if (rounded === 0) return 'It is in tune';
  return `Plays ${counted(Math.abs(rounded), 'cent')} ${rounded > 0 ? 'lower' : 'higher'}`;
}

/** What becomes of the guitar when it follows the recording. */
export function retuningWords(cents: number): string {
  const rounded = Math.round(cents);
  if (rounded === 0) return 'As in standard';
  return `Every string ${counted(Math.abs(rounded), 'cent')} ${rounded > 0 ? 'up' : 'down'}`;
}

export function spreadWords(spreadCents: number): string {
  return spreadCents <= STEADY_CENTS
    ? `steady within ${Math.max(1, Math.round(spreadCents))} cents`
    : `half the overtones lie within ${Math.round(spreadCents)} cents`;
}

/** Partials that lie at all pitches alike are 25 cents from any (half of them); those of real mixes under much noise 22.8. */
const NO_PITCH_CENTS = 23.5;

/** True for noise, speech and drums: the measured pitch is one of many. */
export function isWithoutPitch(spreadCents: number): boolean {
  return spreadCents > NO_PITCH_CENTS;
}

/** How the pitch moves over the song. */
export function driftWords(overTime: Analysis['referenceOverTime']): string {
  if (overTime.length < 2) return 'Too short to say whether it drifts.';
  const byCents = [...overTime].sort((a, b) => a.cents - b.cents);
  const [lowest, highest] = [byCents[0], byCents[byCents.length - 1]];
  const say = (cents: number): string => signedCents(Math.round(cents));
  if (highest.cents - lowest.cents < DRIFT_CENTS) {
    return `No drift: ${say(lowest.cents)} to ${say(highest.cents)} over the song.`;
  }
  return `It moves: ${say(lowest.cents)} at ${clock(lowest.timeS)}, ${say(highest.cents)} at ${clock(highest.timeS)}.`;
}

/** 'Between E and F: an E of the record lies 38 cents over E.' Null where it is near enough to one note. */
export function betweenWords(cents: number, lowestPc: number, key: Key | null): string | null {
  if (Math.abs(cents) < BETWEEN_CENTS) return null;
  const name = (pc: number): string => spellPitchClass((pc + 12) % 12, key);
  const [low, high] = cents > 0 ? [lowestPc, lowestPc + 1] : [lowestPc - 1, lowestPc];
  const [own, over] = [name(lowestPc), cents > 0 ? 'over' : 'under'];
  return `Between ${name(low)} and ${name(high)}: the low ${own} of this record lies ${Math.round(Math.abs(cents))} cents ${over} ${own}.`;
}

const percent = (share: number): string => `${Math.round(100 * share)}\u00a0%`;

/** What speaks for a tuning, and against it. */
export function reasonWords({ reasons, capo }: Candidate): string {
  if (!reasons) return 'Kept from an earlier analysis, which gave no reasons.';
  const { lowestAboveOpen, openShare, oneFingerShare, unplayableShare } = reasons;
  const lowest =
    lowestAboveOpen < 0
      ? `The lowest note heard lies ${-lowestAboveOpen} under its low string.`
      : lowestAboveOpen === 0
        ? `The lowest note heard is its ${capo > 0 ? 'string at the capo' : 'open low string'}.`
        : `Nothing sounds on the ${lowestAboveOpen === 1 ? 'lowest fret' : `lowest ${lowestAboveOpen} frets`} of its low string.`;
  const lost = unplayableShare > 0.005 ? ` ${percent(unplayableShare)} of the chords can't be played.` : '';
  const ease =
    oneFingerShare > 0.2
      ? ` ${percent(oneFingerShare)} of the chords need one finger.`
      : openShare > 0.2
        ? ` ${percent(openShare)} of the chords have open strings.`
        : '';
  return lowest + lost + ease;
}

/** 'down 3', 'up 1', 'as in standard'. */
export function stepWords(steps: number): string {
  if (steps === 0) return 'as in standard';
  return `${steps < 0 ? 'down' : 'up'} ${Math.abs(steps)}`;
}

export const VERDICT_WORDS: Readonly<Record<TensionVerdict, string>> = {
  slack: 'Slack: buzzes, drifts. Try a heavier string',
  good: 'Good',
  tight: 'Tight. Bend with care',
  'too-tight': 'May snap: mind your eyes, use a thinner string',
};

/** A string in tune is this near. */
const IN_TUNE_CENTS = 2;

/** What to do with a string that is `cents` off. */
export function tunerWords(cents: number): string {
  const off = Math.abs(cents);
  if (off <= IN_TUNE_CENTS) return 'In tune';
  const much = off > 100 ? 'far' : off > 25 ? '' : off > 8 ? 'a little' : 'a hair';
  return `Tune ${cents < 0 ? 'up' : 'down'}${much === '' ? '' : ` ${much}`}`;
}
