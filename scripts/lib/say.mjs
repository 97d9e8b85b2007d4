/** Messages of the scripts: plain sentences, and an end with one sentence where something can't go on. */

export function say(sentence) {
  process.stdout.write(`${sentence}\n`);
}

/** A failure that the user can do something about; printed without a stack. */
export class Stop extends Error {}

export function endOnStop(error) {
  process.stderr.write(`${error instanceof Stop ? error.message : (error?.stack ?? String(error))}\n`);
  process.exit(1);
}
