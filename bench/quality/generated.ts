/**
 * `npm run bench:generated`: the whole analysis on the validation songs that `npm run train` makes (`training/`),
 * which no weight was fitted on, plain ones and rough ones: the mean figures, and whether section starts that are said to be
 * sure by a share are right as often.
 */
import { analyse } from '@wild-needle/core/analysis';
import { readSong, seedsOf, type SongKind } from '../../training/songs';
import { matchTimes } from './metrics';
import { score, type Figures } from './score';

/** A section begins where one was composed, within this. */
const SAME_START_S = 0.5;

const mean = (values: readonly number[]): string =>
  (values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length)).toFixed(3);

function measure(kind: SongKind): void {
  const figures: Figures[] = [];
  const starts: { readonly said: number; readonly isRight: boolean }[] = [];
  for (const seed of seedsOf(kind)) {
    const { signal, truth } = readSong(seed);
    const analysis = analyse(signal);
    const composed = truth.sections.map((s, i) => ({
      startS: s.startS,
      endS: truth.sections[i + 1]?.startS ?? analysis.durationS,
      label: `${s.riff}/${s.transpose}`,
    }));
    figures.push(score(analysis, { strums: truth.strums, downbeatsS: truth.barsS, sections: composed }));
    const inner = analysis.sections.slice(1);
    const right = new Set(
      matchTimes(
        inner.map((s) => s.startS),
        composed.map((s) => s.startS),
        SAME_START_S,
      ).map(([i]) => i),
    );
    inner.forEach((s, i) => starts.push({ said: s.startProbability, isRight: right.has(i) }));
  }

  process.stdout.write(`${kind}: ${figures.length} songs\n`);
  for (const key of Object.keys(figures[0] ?? {}) as (keyof Figures)[]) {
    process.stdout.write(
      `${key.padEnd(14)} ${mean(figures.map((f) => f[key]).filter((v) => !Number.isNaN(v)))}\n`,
    );
  }
  process.stdout.write('section starts: said to be sure, were right, of how many\n');
  for (let from = 0; from < 1; from += 0.25) {
    const some = starts.filter(({ said }) => said >= from && (said < from + 0.25 || from === 0.75));
    if (some.length > 0) {
      process.stdout.write(
        `  ${mean(some.map((s) => s.said))}  ${mean(some.map((s) => Number(s.isRight)))}  ${some.length}\n`,
      );
    }
  }
}

measure('plain validation');
measure('rough validation');
