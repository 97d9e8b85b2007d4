/** The HTTP server of a data folder for one errand: the one that runs there, else one that is started for it and stopped afterwards. */
import { ensureDebianPackages, ensureNpmPackages } from './packages.mjs';
import { lockDataFolder, prepareDataFolder, runningAt } from './data-folder.mjs';
import { startPostgres } from './postgres.mjs';
import { startServer } from './server.mjs';

async function answers(url) {
  try {
    return (await fetch(`${url}/api/health`)).ok;
  } catch {
    return false;
  }
}

/** `errand` gets the address. */
export async function withServer(dataDir, errand) {
  const url = runningAt(dataDir);
  if (url && (await answers(url))) return errand(url);
  prepareDataFolder(dataDir);
  await lockDataFolder(dataDir);
  ensureNpmPackages();
  ensureDebianPackages(['postgresql-15', 'ffmpeg']);
  const postgres = await startPostgres(dataDir);
  let server = null;
  try {
    server = startServer({
      env: { WN_DATABASE_URL: postgres.url, WN_DATA_DIR: dataDir, WN_PORT: '0', WN_JOBS: '0' },
    });
    return await errand(`http://127.0.0.1:${await server.ready}`);
  } finally {
    await server?.stop();
    await postgres.stop();
  }
}
