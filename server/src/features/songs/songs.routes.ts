/** The shelf and the open song over HTTP. */
import { randomUUID } from 'node:crypto';
import { json, Router } from 'express';
import { FORMATS } from '@wild-needle/core/formats';
import {
  createRequestSchema,
  exportParamsSchema,
  idParamsSchema,
  ROUTES,
  saveRequestSchema,
  shelfQuerySchema,
  tagsSchema,
  type CreateAnswer,
  type OpenSong,
  type SaveAnswer,
  type SongSummary,
  type Version,
  type VersionDocument,
  versionParamsSchema,
  versionsQuerySchema,
} from '@wild-needle/contract';
import { ConflictError, NotFoundError } from '../../http/errors';
import { parse } from '../../http/parse';
import type { SongsStore } from './songs.store';
import { summarise } from './summarise';

/** A song of a thousand bars in sixteenths is about 2 MB as JSON. */
const MAX_DOCUMENT = '8mb';

export function songsRoutes(store: SongsStore, now: () => Date): Router {
  const router = Router();

  router.get(ROUTES.listSongs.path, async (request, response) => {
    const query = parse(shelfQuerySchema, request.query);
    response.json((await store.list(query)) satisfies SongSummary[]);
  });

  router.get(ROUTES.openSong.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const song = await store.open(id);
    if (!song) throw new NotFoundError('song');
    response.json(song satisfies OpenSong);
  });

  router.post(ROUTES.createSong.path, json({ limit: MAX_DOCUMENT }), async (request, response) => {
    const { document } = parse(createRequestSchema, request.body);
    const songId = randomUUID();
    // Recordings stay where they are: this song is to get its own.
    const own = { ...document, recordings: [] };
    await store.create(songId, own, summarise(own), now());
    response.status(201).json({ songId } satisfies CreateAnswer);
  });

  router.put(ROUTES.saveSong.path, json({ limit: MAX_DOCUMENT }), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const { baseRevision, document } = parse(saveRequestSchema, request.body);
    const result = await store.save(id, baseRevision, document, summarise(document), now());
    if (!result.saved) throw result.reason === 'conflict' ? new ConflictError() : new NotFoundError('song');
    response.json({ revision: result.revision, savedAt: result.savedAt.toISOString() } satisfies SaveAnswer);
  });

  router.get(ROUTES.listVersions.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const { before } = parse(versionsQuerySchema, request.query);
    const versions = await store.versions(id, before);
    if (!versions) throw new NotFoundError('song');
    response.json(versions satisfies Version[]);
  });

  router.get(ROUTES.openVersion.path, async (request, response) => {
    const { id, revision } = parse(versionParamsSchema, request.params);
    const version = await store.version(id, revision);
    if (!version) throw new NotFoundError('version');
    response.json(version satisfies VersionDocument);
  });

  router.get(ROUTES.exportSong.path, async (request, response) => {
    const { id, format: wanted } = parse(exportParamsSchema, request.params);
    const song = await store.open(id);
    const format = FORMATS.find((f) => f.id === wanted);
    if (!song || !format) throw new NotFoundError('song');
    const written = await format.write(song.document);
    response.type(format.mime).send(typeof written === 'string' ? written : Buffer.from(written));
  });

  router.put(ROUTES.setTags.path, json(), async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const { tags } = parse(tagsSchema, request.body);
    if (!(await store.setTags(id, [...new Set(tags)]))) throw new NotFoundError('song');
    response.status(204).end();
  });

  router.post(ROUTES.wasTakenAway.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    if (!(await store.wasTakenAway(id))) throw new NotFoundError('song');
    response.status(204).end();
  });

  return router;
}
