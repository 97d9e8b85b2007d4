/** Where the backups of a data folder are, and how to get at the newest. */
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

export function backupFolder(dataDir) {
  return join(dataDir, 'backups');
}

/** The backups of a data folder, oldest first. */
export function listBackups(dataDir) {
  const folder = backupFolder(dataDir);
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((name) => name.endsWith('.dump'))
    .sort()
    .map((name) => join(folder, name));
}

/** What to do when the database in `folder` can't be used. */
export function backupWords(dataDir, folder) {
  const newest = listBackups(dataDir).at(-1);
  return newest === undefined
    ? `There is no backup in ${backupFolder(dataDir)} yet. To begin with an empty shelf, move ${folder} away.`
    : `The newest backup of the songs, without their sound, is ${newest}. To go on from it, move ${folder} away, then: npm run restore -- "${newest}"`;
}
