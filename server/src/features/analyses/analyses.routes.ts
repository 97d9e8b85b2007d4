/** Analyses over HTTP: start, cancel, result, and their changes as server-sent events. */
import { json, Router } from 'express';
import { analysisRequestSchema, idParamsSchema, ROUTES, type AnalysisJob } from '@wild-needle/contract';
import { NotFoundError } from '../../http/errors';
import { parse } from '../../http/parse';
import type { AnalysesStore } from './analyses.store';
import type { AnalysisEvents } from './analysis-events';

/** A comment keeps the connection from being taken for dead. */
const KEEP_ALIVE_MS = 15_000;
/** Twenty thousand confirmed strums. */
const MAX_GIVEN = '4mb';

export function analysesRoutes(store: AnalysesStore, events: AnalysisEvents): Router {
  const router = Router();

  async function jobOf(id: string): Promise<AnalysisJob> {
    const job = await store.get(id);
    if (!job) throw new NotFoundError('analysis');
    return job;
  }

  router.get(ROUTES.analysisEvents.path, async (request, response) => {
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
    response.flushHeaders();
    const send = (job: AnalysisJob): void => {
      response.write(`event: job\ndata: ${JSON.stringify(job)}\n\n`);
    };
    const unsubscribe = events.subscribe(send);
    const keepAlive = setInterval(() => response.write(': still here\n\n'), KEEP_ALIVE_MS);
    request.on('close', () => {
      clearInterval(keepAlive);
      unsubscribe();
    });
    (await store.listUnfinished()).forEach(send);
  });

  router.get(ROUTES.recordingAnalysis.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const analysis = await store.newestResult(id);
    if (!analysis) throw new NotFoundError('analysis');
    response.json(analysis);
  });

  router.post(ROUTES.startAnalysis.path, json({ limit: MAX_GIVEN }), async (request, response) => {
    const { id: recordingId } = parse(idParamsSchema, request.params);
    const id = await store.queue(recordingId, parse(analysisRequestSchema, request.body ?? {}));
    if (id === null) throw new NotFoundError('recording');
    response.status(202).json(await jobOf(id));
  });

  router.post(ROUTES.cancelAnalysis.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    await jobOf(id);
    await store.cancel(id);
    response.json(await jobOf(id));
  });

  return router;
}
