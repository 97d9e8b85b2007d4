/**
 * A riff whose last bars are played otherwise in some of its passes, as one stave with endings: first what most passes play, then in
 * brackets what the others do.
 */
import {
  barOf,
  barStartsTicks,
  isEnding,
  variationOf,
  type Riff,
  type SongDocument,
  type Strum,
  type Variation,
} from '../riff';

export interface Bracket {
  readonly fromBar: number;
  readonly toBar: number;
  /** '1. 2. 3.', 'last time'. */
  readonly label: string;
}

export interface WithEnding {
  /** The riff with the bars of the other ending behind its own. */
  readonly riff: Riff;
  readonly brackets: readonly Bracket[];
  /** The repeat ends behind this bar. */
  readonly repeatEndBar: number;
  readonly variationId: string;
}

/** '1. 2. 3.' */
const numbered = (passes: readonly number[]): string => passes.map((p) => `${p + 1}.`).join(' ');
/** More numbers are a line of their own. */
const MOST_NUMBERS = 8;

/** In which passes an ending is played: told by numbers where all sections agree, and as the last time where it always is. */
function labelsOf(
  { sections }: SongDocument,
  riff: Riff,
  { id }: Variation,
): readonly [string, string] | null {
  const played = sections.filter((s) => s.riffId === riff.id);
  const passesOf = played.map((section) => {
    const all = Array.from({ length: section.passes }, (_, pass) => pass);
    const other = all.filter((pass) => variationOf(riff, section, pass)?.id === id);
    const own = all.filter((pass) => variationOf(riff, section, pass) === null);
    return { all, other, own };
  });
  if (passesOf.some(({ all, other, own }) => all.length !== other.length + own.length)) return null;
  const [first] = passesOf;
  if (!first || passesOf.every(({ other }) => other.length === 0)) return null;
  const isSame = passesOf.every(
    (p) => p.other.join() === first.other.join() && p.own.join() === first.own.join(),
  );
  if (isSame && first.own.length > 0 && first.all.length <= MOST_NUMBERS) {
    return [numbered(first.own), numbered(first.other)];
  }
  const isLast = passesOf.every(
    ({ all, other }) => all.length > 1 && other.length === 1 && other[0] === all.length - 1,
  );
  return isLast ? ['before', 'last time'] : null;
}

/** Null for a riff whose variations are no endings, or more than one, or begin within a bar. */
export function withEnding(document: SongDocument, riff: Riff): WithEnding | null {
  const [ending, ...others] = riff.variations;
  if (!ending || others.length > 0 || !isEnding(riff, ending)) return null;
  const starts = barStartsTicks(riff);
  const fromBar = barOf(riff, ending.fromTicks);
  const labels = labelsOf(document, riff, ending);
  if (!labels || fromBar === 0 || starts[fromBar] !== ending.fromTicks) return null;
  const by = ending.toTicks - ending.fromTicks;
  const behind = (own: readonly Strum[], other: readonly Strum[]): Strum[] => [
    ...own,
    ...other.map((s) => ({ ...s, startTicks: s.startTicks + by })),
  ];
  const count = riff.bars.length;
  return {
    variationId: ending.id,
    repeatEndBar: count,
    brackets: [
      { fromBar, toBar: count, label: labels[0] },
      { fromBar: count, toBar: 2 * count - fromBar, label: labels[1] },
    ],
    riff: {
      ...riff,
      bars: [...riff.bars, ...riff.bars.slice(fromBar)],
      strums: behind(riff.strums, ending.strums),
      guitar2: behind(riff.guitar2, ending.guitar2),
      variations: [],
    },
  };
}
