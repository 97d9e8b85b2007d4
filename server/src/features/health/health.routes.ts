/** The health check and the description of the API. */
import { Router } from 'express';
import type { Sequelize } from 'sequelize';
import { describeApi, describeSongFile, ROUTES, type Health } from '@wild-needle/contract';

export const VERSION = '0.1.0';

async function answers(check: () => Promise<unknown>): Promise<boolean> {
  return check().then(
    () => true,
    () => false,
  );
}

export function healthRoutes(sequelize: Sequelize): Router {
  const router = Router();
  const description = describeApi(VERSION);

  router.get(ROUTES.health.path, async (_request, response) => {
    const database = await answers(() => sequelize.query('SELECT 1'));
    const queue = await answers(() => sequelize.query('SELECT 1 FROM graphile_worker.jobs LIMIT 1'));
    const status = database && queue ? 'ok' : 'failing';
    const health: Health = { status, database, queue, version: VERSION };
    response.status(status === 'ok' ? 200 : 503).json(health);
  });

  const songFile = describeSongFile();
  router.get(ROUTES.describeSongFile.path, (_request, response) => {
    response.json(songFile);
  });

  router.get(ROUTES.describeApi.path, (_request, response) => {
    response.json(description);
  });

  return router;
}
