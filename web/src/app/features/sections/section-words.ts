/** How the passes of a section compare, in words. */
import { isNotable, sharedDifferences } from '@wild-needle/core/draft';
import type { HeardSection } from '@wild-needle/core/mir';
import { tempoAt, type BeatGrid } from '@wild-needle/core/riff';
import type { Key } from '@wild-needle/core/theory';
import type { HeardPass } from '../../open-song/heard-passes';
import { countedBar, differenceWords, moveWords, passWords } from '../../shared/difference-words';
import { capital, movedBy } from '../../shared/words';

export interface PassVerdict {
  readonly kind: 'agree' | 'differ' | 'unheard';
  /** On one line of the list, so that a song is seen at a glance. */
  readonly words: string;
  /** What differs, one by one; '' where the words say all. */
  readonly details: string;
}

/** What is told of a pass. */
type ToldPass = Pick<
  HeardPass,
  'riff' | 'strokes' | 'comparison' | 'differences' | 'whole' | 'isAsking' | 'variation'
>;

/** More passes, and more bars, than this are counted, not told. */
const TOLD = 2;
const BARS_TOLD = 3;

const LIST = new Intl.ListFormat('en-GB', { type: 'conjunction' });

function told(words: readonly string[]): string {
  const more = words.length > TOLD ? ` and ${words.length - TOLD} more` : '';
  return capital(words.slice(0, TOLD).join('; ') + more);
}

/** The passes of a section, first to last. */
export function comparePassesInWords(
  passes: readonly ToldPass[],
  key: Key | null,
  hasRiff = true,
): PassVerdict {
  if (!hasRiff) return { kind: 'unheard', words: 'No riff here', details: '' };
  if (passes.every((p) => p.strokes.length === 0)) {
    return { kind: 'unheard', words: 'Nothing heard yet', details: '' };
  }
  const nameOf = (index: number): string =>
    passes.length > 1 && index === passes.length - 1 ? 'the last pass' : `pass ${index + 1}`;
  const kept = passes.flatMap((pass, i) =>
    pass.variation ? [`${nameOf(i)} plays “${pass.variation.name}”`] : [],
  );
  const asking = passes.flatMap((pass, index) => (pass.isAsking ? [{ pass, index }] : []));
  if (asking.length > 0) {
    const details = asking.map(({ pass, index }) => {
      const words = passWords(pass, key);
      return `${nameOf(index)}, ${words.charAt(0).toLowerCase()}${words.slice(1)}`;
    });
    return { kind: 'differ', words: whoDiffers(asking, nameOf), details: told([...details, ...kept]) };
  }
  const written = writtenOtherwise(passes, key);
  if (written) return written;
  if (kept.length > 0) return { kind: 'agree', words: told(kept), details: '' };
  return { kind: 'agree', words: passes.length === 1 ? 'One pass' : 'All passes agree', details: '' };
}

/** 'The last pass ends early', 'Passes 1 and 3 differ in bars 2 and 4', 'Pass 2 is 2 frets up'. */
function whoDiffers(
  asking: readonly { readonly pass: ToldPass; readonly index: number }[],
  nameOf: (index: number) => string,
): string {
  const [{ pass, index }] = asking;
  if (asking.length > 1) {
    const numbers = asking.map((a) => String(a.index + 1));
    const who = numbers.length > BARS_TOLD ? `${numbers.length} passes` : `Passes ${LIST.format(numbers)}`;
    return `${who} differ${barsWords(asking.map((a) => a.pass))}`;
  }
  const who = capital(nameOf(index));
  if (pass.whole) return `${who} is ${moveWords(pass.whole)}`;
  if (pass.differences.some((d) => d.kind === 'early-end')) return `${who} ends early`;
  return `${who} differs${barsWords([pass])}`;
}

