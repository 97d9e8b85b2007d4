/** Everything in one file, out and in, over HTTP. */
import { Router } from 'express';
import { idParamsSchema, ROUTES, type BroughtBack, type LastBackup } from '@wild-needle/contract';
import { NotFoundError } from '../../http/errors';
import { bodyOf } from '../../http/body-of';
import { parse } from '../../http/parse';
import type { BackupStore } from './backup.store';

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
    response.json((await store.bringBack(bodyOf(request, 'backup'))) satisfies BroughtBack);
  });

  return router;
}
