/** The HTTP application: borders first, then the API, then the built web application. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { analysesRoutes } from '../features/analyses/analyses.routes';
import type { AnalysisEvents } from '../features/analyses/analysis-events';
import { instrumentsRoutes } from '../features/instruments/instruments.routes';
import { healthRoutes } from '../features/health/health.routes';
import { pdfRoutes } from '../features/pdf/pdf.routes';
import { recordingsRoutes } from '../features/recordings/recordings.routes';
import { guessesRoutes } from '../features/guesses/guesses.routes';
import { practiceRoutes } from '../features/practice/practice.routes';
import { settingsRoutes } from '../features/settings/settings.routes';
import { shapesRoutes } from '../features/shapes/shapes.routes';
import { takesRoutes } from '../features/takes/takes.routes';
import { removedRoutes } from '../features/songs/removed.routes';
import { songsRoutes } from '../features/songs/songs.routes';
import { alignmentsRoutes } from '../features/alignments/alignments.routes';
import { backupRoutes } from '../features/backup/backup.routes';
import { requestsRoutes } from '../features/requests/requests.routes';
import { workTimesRoutes } from '../features/work-times/work-times.routes';
import { onlyLoopback, onlyReadablePaths, securityHeaders } from '../http/loopback-guard';
import { forLog } from '../http/for-log';
import { errorHandler } from '../http/error-handler';
import { NotFoundError } from '../http/errors';
import type { Services } from './services';

/** A first song in twelve steps; the card of keys opens it. */
const GUIDE = join(import.meta.dirname, '../../../docs/guide.md');
const WEB = join(import.meta.dirname, '../../../web/dist/browser');

export function createHttpApp(
  services: Services,
  events: AnalysisEvents,
  logger: Logger,
  onlyOwnUser: RequestHandler,
): Express {
  const app = express();
  app.disable('x-powered-by');
  // Logs name the route and the outcome; file names and titles stay out of them.
  app.use(
    pinoHttp({
      logger,
      wrapSerializers: false,
      serializers: {
        req: (request: { method: string; url: string; id: unknown }) => ({
          id: request.id,
          method: request.method,
          path: request.url.split('?')[0],
        }),
        err: forLog,
        res: (response: { statusCode: number }) => ({ status: response.statusCode }),
      },
    }),
  );
  app.use(securityHeaders, onlyOwnUser, onlyLoopback, onlyReadablePaths);
  app.use(
    compression({
      // Audio does not compress, and events must not wait in a buffer.
      filter: (_request, response) =>
        !/octet-stream|event-stream/.test(String(response.getHeader('Content-Type'))),
    }),
  );
  app.use(
    healthRoutes(services.sequelize),
    songsRoutes(services.songs, () => new Date()),
    removedRoutes(services.removed, () => new Date()),
    backupRoutes(services.backup, () => new Date()),
    requestsRoutes(services.requests, () => new Date()),
    workTimesRoutes(services.workTimes),
    alignmentsRoutes(services.alignments),
    recordingsRoutes(services.recordings, services.importRecording),
    analysesRoutes(services.analyses, events),
    instrumentsRoutes(services.instruments, () => services.engineFacts('network'), services.spoolDir),
    settingsRoutes(services.settings),
    shapesRoutes(services.shapes),
    guessesRoutes(services.guesses),
    practiceRoutes(services.practice),
    takesRoutes(services.takes, services.importRecording, () => new Date()),
    pdfRoutes(),
  );
  app.use('/api', () => {
    throw new NotFoundError('address');
  });
  app.get('/guide.txt', (_request, response) => {
    response.type('text/plain').sendFile(GUIDE);
  });
  if (existsSync(WEB)) {
    // Built files carry a hash in their name; index.html is asked for anew.
    app.use(
      express.static(WEB, { index: false, maxAge: '1y', immutable: true, setHeaders: noCacheForNamed }),
    );
    app.get('/{*path}', (_request, response) => {
      response.set('Cache-Control', 'no-cache').sendFile(join(WEB, 'index.html'));
    });
  }
  app.use(errorHandler);
  return app;
}

/** Files without a hash in their name may change with the next build. */
function noCacheForNamed(response: { setHeader(name: string, value: string): void }, path: string): void {
  if (!/-[A-Z0-9]{8}\.\w+$/.test(path)) response.setHeader('Cache-Control', 'no-cache');
}
