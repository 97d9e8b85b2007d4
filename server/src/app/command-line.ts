/** What the commands have in common: progress on standard error, and bad input that ends with one sentence. */
import { AudioProblem } from '../audio/audio-problem';

/** Prints each step of the progress once. */
export function progressLines(): (share: number, doing: string) => void {
  let lastShown = '';
  return (share, doing) => {
    const line = `${String(Math.round(share * 100)).padStart(3)} % ${doing}`;
    if (line !== lastShown) process.stderr.write(`${line}\n`);
    lastShown = line;
  };
}

/** The sentence of a mistake that the user can mend; whatever else went wrong as it is. Exit code 1. */
export function endWith(error: unknown): void {
  const isForUser = error instanceof AudioProblem || error instanceof RangeError;
  process.stderr.write(`${isForUser ? error.message : String(error)}\n`);
  process.exitCode = 1;
}
