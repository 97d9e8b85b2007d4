/** The band taken apart, over HTTP: how far it is, its pieces as samples, and how loud its parts are. */
import { json, Router } from 'express';
import {
  idParamsSchema,
  partMixSchema,
  pieceParamsSchema,
  pieceQuerySchema,
  ROUTES,
  takeApartSchema,
  type Instruments,
} from '@wild-needle/contract';
import { decodePiece } from '../../audio/piece-file';
import { HttpError, NotFoundError } from '../../http/errors';
import { parse } from '../../http/parse';
import type { EngineFacts, InstrumentsStore } from './instruments.store';

export function instrumentsRoutes(
  store: InstrumentsStore,
  networkFacts: () => EngineFacts,
  spoolDir: string,
): Router {
  const router = Router();

  async function instrumentsOf(recordingId: string): Promise<Instruments> {
    const instruments = await store.of(recordingId);
    if (!instruments) throw new NotFoundError('recording');
    return instruments;
  }

  router.get(ROUTES.instruments.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    response.json(await instrumentsOf(id));
  });

  router.post(ROUTES.takeApart.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const wish = parse(takeApartSchema, request.body);
    if (wish.engine === 'network') {
      const { isHere, problem } = networkFacts();
      const why = isHere ? problem : 'The network is not here: npm run get:instruments fetches it.';
      if (why !== null) throw new HttpError(409, 'unavailable', why);
    }
    if (!(await store.takeApart(id, wish))) throw new NotFoundError('recording');
    response.status(202).json(await instrumentsOf(id));
  });

  router.post(ROUTES.stopTakingApart.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    await store.stop(id);
    response.json(await instrumentsOf(id));
  });

  router.delete(ROUTES.removeParts.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    await store.remove(id);
    response.json(await instrumentsOf(id));
  });

  router.get(ROUTES.piece.path, async (request, response) => {
    const { id, engine, piece } = parse(pieceParamsSchema, request.params);
    const { rate } = parse(pieceQuerySchema, request.query);
    const stored = await store.piece({ recordingId: id, engine }, piece);
    if (!stored) throw new NotFoundError('piece');
    const samples = await decodePiece(stored, rate, spoolDir);
    response.set('Cache-Control', 'no-store').type('application/octet-stream').send(samples);
  });

  router.get(ROUTES.partMix.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const mix = await store.mixOf(id);
    if (!mix) throw new NotFoundError('song');
    response.json(mix);
  });

  router.put(ROUTES.setPartMix.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    if (!(await store.setMix(id, parse(partMixSchema, request.body)))) throw new NotFoundError('song');
    response.status(204).end();
  });

  return router;
}