/** ' in bar 2', ' in bars 2 and 4', ' in 5 bars'; '' in a riff of one bar. */
function barsWords(passes: readonly Pick<ToldPass, 'riff' | 'differences'>[]): string {
  if (passes.every(({ riff }) => riff.bars.length === 1)) return '';
  const bars = new Set(
    passes.flatMap(({ riff, differences }) => differences.map((d) => countedBar(riff, d.ticks))),
  );
  const inOrder = [...bars].sort((a, b) => a - b).map(String);
  if (inOrder.length > BARS_TOLD) return ` in ${inOrder.length} bars`;
  return ` in bar${inOrder.length === 1 ? '' : 's'} ${LIST.format(inOrder)}`;
}

/** What most passes play otherwise than it is written; null where that is too little to speak of. */
function writtenOtherwise(passes: readonly ToldPass[], key: Key | null): PassVerdict | null {
  const heard = passes.filter((p) => p.strokes.length > 0);
  const shared = sharedDifferences(heard.map((p) => p.comparison));
  // A tab that is hardly begun differs everywhere.
  if (!isNotable(shared.map((s) => s.difference)) || heard.some((p) => p.riff.strums.length === 0))
    return null;
  const first = heard[shared[0].pass];
  const own = shared.filter((s) => s.pass === shared[0].pass).map((s) => s.difference);
  const words = differenceWords(first.riff, own, first.strokes, key);
  const who = heard.length === 1 ? 'The pass plays' : 'Most passes play';
  return {
    kind: 'differ',
    words: `Not as written${barsWords([{ riff: first.riff, differences: own }])}`,
    details: `${who} otherwise than it is written: ${words.charAt(0).toLowerCase()}${words.slice(1)}`,
  };
}

/** Starts under this probability are told as doubtful, likenesses under this as loose. */
const SURE_START = 0.8;
const CLOSE_LIKENESS = 0.85;

export interface StartDoubt {
  readonly words: string;
  /** Where it may begin instead, in bars from here. */
  readonly orElseBars: number | null;
}

type SuggestedSection = Pick<HeardSection, 'startProbability' | 'orElseBars' | 'likeRiff'>;

/** What is not sure about where a suggested section begins; null when it is sure. */
export function startDoubt({ startProbability, orElseBars }: SuggestedSection): StartDoubt | null {
  if (startProbability >= SURE_START) return null;
  const sure = `We are not sure where it starts (${Math.round(100 * startProbability)} %)`;
  if (orElseBars === null) return { words: `${sure}.`, orElseBars };
  const bars = Math.abs(orElseBars) === 1 ? 'a bar' : `${Math.abs(orElseBars)} bars`;
  return { words: `${sure}; it may be ${bars} ${orElseBars > 0 ? 'later' : 'earlier'}.`, orElseBars };
}

/** '64 % like the first A', where a suggested repeat is a loose one; '' otherwise. */
export function likenessWords({ likeRiff }: SuggestedSection, letter: string): string {
  return likeRiff === null || likeRiff >= CLOSE_LIKENESS
    ? ''
    : `${Math.round(100 * likeRiff)} % like the first ${letter}`;
}

/** 'as written', '+2 frets': how high a section plays its riff. */
export function heightWords(semitones: number): string {
  if (semitones === 0) return 'as written';
  return `${movedBy(semitones)} fret${Math.abs(semitones) === 1 ? '' : 's'}`;
}

/** 'C# minor'; '' when it is not known. */
export function keyWords(key: Key | null): string {
  return key ? `${key.tonic} ${key.mode}` : '';
}

/** A tempo that changes by less than this over a section is one tempo, bpm. */
const STEADY_BPM = 2;

/** '132', or '128–134' where it drifts. */
export function tempoWords(grid: BeatGrid, startS: number, endS: number): string {
  const [first, last] = [tempoAt(grid, startS), tempoAt(grid, Math.max(startS, endS - 0.5))];
  if (first === null || last === null) return '';
  const [low, high] = [Math.round(Math.min(first, last)), Math.round(Math.max(first, last))];
  return high - low < STEADY_BPM ? String(Math.round((first + last) / 2)) : `${low}–${high}`;
}
