/** The data folder: made for its owner alone, and used by one Wild Needle at a time. */
import { spawn } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { say, Stop } from './say.mjs';

/** What Wild Needle keeps in it. */
const OURS =
  /^(postgres(-password|\.new-.*)?|database-password|lock|running\.json|demo-loading|backups|instruments|spool-.*)$/;

/** Root runs the database as the user `postgres`, who must get through, and no more. */
function modeOf() {
  return process.getuid() === 0 ? 0o711 : 0o700;
}

const WHY = {
  EEXIST: 'a file has that name',
  ENOTDIR: 'a part of the path is a file',
  EACCES: 'you may not write there',
  EPERM: 'you may not write there',
  EROFS: 'the disk is read-only',
  ENOSPC: 'the disk is full',
  ENOENT: 'no folder can be made there',
};

/** Folder by folder: `mkdir` of Node 20 with `recursive` never ends where the system has no room for folders, as below /proc. */
function makeFolder(path) {
  if (existsSync(path)) return;
  makeFolder(dirname(path));
  mkdirSync(path, { mode: modeOf() });
}

/** Makes the folder when it is missing. Stops with a sentence where nothing can be kept. */
export function prepareDataFolder(dataDir) {
  const trial = join(dataDir, '.trial');
  try {
    makeFolder(dataDir);
    if (!statSync(dataDir).isDirectory()) throw Object.assign(new Error(), { code: 'EEXIST' });
    writeFileSync(trial, '');
    rmSync(trial);
  } catch (error) {
    const why = WHY[error.code] ?? error.message;
    throw new Stop(
      `Nothing can be kept in ${dataDir}: ${why}. Choose another folder: WN_DATA_DIR=… npm start`,
    );
  }
  // A folder that others use as well is left as it is.
  if (readdirSync(dataDir).every((name) => OURS.test(name))) chmodSync(dataDir, modeOf());
}

const RUNNING = 'running.json';
const IN_USE = 75;

/** Who had the folder last, when it did not end in order; null otherwise. */
function readRunning(dataDir) {
  try {
    return JSON.parse(readFileSync(join(dataDir, RUNNING), 'utf8'));
  } catch {
    return null;
  }
}

/**
 * Takes the folder until this process ends, however it ends: a child holds the lock (man 1 flock) as long as its standard
 * input is open. Stops with a sentence that says where the other one runs.
 */
export async function lockDataFolder(dataDir) {
  const hold = ['sh', '-c', 'echo held; cat > /dev/null'];
  const child = spawn(
    'flock',
    ['--nonblock', '--conflict-exit-code', String(IN_USE), join(dataDir, 'lock'), ...hold],
    {
      stdio: ['pipe', 'pipe', 'ignore'],
      // Ctrl-C reaches the whole group; the lock is let go last.
      detached: true,
    },
  );
  await new Promise((resolve, reject) => {
    child.stdout.once('data', resolve);
    child.on('error', () =>
      reject(new Stop('The program flock is missing: sudo apt-get install util-linux')),
    );
    child.on('exit', (code) => {
      const other = readRunning(dataDir);
      const where = other?.url ? `It runs at ${other.url} (process ${other.pid})` : 'It is just starting';
      reject(
        new Stop(
          code === IN_USE
            ? `Another Wild Needle uses ${dataDir}. ${where}, and goes on. For a second one choose another folder and port: WN_DATA_DIR=… WN_PORT=4311 npm start`
            : `${join(dataDir, 'lock')} can't be locked (flock ended with ${code}).`,
        ),
      );
    });
  });
  child.removeAllListeners('exit');
  child.unref();
  child.stdout.destroy();
  child.stdin.unref?.();
}

/** Address of the one that runs on the folder, as far as it was noted; null where none is. */
export function runningAt(dataDir) {
  return readRunning(dataDir)?.url ?? null;
}

/** Notes who runs here, for the next one that comes. */
export function noteRunning(dataDir, facts) {
  writeFileSync(join(dataDir, RUNNING), JSON.stringify({ pid: process.pid, ...facts }), { mode: 0o600 });
}

export function noteEnded(dataDir) {
  rmSync(join(dataDir, RUNNING), { force: true });
}

function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

/** A server whose starter was killed ends by itself; its port is free after that. */
export async function waitForLast(dataDir, longestMs = 10_000) {
  const serverPid = readRunning(dataDir)?.serverPid;
  if (!serverPid || !isAlive(serverPid)) return;
  say('The last run is just ending …');
  for (let waited = 0; waited < longestMs && isAlive(serverPid); waited += 100) {
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
