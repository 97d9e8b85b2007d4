/** How the passes of a section compare, in words. */
import type { Analysis } from '@wild-needle/core/analysis';
import { countAt, type BeatGrid } from '@wild-needle/core/riff';

type HeardPass = Analysis['sections'][number]['passList'][number];

/** Passes that were heard with no more than this many small differences agree. */
const AGREEING = 1;

export interface PassVerdict {
  readonly kind: 'agree' | 'differ' | 'unheard';
  readonly words: string;
}

function differenceWords({ differences }: HeardPass, grid: BeatGrid): string {
  const early = differences.find((d) => d.kind === 'early-end');
  if (early) {
    const at = countAt(grid, early.timeS);
    return at ? `ends early, at bar ${at.bar} beat ${at.beat}` : 'ends early';
  }
  const counts = new Map<string, number>();
  for (const { kind } of differences) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  const say = (kind: string, one: string, many: (count: number) => string): string[] => {
    const count = counts.get(kind) ?? 0;
    return count === 0 ? [] : [count === 1 ? one : many(count)];
  };
  return [
    ...say('missing', 'lacks a strum', (n) => `lacks ${n} strums`),
    ...say('extra', 'has a strum more', (n) => `has ${n} strums more`),
    ...say('chord', 'has another chord', (n) => `has ${n} other chords`),
    ...say('mute', 'is muted otherwise once', (n) => `is muted otherwise ${n} times`),
  ].join(', ');
}

/** `passes` as they were heard between the bounds of a section, first to last. */
export function comparePassesInWords(passes: readonly HeardPass[], grid: BeatGrid): PassVerdict {
  if (passes.length === 0) return { kind: 'unheard', words: 'Not compared' };
  if (passes.length === 1) return { kind: 'unheard', words: 'One pass alone' };
  const differing = passes
    .map((pass, i) => ({ pass, number: i + 1 }))
    .filter(
      ({ pass }) =>
        pass.differences.length > AGREEING || pass.differences.some((d) => d.kind === 'early-end'),
    );
  if (differing.length === 0) return { kind: 'agree', words: 'All passes agree' };
  const said = differing.slice(0, 2).map(({ pass, number }) => {
    const name = number === passes.length ? 'the last pass' : `pass ${number}`;
    return `${name} ${differenceWords(pass, grid)}`;
  });
  const more = differing.length > 2 ? ` and ${differing.length - 2} more` : '';
  const words = said.join('; ') + more;
  return { kind: 'differ', words: words[0].toUpperCase() + words.slice(1) };
}
