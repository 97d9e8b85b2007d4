/**
 * `npm run test:instruments`: fetches the separation network into a folder of its own and takes some seconds apart with it. Nothing else of
 * the tests needs it. WN_INSTRUMENTS names a folder in which it lies already.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fetchInstruments, TERMS } from './lib/instruments.mjs';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { endOnStop, say } from './lib/say.mjs';

async function main() {
  ensureNpmPackages();
  ensureDebianPackages(['ffmpeg', 'fluidsynth', 'fluid-soundfont-gm']);
  const given = process.env.WN_INSTRUMENTS;
  const folder = given || mkdtempSync(join(tmpdir(), 'wild-needle-instruments-'));
  try {
    if (!given) {
      say(TERMS);
      await fetchInstruments(folder);
    }
    const { status } = spawnSync('npx', ['--no-install', 'vitest', 'run', '--project', 'instruments'], {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, WN_INSTRUMENTS: folder },
    });
    process.exitCode = status ?? 1;
  } finally {
    if (!given) rmSync(folder, { recursive: true, force: true });
  }
}

main().catch(endOnStop);
