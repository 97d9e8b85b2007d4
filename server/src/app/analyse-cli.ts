/**
 * `npm run -s analyse -- FILE [TUNING]`: prints the analysis of a recording as one JSON object on standard output.
 * TUNING is the open strings from the lowest up, `D2,A2,D3,G3,B3,E4`; guessed when left out.
 * Progress goes to standard error; bad input ends with one sentence and exit code 1.
 */
import { analyseFile } from '../audio/analyse-file';
import { AudioProblem } from '../audio/audio-problem';
import { parseTuning } from '@wild-needle/core/guitar';

async function main(args: readonly string[]): Promise<void> {
  if (args.length < 1 || args.length > 2) {
    throw new AudioProblem('no-file', 'Give one audio file: npm run -s analyse -- FILE [TUNING]');
  }
  const tuning = args[1] === undefined ? undefined : parseTuning(args[1]);
  let lastShown = '';
  const onProgress = (share: number, doing: string): void => {
    const line = `${String(Math.round(share * 100)).padStart(3)} % ${doing}`;
    if (line !== lastShown) process.stderr.write(`${line}\n`);
    lastShown = line;
  };
  const analysis = await analyseFile(args[0], { onProgress, tuning });
  process.stdout.write(`${JSON.stringify(analysis)}\n`);
}

main(process.argv.slice(2)).catch((error: unknown) => {
  const isForUser = error instanceof AudioProblem || error instanceof RangeError;
  process.stderr.write(`${isForUser ? error.message : String(error)}\n`);
  process.exitCode = 1;
});
