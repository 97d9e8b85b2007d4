/** `npm run worker`: one more worker for the analysis queue, on this or another machine (WN_DATABASE_URL). */
import { ensureDebianPackages, ensureNpmPackages } from './lib/packages.mjs';
import { endOnStop, say, Stop } from './lib/say.mjs';
import { startServer } from './lib/server.mjs';

async function main() {
  if (!process.env.WN_DATABASE_URL) {
    throw new Stop('Say which database: WN_DATABASE_URL=postgres://… npm run worker');
  }
  ensureNpmPackages();
  ensureDebianPackages(['ffmpeg']);
  const worker = startServer({ entry: 'server/src/app/worker.ts', env: {} });
  process.on('SIGINT', () => void worker.stop());
  process.on('SIGTERM', () => void worker.stop());
  await worker.ready;
  say('Worker is waiting for recordings');
  await worker.ended;
}

main().catch(endOnStop);
