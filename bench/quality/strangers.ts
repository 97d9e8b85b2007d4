/**
 * Recordings that do not belong to each other: how alike are different songs at most, and is each pair told? Made songs against made ones,
 * real ones against real ones and the guitar stems of others, made ones against real ones. The seeds are others than those that the border
 * was first set on.
 */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { align } from '@wild-needle/core/alignment';
import { monoOf } from './pair-figures';
import { renderPair } from './performances';

const SEEDS = [21, 22, 23, 24, 25, 26, 27, 28];

export function strangers(folder: string, realFolder: string | undefined): void {
  const made = SEEDS.map((seed) => renderPair(folder, seed, 'same'));
  const pairs: (readonly [string, string])[] = made.flatMap((one, i) =>
    made.slice(i + 1).map((two) => [one.referencePath, two.otherPath] as const),
  );
  if (realFolder !== undefined) {
    const mixes = readdirSync(realFolder).filter((name) => name.endsWith('.mix.flac'));
    const of = (name: string): string => join(realFolder, name);
    for (const [i, mix] of mixes.entries()) {
      for (const other of mixes) {
        if (other !== mix) pairs.push([of(mix), of(other.replace('.mix.', '.guitar.'))]);
      }
      for (const other of mixes.slice(i + 1)) pairs.push([of(mix), of(other)]);
      for (const one of made.slice(0, 4)) pairs.push([of(mix), one.referencePath]);
    }
  }
  const likenesses = pairs.map(([one, two]) => {
    const result = align(monoOf(one), monoOf(two));
    return { isTold: 'unrelated' in result, likeness: result.likeness };
  });
  const told = likenesses.filter(({ isTold }) => isTold).length;
  const most = likenesses.map(({ likeness }) => likeness.toFixed(2)).sort();
  process.stdout.write(
    `different songs told apart: ${told} of ${pairs.length}, most alike ${most.slice(-5).join(' ')}\n`,
  );
}
