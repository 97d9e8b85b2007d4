/** Builds the web application when its sources are newer than the last build. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './packages.mjs';
import { say, Stop } from './say.mjs';

const SOURCES = [
  'web',
  'core/src',
  'contract/src',
  'angular.json',
  'package-lock.json',
  'tsconfig.base.json',
];
const STAMP = join(ROOT, 'web/dist/.sources');

function filesOf(path) {
  if (statSync(path).isFile()) return [path];
  return readdirSync(path, { withFileTypes: true })
    .filter((entry) => !['node_modules', 'dist', '.angular'].includes(entry.name))
    .flatMap((entry) => filesOf(join(path, entry.name)));
}

function hashOfSources() {
  const hash = createHash('sha256');
  for (const file of SOURCES.flatMap((s) => filesOf(join(ROOT, s))).sort()) {
    hash.update(file).update(readFileSync(file));
  }
  return hash.digest('hex');
}

export function buildIfStale() {
  const hash = hashOfSources();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === hash) return;
  say('Building the application (about half a minute) …');
  // What a build that is killed has left is no build.
  rmSync(STAMP, { force: true });
  const { status, stdout, stderr } = spawnSync('npx', ['ng', 'build'], {
    cwd: ROOT,
    encoding: 'utf8',
    env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
  });
  if (status !== 0) throw new Stop(`The build failed:\n${stdout}\n${stderr}`);
  mkdirSync(join(ROOT, 'web/dist'), { recursive: true });
  writeFileSync(STAMP, hash);
}
