/**
 * `npm run -s judge -- TAKE.wav WRITTEN.json [--latency-ms N]`: what a take says of its player, as one JSON object on standard output; see
 * `contract/src/judged.ts`. Progress goes to standard error; bad input ends with one sentence and exit code 1.
 */
import { parseArgs } from 'node:util';
import type { Judged } from '@wild-needle/contract';
import { judgeTakeFile } from '../audio/judge-take-file';
import { endWith, progressLines } from './command-line';
import { readWritten, writtenStrums } from './written-file';

const HOW = 'Give a take and what is written: npm run -s judge -- TAKE.wav WRITTEN.json [--latency-ms N]';
const MOST_LATENCY_MS = 1000;

function optionsOf(args: readonly string[]): { take: string; written: string; latencyMs: number | null } {
  const { values, positionals } = (() => {
    try {
      return parseArgs({
        args: [...args],
        options: { 'latency-ms': { type: 'string' } },
        allowPositionals: true,
      });
    } catch (cause) {
      throw new RangeError(HOW, { cause });
    }
  })();
  if (positionals.length !== 2) throw new RangeError(HOW);
  const said = values['latency-ms'];
  const latencyMs = said === undefined ? null : Number(said);
  if (latencyMs !== null && !(latencyMs >= 0 && latencyMs <= MOST_LATENCY_MS)) {
    throw new RangeError(`--latency-ms must be from 0 to ${MOST_LATENCY_MS}, but was "${said}"`);
  }
  return { take: positionals[0], written: positionals[1], latencyMs };
}

const ms = (seconds: number): number => Math.round(1e4 * seconds) / 10;
/** Doubts are small: two that differ in the fifth place are told apart. */
const rounded = (value: number): number => Math.round(1e7 * value) / 1e7;

/** Throws an AudioProblem or a RangeError that says what would work. */
export async function judgedBy(
  args: readonly string[],
  onProgress: (share: number, doing: string) => void = () => undefined,
): Promise<Judged> {
  const { take, written: path, latencyMs } = optionsOf(args);
  const written = await readWritten(path);
  const delayS = latencyMs === null ? null : latencyMs / 1000;
  const judged = await judgeTakeFile(
    take,
    writtenStrums(written),
    { beatsS: written.beatsS, delayS },
    onProgress,
  );
  const { summary } = judged;
  return {
    schema: 'wild-needle/judged@1',
    latencyMs: ms(judged.delayS),
    strums: judged.strums.map(({ played, offsetS, right, mute, heard }) => ({
      played,
      offsetMs: offsetS === null ? null : ms(offsetS),
      right: rounded(right),
      mute,
      heard: heard && { midi: heard },
    })),
    extra: judged.extraS.map((timeS) => ({ timeS: rounded(timeS) })),
    summary: {
      played: summary.played,
      right: summary.right,
      meanOffsetMs: ms(summary.meanOffsetS),
      spreadMs: ms(summary.spreadS),
    },
  };
}

if (import.meta.filename === process.argv[1]) {
  judgedBy(process.argv.slice(2), progressLines()).then(
    (judged) => process.stdout.write(`${JSON.stringify(judged)}\n`),
    endWith,
  );
}
