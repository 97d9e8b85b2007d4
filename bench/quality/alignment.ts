/**
 * `npm run bench:alignment -- [FOLDER]`: how well another recording is laid along the reference, on made pairs with exact truth (see
 * `performances.ts`), and whether recordings of different songs are told apart. FOLDER holds real songs of the corpus, mix and guitar
 * stem of each: both have the same times. Prints the table that stands in `docs/accuracy.md`.
 */
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { align, timeMapOf } from '@wild-needle/core/alignment';
import { alignedPair, monoOf, quantileOf, type PairFigures } from './pair-figures';
import { DIFFERENCES, renderPair } from './performances';
import { strangers } from './strangers';

const SEEDS = [11, 12, 13, 14];
/** Times that are asked about in a real song, seconds apart. */
const ASKED_EVERY_S = 1;

const ms = (value: number): string => value.toFixed(1).padStart(6);

function print(name: string, figures: readonly (PairFigures | null)[]): void {
  const taken = figures.filter((f) => f !== null);
  const parts = taken.filter((f) => f.partIsRight !== null);
  process.stdout.write(
    `| ${name.padEnd(9)} | ${ms(
      quantileOf(
        taken.map((f) => f.medianMs),
        0.5,
      ),
    )} | ${ms(Math.max(...taken.map((f) => f.medianMs)))} ` +
      `| ${ms(
        quantileOf(
          taken.map((f) => f.mostMs),
          0.5,
        ),
      )} | ${taken.filter((f) => f.keyIsRight).length}/${figures.length} ` +
      `| ${parts.filter((f) => f.partIsRight).length}/${parts.length} | ${Math.min(...taken.map((f) => f.likeness)).toFixed(2)} |\n`,
  );
}

function real(folder: string): void {
  for (const file of readdirSync(folder).filter((name) => name.endsWith('.mix.flac'))) {
    const [mix, stem] = [file, file.replace('.mix.', '.guitar.')].map((name) => monoOf(join(folder, name)));
    const result = align(mix, stem);
    if ('unrelated' in result) {
      process.stdout.write(`${file}: taken for another song (${result.likeness.toFixed(2)})\n`);
      continue;
    }
    const lengthS = mix.samples.length / mix.sampleRate;
    const map = timeMapOf(result, { referenceS: lengthS, otherS: stem.samples.length / stem.sampleRate });
    const errors = Array.from(
      { length: Math.floor(lengthS / ASKED_EVERY_S) },
      (_, n) => 1000 * Math.abs(map.toOther(n * ASKED_EVERY_S) - n * ASKED_EVERY_S),
    );
    process.stdout.write(
      `${file}: median ${ms(quantileOf(errors, 0.5))} ms, 95 % under ${ms(quantileOf(errors, 0.95))} ms, likeness ${result.likeness.toFixed(2)}\n`,
    );
  }
}

const folder = mkdtempSync(join(tmpdir(), 'wild-needle-pairs-'));
try {
  process.stdout.write(
    '| difference | median, ms | worst median | 95 % | key | part | least likeness |\n| - | - | - | - | - | - | - |\n',
  );
  for (const difference of DIFFERENCES) {
    print(
      difference,
      SEEDS.map((seed) => alignedPair(renderPair(folder, seed, difference))),
    );
  }
  strangers(folder, process.argv[2]);
  if (process.argv[2] !== undefined) real(process.argv[2]);
} finally {
  rmSync(folder, { recursive: true });
}
