/**
 * Backups of everything but the sound: songs with all their revisions, what was heard, shapes. One a day, made while the
 * application runs; the last seven stay. The sound is the user's own file, and is known again when it is dropped on the shelf.
 */
import { spawn } from 'node:child_process';
import { chmodSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { backupFolder, listBackups } from './backup-words.mjs';
import { POSTGRES_BIN } from './packages.mjs';

const KEPT = 7;
/** The queue makes its tables itself; chunks are the sound. */
const LEFT_OUT = ['--exclude-schema=graphile_worker', '--exclude-table-data=recording_chunks'];

/** Runs a program of PostgreSQL on the database as its superuser. */
export function runOn({ port, user, password, database }, program, args) {
  const address = ['-h', '127.0.0.1', '-p', String(port), '-U', user, '-d', database];
  const child = spawn('nice', ['-n', '10', join(POSTGRES_BIN, program), ...address, ...args], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, PGPASSWORD: password },
  });
  return new Promise((resolve) => {
    child.on('error', () => resolve(false));
    child.on('exit', (code) => resolve(code === 0));
  });
}

/** Backs up once a day; a failure leaves the older ones alone. */
export async function backUpIfDue(dataDir, { superuser }) {
  const today = new Date().toISOString().slice(0, 10);
  const path = join(backupFolder(dataDir), `songs-${today}.dump`);
  if (listBackups(dataDir).includes(path)) return;
  mkdirSync(backupFolder(dataDir), { recursive: true, mode: 0o700 });
  const making = `${path}.new`;
  if (await runOn(superuser, 'pg_dump', ['--format=custom', ...LEFT_OUT, '--file', making])) {
    chmodSync(making, 0o600);
    renameSync(making, path);
    for (const old of listBackups(dataDir).slice(0, -KEPT)) rmSync(old, { force: true });
  } else rmSync(making, { force: true });
}
