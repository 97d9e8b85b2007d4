/** Everything in one file, out and in, over HTTP. */
import { Router, type Request } from 'express';
import { idParamsSchema, ROUTES, type BroughtBack, type LastBackup } from '@wild-needle/contract';
import { HttpError, NotFoundError } from '../../http/errors';
import { parse } from '../../http/parse';
import type { BackupStore } from './backup.store';

/** A lost connection must not look like the end of a file. */
async function* bodyOf(request: Request): AsyncGenerator<Buffer> {
  for await (const chunk of request) yield chunk as Buffer;
  if (!request.complete)
    throw new HttpError(400, 'invalid-request', 'The connection was lost before the backup was complete.');
}

/** Letters, digits and dashes of a title. */
const fileNameOf = (title: string): string =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'song';

export function backupRoutes(store: BackupStore, now: () => Date): Router {
  const router = Router();

  router.get(ROUTES.lastBackup.path, async (_request, response) => {
    response.json((await store.last()) satisfies LastBackup);
  });

  router.get(ROUTES.backUp.path, async (_request, response) => {
    const at = now();
    response.attachment(`wild-needle-${at.toISOString().slice(0, 10)}.zip`).type('application/zip');
    await store.write(response, at);
  });

  router.get(ROUTES.backUpSong.path, async (request, response) => {
    const { id } = parse(idParamsSchema, request.params);
    const title = await store.titleOf(id);
    if (title === null) throw new NotFoundError('song');
    response.attachment(`${fileNameOf(title)}.zip`).type('application/zip');
    await store.write(response, now(), id);
  });

  router.post(ROUTES.bringBack.path, async (request, response) => {
    response.json((await store.bringBack(bodyOf(request))) satisfies BroughtBack);
  });

  return router;
}
