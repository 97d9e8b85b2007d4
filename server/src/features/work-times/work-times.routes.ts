/** Time worked, over HTTP. */
import { json, Router } from 'express';
import {
  idParamsSchema,
  ROUTES,
  workTimeBodySchema,
  workTimesQuerySchema,
  type Worked,
} from '@wild-needle/contract';
import { parse } from '../../http/parse';
import type { WorkTimesStore } from './work-times.store';

export function workTimesRoutes(store: WorkTimesStore): Router {
  const router = Router();

  router.get(ROUTES.listWorkTimes.path, async (request, response) => {
    const { since } = parse(workTimesQuerySchema, request.query);
    response.json((await store.since(new Date(since))) satisfies Worked[]);
  });

  router.put(ROUTES.keepWorkTime.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const { at, ...rest } = parse(workTimeBodySchema, request.body);
    await store.keep({ id, ...rest, at: new Date(at) });
    response.status(204).end();
  });

  return router;
}
