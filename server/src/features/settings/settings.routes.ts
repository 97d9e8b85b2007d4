/** What the player prefers, over HTTP: for a new browser, and for the backup. */
import { json, Router } from 'express';
import { ROUTES, settingsSchema, type Settings } from '@wild-needle/contract';
import { parse } from '../../http/parse';
import type { SettingsStore } from './settings.store';

export function settingsRoutes(store: SettingsStore): Router {
  const router = Router();

  router.get(ROUTES.readSettings.path, async (_request, response) => {
    response.json((await store.read()) satisfies Settings | null);
  });

  router.put(ROUTES.keepSettings.path, json(), async (request, response) => {
    await store.keep(parse(settingsSchema, request.body));
    response.status(204).end();
  });

  return router;
}
