/** Takes over HTTP: begun, piece by piece, then kept as a song or thrown away. */
import { json, raw, Router } from 'express';
import {
  idParamsSchema,
  keepTakeSchema,
  MAX_DURATION_S,
  MAX_TAKE_PIECE_BYTES,
  ROUTES,
  TAKE_SAMPLE_BYTES,
  takeBodySchema,
  takePieceParamsSchema,
  type ImportAnswer,
  type ImportQuery,
  type Take,
} from '@wild-needle/contract';
import { HttpError, InvalidRequestError, NotFoundError } from '../../http/errors';
import { parse } from '../../http/parse';
import type { TakesStore } from './takes.store';
import { wavOfTake } from './wav-of-take';

/** Makes a song of a sound; given by the composition root, since features don't know each other. */
export type BringIn = (bytes: AsyncIterable<Buffer>, query: ImportQuery) => Promise<ImportAnswer>;

export function takesRoutes(store: TakesStore, bringIn: BringIn, now: () => Date): Router {
  const router = Router();

  router.get(ROUTES.listTakes.path, async (_request, response) => {
    response.json((await store.list(now())) satisfies Take[]);
  });

  router.put(ROUTES.beginTake.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    await store.begin(id, parse(takeBodySchema, request.body).sampleRate, now());
    response.status(204).end();
  });

  router.put(
    ROUTES.addTakePiece.path,
    raw({ type: 'application/octet-stream', limit: MAX_TAKE_PIECE_BYTES }),
    async (request, response) => {
      const { id, seq } = parse(takePieceParamsSchema, request.params);
      const bytes: unknown = request.body;
      if (!Buffer.isBuffer(bytes) || bytes.length === 0 || bytes.length % TAKE_SAMPLE_BYTES !== 0) {
        throw new InvalidRequestError([
          { path: 'body', message: 'must be samples of 16 bits, as application/octet-stream' },
        ]);
      }
      const added = await store.add(id, seq, bytes, now());
      if (added === 'full') {
        throw new HttpError(413, 'too-long', `A take lasts up to ${MAX_DURATION_S / 60} minutes.`);
      }
      if (!added) throw new NotFoundError('take');
      response.status(204).end();
    },
  );

  router.post(ROUTES.keepTake.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const { title, songId } = parse(keepTakeSchema, request.body);
    const sound = await store.soundOf(id);
    if (!sound || sound.byteLength === 0) throw new NotFoundError('take');
    const answer = await bringIn(wavOfTake(sound, store.read(id)), {
      fileName: `${title}.wav`,
      ...(songId === undefined ? { title } : { songId }),
    });
    // Only now: until the song is there the pieces are all that there is.
    await store.remove(id);
    response.status(201).json(answer satisfies ImportAnswer);
  });

  router.delete(ROUTES.throwTakeAway.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    if (!(await store.remove(id))) throw new NotFoundError('take');
    response.status(204).end();
  });

  return router;
}
