/**
 * `npm run bench:faults [-- small | campaign | load]`: kills, odd files, hostile requests, borders and races of two windows against a server and a
 * database of its own, with a seed. Ends with exit code 1 where something is lost or an answer is odd. `small` runs in `npm test`;
 * the whole campaign, and the load after it (or either alone), make the figures of docs/reliability.md.
 */
import { Chance } from './chance';
import { sendOddFiles } from './files';
import { killWhileWriting } from './kills';
import { measureLoad } from './load';
import { askFromOutside, askHostile } from './requests';
import { System } from './system';
import { raceWindows } from './windows';

const SEED = 18;
const SIZES = {
  small: { kills: 20, files: 120, requests: 400, races: 20 },
  whole: { kills: 60, files: 400, requests: 3000, races: 200 },
};

const [wanted = 'whole'] = process.argv.slice(2);
const isSmall = wanted === 'small';
const { kills, files, requests, races } = SIZES[isSmall ? 'small' : 'whole'];
let isFine = true;

async function part<T extends object>(
  name: string,
  run: () => Promise<T>,
  isRight: (figures: T) => boolean,
): Promise<void> {
  const from = performance.now();
  const figures = await run().catch((error: unknown) => {
    isFine = false;
    process.stdout.write(`${name}: ${error instanceof Error ? error.stack : String(error)}\n`);
    return null;
  });
  if (!figures) return;
  const took = ((performance.now() - from) / 1000).toFixed(0);
  process.stdout.write(`${name}: ${JSON.stringify(figures)} in ${took} s\n`);
  if (isRight(figures)) return;
  isFine = false;
  process.stdout.write(`${name}: NOT RIGHT\n`);
}

const nothingOdd = ({ odd }: { readonly odd: readonly string[] }): boolean => odd.length === 0;
const chance = new Chance(SEED);
async function campaign(): Promise<void> {
  const system = await System.start({ jobs: 0 });
  try {
    await part('borders', () => askFromOutside(system), nothingOdd);
    await part('requests', () => askHostile(system, chance, requests), nothingOdd);
    await part('files', () => sendOddFiles(system, chance, files), nothingOdd);
    await part('windows', () => raceWindows(system, races), nothingOdd);
    await part(
      'kills',
      () => killWhileWriting(system, chance, kills),
      ({ lost }) => lost === 0,
    );
    if (system.spooled().length > 0) throw new Error(`left in the spool folder: ${system.spooled().join()}`);
  } finally {
    await system.stop();
  }
}

if (wanted !== 'load') await campaign();
if (wanted !== 'small' && wanted !== 'campaign')
  await part('load', measureLoad, ({ saveWorstMs, memoryMb }) => saveWorstMs < 200 && memoryMb < 700);
process.exit(isFine ? 0 : 1);
