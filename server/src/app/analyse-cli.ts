/**
 * `npm run -s analyse -- FILE [TUNING]`: prints the analysis of a recording as one JSON object on standard output.
 * TUNING is the open strings from the lowest up, `D2,A2,D3,G3,B3,E4`; guessed when left out.
 * Progress goes to standard error; bad input ends with one sentence and exit code 1.
 */
import { analyseFile } from '../audio/analyse-file';
import { AudioProblem } from '../audio/audio-problem';
import { parseTuning } from '@wild-needle/core/guitar';
import { endWith, progressLines } from './command-line';

async function main(args: readonly string[]): Promise<void> {
  if (args.length < 1 || args.length > 2) {
    throw new AudioProblem('no-file', 'Give one audio file: npm run -s analyse -- FILE [TUNING]');
  }
  const tuning = args[1] === undefined ? undefined : parseTuning(args[1]);
  const analysis = await analyseFile(args[0], { onProgress: progressLines(), tuning });
  process.stdout.write(`${JSON.stringify(analysis)}\n`);
}

main(process.argv.slice(2)).catch(endWith);
