/** "Removed": songs wait here for a month, with all that belongs to them, before they are gone. */
import { QueryTypes, type Sequelize } from 'sequelize';
import { REMOVED_KEPT_DAYS, type RemovedSong } from '@wild-needle/contract';
import { SongRow } from '../../db/models';

const DAY_MS = 24 * 3600 * 1000;

export interface RemovedStore {
  list(): Promise<RemovedSong[]>;
  /** False when no such song is on the shelf. */
  remove(id: string, now: Date): Promise<boolean>;
  /** False when no such song is among the removed ones. */
  bringBack(id: string): Promise<boolean>;
  removeForGood(id: string): Promise<boolean>;
  /** Lets go of those whose time is over. */
  clear(now: Date): Promise<void>;
}

export function createRemovedStore(sequelize: Sequelize): RemovedStore {
  const goneAt = (removedAt: Date): Date => new Date(removedAt.getTime() + REMOVED_KEPT_DAYS * DAY_MS);
  return {
    async list() {
      const rows = await sequelize.query<{
        id: string;
        title: string;
        artist: string;
        removed_at: Date;
        bytes: string;
      }>(
        `SELECT s.id, s.title, s.artist, s.removed_at, COALESCE(sum(r.byte_length), 0) AS bytes
         FROM songs s LEFT JOIN recordings r ON r.song_id = s.id WHERE s.removed_at IS NOT NULL
         GROUP BY s.id ORDER BY s.removed_at DESC, s.id`,
        { type: QueryTypes.SELECT },
      );
      return rows.map(({ id, title, artist, removed_at, bytes }) => ({
        ...{ id, title, artist, byteLength: Number(bytes) },
        removedAt: removed_at.toISOString(),
        goneAt: goneAt(removed_at).toISOString(),
      }));
    },

    async remove(id, now) {
      const [count] = await SongRow.update({ removedAt: now }, { where: { id, removedAt: null } });
      return count > 0;
    },

    async bringBack(id) {
      const [rows] = await sequelize.query(
        'UPDATE songs SET removed_at = NULL WHERE id = :id AND removed_at IS NOT NULL RETURNING id',
        { replacements: { id } },
      );
      return rows.length > 0;
    },

    async removeForGood(id) {
      const [rows] = await sequelize.query(
        'DELETE FROM songs WHERE id = :id AND removed_at IS NOT NULL RETURNING id',
        { replacements: { id } },
      );
      return rows.length > 0;
    },

    async clear(now) {
      await sequelize.query('DELETE FROM songs WHERE removed_at < :before', {
        replacements: { before: new Date(now.getTime() - REMOVED_KEPT_DAYS * DAY_MS) },
      });
    },
  };
}
