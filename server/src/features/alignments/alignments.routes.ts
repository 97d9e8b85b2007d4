/** Other recordings laid along the reference, over HTTP. */
import { Router } from 'express';
import { idParamsSchema, ROUTES, type RecordingAlignment } from '@wild-needle/contract';
import { NotFoundError } from '../../http/errors';
import { parse } from '../../http/parse';
import type { AlignmentsStore } from './alignments.store';

export function alignmentsRoutes(store: AlignmentsStore): Router {
  const router = Router();

  router.get(ROUTES.recordingAlignment.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const alignment = await store.of(id);
    if (!alignment) throw new NotFoundError('recording');
    response.json(alignment satisfies RecordingAlignment);
  });

  return router;
}
