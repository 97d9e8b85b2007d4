/** `npm run backup -- FILE`: everything into one ZIP, while the application runs or not. A file that is there is not replaced. */
import { createWriteStream, existsSync, renameSync, rmSync, statSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ROOT } from './lib/packages.mjs';
import { endOnStop, say, Stop } from './lib/say.mjs';
import { withServer } from './lib/with-server.mjs';

const MEGABYTE = 1_000_000;

async function main() {
  const dataDir = resolve(process.env.WN_DATA_DIR || join(ROOT, '.data'));
  const [given] = process.argv.slice(2);
  if (given === undefined) throw new Stop('Say where to: npm run backup -- wild-needle.zip');
  const file = resolve(given);
  if (existsSync(file)) throw new Stop(`${file} is there already, and is not replaced. Choose another name.`);
  const making = `${file}.part`;
  try {
    await withServer(dataDir, async (url) => {
      const answer = await fetch(`${url}/api/backup`);
      if (!answer.ok) throw new Stop((await answer.json()).message);
      await pipeline(Readable.fromWeb(answer.body), createWriteStream(making, { mode: 0o600 }));
    });
  } catch (error) {
    rmSync(making, { force: true });
    if (error instanceof Stop) throw error;
    const why = error.code === 'ENOSPC' ? 'There is no room for the file' : error.message;
    throw new Stop(`The backup could not be made: ${why}. Nothing was left behind.`);
  }
  renameSync(making, file);
  say(
    `Everything is in ${file} (${Math.ceil(statSync(file).size / MEGABYTE)} MB). npm run restore -- "${file}" brings it back.`,
  );
  process.exit(0);
}

main().catch(endOnStop);
