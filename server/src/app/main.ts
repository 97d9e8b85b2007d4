/** The server process: opens everything, says over its channel that it is ready, and closes in order. */
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { listenForAnalyses } from '../features/analyses/analysis-events';
import { forLog } from '../http/for-log';
import { createOwnUserGuard } from '../http/own-user';
import { readConfig } from './config';
import { createHttpApp } from './http-app';
import { createServices, startWorking } from './services';
import { onShutdown, tellParent } from './process';

/**
 * Longer than clients keep a connection that is idle: one that the server closes at the moment when the next request is sent
 * fails that request, and a recording on its way in can't be sent again by itself.
 */
const KEEP_ALIVE_MS = 120_000;

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const logger = pino({ level: config.logLevel, base: null });
  const services = await createServices(config);
  const log = (error: unknown): void => logger.error({ error: forLog(error) }, 'events');
  const events = await listenForAnalyses(config.databaseUrl, services.analyses, log);
  const stopWorking = await startWorking(config, services, logger);
  const { guard, isSure } = await createOwnUserGuard(config.otherUsers);
  if (!isSure) logger.warn('other users of this computer can read and change the songs');
  const server = createHttpApp(services, events, logger, guard).listen(config.port, '127.0.0.1');
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  server.on('error', (error: NodeJS.ErrnoException) => {
    tellParent({
      problem:
        error.code === 'EADDRINUSE'
          ? `Port ${config.port} is in use. Stop what uses it, or choose another: WN_PORT=4311 npm start`
          : error.message,
    });
    process.exit(1);
  });
  server.on('listening', () => tellParent({ ready: true, port: (server.address() as AddressInfo).port }));
  onShutdown(async () => {
    server.close();
    server.closeAllConnections();
    await stopWorking();
    await events.close();
    await services.sequelize.close();
  });
}

main().catch((error: unknown) => {
  tellParent({ problem: error instanceof Error ? error.message : String(error) });
  process.exit(1);
});
