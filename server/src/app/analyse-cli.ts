/**
 * `npm run -s analyse -- FILE`: prints the analysis of a recording as one JSON object on standard output.
 * Progress goes to standard error; bad input ends with one sentence and exit code 1.
 */
import { analyseFile } from '../jobs/analyse-file';
import { AudioProblem } from '../jobs/decode';

async function main(args: readonly string[]): Promise<void> {
  if (args.length !== 1) {
    throw new AudioProblem('no-file', 'Give one audio file: npm run -s analyse -- FILE');
  }
  let lastShown = '';
  const analysis = await analyseFile(args[0], (share, doing) => {
    const line = `${String(Math.round(share * 100)).padStart(3)} % ${doing}`;
    if (line !== lastShown) process.stderr.write(`${line}\n`);
    lastShown = line;
  });
  process.stdout.write(`${JSON.stringify(analysis)}\n`);
}

main(process.argv.slice(2)).catch((error: unknown) => {
  process.stderr.write(`${error instanceof AudioProblem ? error.message : String(error)}\n`);
  process.exitCode = 1;
});
