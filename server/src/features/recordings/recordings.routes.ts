/** Recordings over HTTP: import, original bytes with Range, outline. */
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import {
  idParamsSchema,
  importQuerySchema,
  MAX_UPLOAD_BYTES,
  ROUTES,
  type ImportAnswer,
} from '@wild-needle/contract';
import { HttpError, NotFoundError } from '../../http/errors';
import { bodyOf } from '../../http/body-of';
import { parse } from '../../http/parse';
import { tooLarge } from '../../audio/audio-problem';
import type { ImportRecording } from './import-recording';
import type { RecordingsStore } from './recordings.store';

export function recordingsRoutes(store: RecordingsStore, importRecording: ImportRecording): Router {
  const router = Router();

  router.post(ROUTES.importRecording.path, async (request, response) => {
    const query = parse(importQuerySchema, request.query);
    if (Number(request.headers['content-length'] ?? 0) > MAX_UPLOAD_BYTES) throw tooLarge();
    const answer = await importRecording(bodyOf(request, 'file'), query);
    response.status(answer.alreadyKnown ? 200 : 201).json(answer satisfies ImportAnswer);
  });

  router.get(ROUTES.recordingAudio.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const size = await store.sizeOf(id);
    if (!size) throw new NotFoundError('recording');
    if (!(await store.hasSound(id))) {
      throw new HttpError(
        404,
        'not-found',
        'The sound of this song is not here: it came back from a backup. Drop its file on the shelf once more.',
      );
    }
    // The bytes of a recording never change.
    response.set({
      'Accept-Ranges': 'bytes',
      'Content-Type': 'application/octet-stream',
      ETag: `"${size.sha256}"`,
      'Cache-Control': 'private, max-age=31536000, immutable',
    });
    const ranges = request.range(size.byteLength);
    if (ranges === -1) {
      response.removeHeader('Content-Type');
      response.set('Content-Range', `bytes */${size.byteLength}`).status(416).end();
      return;
    }
    // Several ranges at once are answered whole, as RFC 9110 section 14.2 allows.
    const range = Array.isArray(ranges) && ranges.type === 'bytes' && ranges.length === 1 ? ranges[0] : null;
    const { start, end } = range ?? { start: 0, end: size.byteLength - 1 };
    if (range) response.status(206).set('Content-Range', `bytes ${start}-${end}/${size.byteLength}`);
    response.set('Content-Length', String(end - start + 1));
    // The player may go away at any time; that is no error.
    await pipeline(Readable.from(store.read(id, start, end)), response).catch((error: unknown) => {
      if (!response.destroyed) throw error;
    });
  });

  router.delete(ROUTES.removeRecording.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const removed = await store.remove(id);
    if (removed === 'not-found') throw new NotFoundError('recording');
    if (removed === 'reference') {
      throw new HttpError(
        409,
        'conflict',
        'The tab is written to this recording. Make another one the reference first, or remove the song.',
      );
    }
    response.status(204).end();
  });

  router.get(ROUTES.recordingEnvelope.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const envelope = await store.envelopeOf(id);
    if (!envelope) throw new NotFoundError('recording');
    response
      .type('application/octet-stream')
      .set('Cache-Control', 'private, max-age=31536000, immutable')
      .send(envelope);
  });

  return router;
}
