/** Who asked for what, over HTTP. */
import { json, Router } from 'express';
import { idParamsSchema, requestBodySchema, ROUTES, type SongRequest } from '@wild-needle/contract';
import { NotFoundError } from '../../http/errors';
import { parse } from '../../http/parse';
import type { RequestsStore } from './requests.store';

export function requestsRoutes(store: RequestsStore, now: () => Date): Router {
  const router = Router();

  router.get(ROUTES.listRequests.path, async (_request, response) => {
    response.json((await store.list(now())) satisfies SongRequest[]);
  });

  router.put(ROUTES.keepRequest.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    if (!(await store.keep({ id, ...parse(requestBodySchema, request.body) }, now())))
      throw new NotFoundError('song');
    response.status(204).end();
  });

  router.delete(ROUTES.forgetRequest.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    if (!(await store.forget(id))) throw new NotFoundError('request');
    response.status(204).end();
  });

  return router;
}
