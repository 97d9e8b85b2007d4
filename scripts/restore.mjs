/**
 * `npm run restore -- FILE`: brings a backup back. A ZIP of `npm run backup` or of the shelf holds everything, and goes onto any shelf; one of
 * the daily dumps of the database holds the songs without their sound, and needs an empty one.
 */
import { Buffer } from 'node:buffer';
import { closeSync, existsSync, openAsBlob, openSync, readSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { runOn } from './lib/backup.mjs';
import { listBackups } from './lib/backup-words.mjs';
import { lockDataFolder, prepareDataFolder } from './lib/data-folder.mjs';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { endOnStop, say, Stop } from './lib/say.mjs';
import { withServer } from './lib/with-server.mjs';

/** What a ZIP begins with (APPNOTE.TXT 4.3.7). */
const ZIP_MAGIC = 'PK\x03\x04';

function isZip(file) {
  const start = Buffer.alloc(4);
  const handle = openSync(file);
  readSync(handle, start);
  closeSync(handle);
  return start.toString('latin1') === ZIP_MAGIC;
}

async function bringZipBack(dataDir, file) {
  const { songs, known, beside } = await withServer(dataDir, async (url) => {
    const answer = await fetch(`${url}/api/backup`, {
      method: 'POST',
      body: await openAsBlob(file),
    });
    const body = await answer.json();
    if (!answer.ok) throw new Stop(body.message);
    return body;
  });
  say(`Brought back: ${songs} songs. Known already: ${known}. Beside another version: ${beside}.`);
}

async function main() {
  const dataDir = resolve(process.env.WN_DATA_DIR || join(ROOT, '.data'));
  const [file] = process.argv.slice(2);
  if (file === undefined || !existsSync(file)) {
    const known = listBackups(dataDir);
    throw new Stop(
      `Give a backup: npm run restore -- FILE. ${known.length > 0 ? `There are:\n${known.join('\n')}` : `There is none in ${dataDir} yet.`}`,
    );
  }
  if (isZip(file)) {
    await bringZipBack(dataDir, file);
    process.exit(0);
  }
  prepareDataFolder(dataDir);
  await lockDataFolder(dataDir);
  ensureNpmPackages();
  ensureDebianPackages(['postgresql-15']);
  const postgres = await startPostgres(dataDir);
  let isFine;
  try {
    if (postgres.hasSongs()) {
      throw new Stop(
        `There are songs in ${postgres.folder}, and a backup would replace them. Move that folder away first.`,
      );
    }
    const plan = ['--clean', '--if-exists', '--no-owner', `--role=${postgres.role}`, '--exit-on-error'];
    isFine = await runOn(postgres.superuser, 'pg_restore', [...plan, '--single-transaction', resolve(file)]);
  } finally {
    await postgres.stop();
  }
  if (!isFine)
    throw new Stop(`${file} could not be read as a backup of Wild Needle; the shelf is as it was.`);
  say('The songs are back. npm start shows them; drop their recordings on the shelf once more to hear them.');
  process.exit(0);
}

main().catch(endOnStop);
