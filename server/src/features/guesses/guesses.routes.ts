/** Guesses of the ear over HTTP. */
import { json, Router } from 'express';
import {
  guessBodySchema,
  guessesQuerySchema,
  idParamsSchema,
  ROUTES,
  type Guess,
} from '@wild-needle/contract';
import { parse } from '../../http/parse';
import type { GuessesStore } from './guesses.store';

export function guessesRoutes(store: GuessesStore): Router {
  const router = Router();

  router.get(ROUTES.listGuesses.path, async (request, response) => {
    const { since } = parse(guessesQuerySchema, request.query);
    response.json((await store.since(new Date(since))) satisfies Guess[]);
  });

  router.put(ROUTES.keepGuess.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    await store.keep({ id, ...parse(guessBodySchema, request.body) });
    response.status(204).end();
  });

  return router;
}
