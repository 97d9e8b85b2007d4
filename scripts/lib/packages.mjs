/** Installs what a fresh machine lacks: npm dependencies and Debian packages. */
import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { say, Stop } from './say.mjs';

export const ROOT = join(import.meta.dirname, '../..');

/** PostgreSQL programs of Debian 12 that are not on the PATH. */
export const POSTGRES_BIN = '/usr/lib/postgresql/15/bin';

/** A file that is there when the package is, by package name. */
const DEBIAN_FILES = {
  'postgresql-15': `${POSTGRES_BIN}/initdb`,
  ffmpeg: '/usr/bin/ffmpeg',
  chromium: '/usr/bin/chromium',
  fluidsynth: '/usr/bin/fluidsynth',
  'poppler-utils': '/usr/bin/pdftotext',
  lilypond: '/usr/bin/lilypond',
  'fluid-soundfont-gm': '/usr/share/sounds/sf2/FluidR3_GM.sf2',
  'csound-soundfont': '/usr/share/sounds/sf2/sf_GMbank.sf2',
  'timgm6mb-soundfont': '/usr/share/sounds/sf2/TimGM6mb.sf2',
  'musescore-general-soundfont': '/usr/share/sounds/sf3/MuseScore_General_Full.sf3',
};

function run(command, args, options = {}) {
  return spawnSync(command, args, { stdio: ['ignore', 'inherit', 'inherit'], ...options }).status === 0;
}

export function ensureNpmPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new Stop(`Wild Needle needs Node 20.20 or newer; this is ${process.version}.`);
  }
  const installed = join(ROOT, 'node_modules/.package-lock.json');
  const lock = join(ROOT, 'package-lock.json');
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  say('Installing the npm packages (about a minute) …');
  if (!run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: ROOT })) {
    throw new Stop('npm could not install the packages: see its message above, then run the command again.');
  }
}

/** `names` are keys of DEBIAN_FILES. */
export function ensureDebianPackages(names) {
  const missing = names.filter((name) => !existsSync(DEBIAN_FILES[name]));
  if (missing.length === 0) return;
  const list = missing.join(' ');
  const byHand = `Install them by hand: sudo apt-get install ${list}`;
  if (!existsSync('/usr/bin/apt-get')) {
    throw new Stop(
      `These programs are missing: ${list}. This is not a Debian system, so install them your way.`,
    );
  }
  const isRoot = process.getuid() === 0;
  if (!isRoot && !existsSync('/usr/bin/sudo')) {
    throw new Stop(`These Debian packages are missing and need root: ${list}. ${byHand}`);
  }
  say(`Installing Debian packages: ${list} …`);
  if (!isRoot) say('This needs root once; sudo may ask for your password.');
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const asRoot = (args) =>
    isRoot
      ? run(args[0], args.slice(1), { env, stdio: ['ignore', 'ignore', 'inherit'] })
      : run('sudo', ['DEBIAN_FRONTEND=noninteractive', ...args], { stdio: ['inherit', 'ignore', 'inherit'] });
  asRoot(['apt-get', 'update', '-q']);
  const done = asRoot(['apt-get', 'install', '-y', '-q', '--no-install-recommends', ...missing]);
  const stillMissing = missing.filter((name) => !existsSync(DEBIAN_FILES[name]));
  if (!done || stillMissing.length > 0) {
    throw new Stop(
      `The Debian packages could not be installed: ${stillMissing.join(' ') || list}. ${byHand}`,
    );
  }
}
