/** A fresh database for a test file, on the PostgreSQL that `npm test` has started. */
import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { createHttpApp } from '../app/http-app';
import { createServices, startWorking, type Services } from '../app/services';
import type { Config } from '../app/config';
import type { Express } from 'express';
import { createOwnUserGuard } from '../http/own-user';
import { createAsk, type Ask } from './ask';
import { listenForAnalyses } from '../features/analyses/analysis-events';

export interface TestServer {
  readonly url: string;
  /** A request whose answer is held against the contract. */
  readonly ask: Ask;
  readonly app: Express;
  readonly services: Services;
  readonly config: Config;
  stop(): Promise<void>;
}

/** `jobs`: analyses at a time; 0 leaves everything queued. */
export async function startTestServer({
  jobs,
  log,
}: {
  jobs: number;
  /** Takes what the server logs. */
  log?: (line: string) => void;
}): Promise<TestServer> {
  const admin = process.env['WN_TEST_DATABASE_URL'];
  if (!admin) throw new Error('run these tests with npm run test:server, which starts PostgreSQL');
  const url = new URL(admin);
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  url.pathname = `/${name}`;
  const config: Config = {
    databaseUrl: url.href,
    port: 0,
    spoolDir: join(tmpdir(), name),
    networkDir: join(tmpdir(), `${name}-instruments`),
    logLevel: 'silent',
    jobs,
    otherUsers: [],
  };
  const logger = log ? pino({ level: 'info', base: null }, { write: log }) : pino({ level: 'silent' });
  const services = await createServices(config);
  const events = await listenForAnalyses(config.databaseUrl, services.analyses, () => undefined);
  const stopWorking = await startWorking(config, services, logger);
  const { guard } = await createOwnUserGuard(config.otherUsers);
  const app = createHttpApp(services, events, logger, guard);
  const server = await new Promise<Server>((resolve) => {
    const listening = app.listen(0, '127.0.0.1', () => resolve(listening));
  });
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    url: address,
    ask: createAsk(address),
    app,
    services,
    config,
    async stop() {
      server.closeAllConnections();
      server.close();
      await stopWorking();
      await events.close();
      await services.sequelize.close();
    },
  };
}
