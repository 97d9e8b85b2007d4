/** Removing a song, and bringing it back, over HTTP. */
import { Router } from 'express';
import { idParamsSchema, ROUTES, type RemovedSong } from '@wild-needle/contract';
import { NotFoundError } from '../../http/errors';
import { parse } from '../../http/parse';
import type { RemovedStore } from './removed.store';

export function removedRoutes(store: RemovedStore, now: () => Date): Router {
  const router = Router();

  router.delete(ROUTES.deleteSong.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    if (!(await store.remove(id, now()))) throw new NotFoundError('song');
    response.status(204).end();
  });

  router.get(ROUTES.listRemoved.path, async (_request, response) => {
    response.json((await store.list()) satisfies RemovedSong[]);
  });

  router.post(ROUTES.bringSongBack.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    if (!(await store.bringBack(id))) throw new NotFoundError('removed song');
    response.status(204).end();
  });

  router.delete(ROUTES.removeForGood.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    if (!(await store.removeForGood(id))) throw new NotFoundError('removed song');
    response.status(204).end();
  });

  return router;
}
