/** The log of practising over HTTP. */
import { json, Router } from 'express';
import {
  idParamsSchema,
  practiceQuerySchema,
  practiceRoundBodySchema,
  ROUTES,
  type PracticeRound,
} from '@wild-needle/contract';
import { parse } from '../../http/parse';
import type { PracticeStore } from './practice.store';

export function practiceRoutes(store: PracticeStore): Router {
  const router = Router();

  router.get(ROUTES.listPracticeRounds.path, async (request, response) => {
    const { songId } = parse(practiceQuerySchema, request.query);
    response.json((await store.roundsOf(songId)) satisfies PracticeRound[]);
  });

  router.put(ROUTES.keepPracticeRound.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    await store.keep({ id, ...parse(practiceRoundBodySchema, request.body) });
    response.status(204).end();
  });

  return router;
}
