/** Backups: made as a stream, brought back one at a time, and when the last one was taken. */
import { randomUUID } from 'node:crypto';
import { open, rm } from 'node:fs/promises';
import { join } from 'node:path';
import pLimit from 'p-limit';
import { QueryTypes, type Sequelize } from 'sequelize';
import { ZodError } from 'zod';
import type { BroughtBack, LastBackup } from '@wild-needle/contract';
import { SongRow } from '../../db/models';
import { prepareSpool, PRIVATE_FILE } from '../../audio/spool';
import { bringBack, type BringBackSteps } from './bring-back.store';
import { damaged, openBackup } from './read-backup';
import { writeBackup } from './write-backup.store';

export interface BackupStore {
  last(): Promise<LastBackup>;
  /** Title of a song; null when there is none. */
  titleOf(songId: string): Promise<string | null>;
  /** Of everything, or of one song. */
  write(out: NodeJS.WritableStream, now: Date, songId?: string): Promise<void>;
  /** Rejects with a sentence for what is no backup; nothing is half there then. */
  bringBack(bytes: AsyncIterable<Buffer>): Promise<BroughtBack>;
}

export function createBackupStore(
  sequelize: Sequelize,
  steps: BringBackSteps,
  spoolDir: string,
): BackupStore {
  const oneAfterTheOther = pLimit(1);
  return {
    async last() {
      const [row] = await sequelize.query<{ at: Date; byte_length: string }>(
        'SELECT at, byte_length FROM backups ORDER BY at DESC LIMIT 1',
        { type: QueryTypes.SELECT },
      );
      return row ? { at: row.at.toISOString(), byteLength: Number(row.byte_length) } : null;
    },

    async titleOf(songId) {
      return (await SongRow.findByPk(songId, { attributes: ['title'] }))?.title ?? null;
    },

    async write(out, now, songId) {
      const byteLength = await writeBackup(sequelize, out, { now, songId });
      if (songId !== undefined) return;
      await sequelize.query(
        'INSERT INTO backups (at, byte_length) VALUES (:now, :byteLength) ON CONFLICT DO NOTHING',
        { replacements: { now, byteLength } },
      );
    },

    async bringBack(bytes) {
      await prepareSpool(spoolDir);
      const path = join(spoolDir, randomUUID());
      try {
        const file = await open(path, 'wx', PRIVATE_FILE);
        try {
          for await (const chunk of bytes) await file.writeFile(chunk);
        } finally {
          await file.close();
        }
        return await oneAfterTheOther(async () => {
          const backup = await openBackup(path);
          try {
            return await bringBack(sequelize, backup, steps);
          } catch (error) {
            // Its checksums are right, and what is in it is not: somebody has written it so.
            const isWrongInside = error instanceof ZodError || error instanceof SyntaxError;
            throw isWrongInside ? damaged('what is in it does not fit') : error;
          } finally {
            backup.close();
          }
        });
      } finally {
        await rm(path, { force: true });
      }
    },
  };
}
