/**
 * `npm run get:instruments`: fetches the separation network into the data folder, after its terms were read and agreed to; `-- --agree`
 * answers for scripts, `-- --remove` takes it away again.
 */
import { rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { fetchInstruments, instrumentsFolder, TERMS } from './lib/instruments.mjs';
import { ROOT } from './lib/packages.mjs';
import { prepareDataFolder } from './lib/data-folder.mjs';
import { endOnStop, say, Stop } from './lib/say.mjs';

async function agrees() {
  if (process.argv.includes('--agree')) return true;
  if (!process.stdin.isTTY) throw new Stop('Nobody is here to agree: npm run get:instruments -- --agree');
  const asking = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await asking.question('Fetch it on these terms? Type yes: ');
  asking.close();
  return answer.trim().toLowerCase() === 'yes';
}

async function main() {
  const dataDir = resolve(process.env.WN_DATA_DIR || join(ROOT, '.data'));
  const folder = instrumentsFolder(dataDir);
  if (process.argv.includes('--remove')) {
    rmSync(folder, { recursive: true, force: true });
    say('The network is gone. What it took apart stays with the songs.');
    return;
  }
  say(TERMS);
  if (!(await agrees())) {
    say('Nothing was fetched.');
    return;
  }
  prepareDataFolder(dataDir);
  await fetchInstruments(folder);
  say('It is there: the panel of Instruments offers it from now on.');
}

main().catch(endOnStop);
