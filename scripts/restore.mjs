/** `npm run restore -- FILE`: brings the songs of a backup back onto an empty shelf. Their sound is dropped on the shelf again. */
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { runOn } from './lib/backup.mjs';
import { listBackups } from './lib/backup-words.mjs';
import { lockDataFolder, prepareDataFolder } from './lib/data-folder.mjs';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { endOnStop, say, Stop } from './lib/say.mjs';

async function main() {
  const dataDir = resolve(process.env.WN_DATA_DIR || join(ROOT, '.data'));
  const [file] = process.argv.slice(2);
  if (file === undefined || !existsSync(file)) {
    const known = listBackups(dataDir);
    throw new Stop(
      `Give a backup: npm run restore -- FILE. ${known.length > 0 ? `There are:\n${known.join('\n')}` : `There is none in ${dataDir} yet.`}`,
    );
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
