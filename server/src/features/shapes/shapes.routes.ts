/** The shapes library over HTTP. */
import { json, Router } from 'express';
import { idParamsSchema, ROUTES, shapeBodySchema, type Shape } from '@wild-needle/contract';
import { NotFoundError } from '../../http/errors';
import { parse } from '../../http/parse';
import type { ShapesStore } from './shapes.store';

export function shapesRoutes(store: ShapesStore): Router {
  const router = Router();

  router.get(ROUTES.listShapes.path, async (_request, response) => {
    response.json((await store.list()) satisfies Shape[]);
  });

  router.put(ROUTES.keepShape.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const shape = { id, ...parse(shapeBodySchema, request.body) };
    await store.keep(shape);
    response.json(shape satisfies Shape);
  });

  router.delete(ROUTES.forgetShape.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    if (!(await store.forget(id))) throw new NotFoundError('shape');
    response.status(204).end();
  });

  return router;
}
