/** How the passes of a section compare, in words. */
import { isNotable, sharedDifferences } from '@wild-needle/core/draft';
import type { HeardSection } from '@wild-needle/core/mir';
import { tempoAt, type BeatGrid } from '@wild-needle/core/riff';
import type { Key } from '@wild-needle/core/theory';
import type { HeardPass } from '../../open-song/heard-passes';
import { differenceWords, passWords } from '../../shared/difference-words';

export interface PassVerdict {
  readonly kind: 'agree' | 'differ' | 'unheard';
  readonly words: string;
}

/** What is told of a pass. */
type ToldPass = Pick<
  HeardPass,
  'riff' | 'strokes' | 'comparison' | 'differences' | 'whole' | 'isAsking' | 'variation'
>;

/** More passes than this are counted, not told. */
const TOLD = 2;

/** The passes of a section, first to last, in one sentence. */
export function comparePassesInWords(
  passes: readonly ToldPass[],
  key: Key | null,
  hasRiff = true,
): PassVerdict {
  if (!hasRiff) return { kind: 'unheard', words: 'No riff here' };
  if (passes.every((p) => p.strokes.length === 0)) return { kind: 'unheard', words: 'Nothing heard yet' };
  const nameOf = (index: number): string =>
    passes.length > 1 && index === passes.length - 1 ? 'the last pass' : `pass ${index + 1}`;
  const asking = passes.flatMap((pass, i) => {
    if (!pass.isAsking) return [];
    const words = passWords(pass, key);
    return [`${nameOf(i)}, ${words.charAt(0).toLowerCase()}${words.slice(1)}`];
  });
  const kept = passes.flatMap((pass, i) =>
    pass.variation ? [`${nameOf(i)} plays “${pass.variation.name}”`] : [],
  );
  const told = [...asking, ...kept];
  if (asking.length === 0) {
    const written = writtenOtherwise(passes, key);
    if (written !== '') return { kind: 'differ', words: written };
  }
  if (told.length === 0)
    return { kind: 'agree', words: passes.length === 1 ? 'One pass' : 'All passes agree' };
  const more = told.length > TOLD ? ` and ${told.length - TOLD} more` : '';
  const words = told.slice(0, TOLD).join('; ') + more;
  return { kind: asking.length > 0 ? 'differ' : 'agree', words: words[0].toUpperCase() + words.slice(1) };
}

/** What most passes play otherwise than it is written; '' where that is too little to speak of. */
function writtenOtherwise(passes: readonly ToldPass[], key: Key | null): string {
  const heard = passes.filter((p) => p.strokes.length > 0);
  const shared = sharedDifferences(heard.map((p) => p.comparison));
  // A tab that is hardly begun differs everywhere.
  if (!isNotable(shared.map((s) => s.difference)) || heard.some((p) => p.riff.strums.length === 0)) return '';
  const first = heard[shared[0].pass];
  const own = shared.filter((s) => s.pass === shared[0].pass).map((s) => s.difference);
  const words = differenceWords(first.riff, own, first.strokes, key);
  const who = heard.length === 1 ? 'The pass plays' : 'Most passes play';
  return `${who} otherwise than it is written: ${words.charAt(0).toLowerCase()}${words.slice(1)}`;
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
