/** Who asked for what. */
import { QueryTypes, type Sequelize } from 'sequelize';
import type { SongRequest } from '@wild-needle/contract';
import { RequestRow, SongRow } from '../../db/models';

/** What is done stays in sight so long. */
const DONE_SHOWN = '7 days';

export interface RequestsStore {
  /** Open ones by their day, those without one after them, then those done of late. */
  list(now: Date): Promise<SongRequest[]>;
  /** False when there is no such song. */
  keep(request: Omit<SongRequest, 'title' | 'doneAt'>, now: Date): Promise<boolean>;
  forget(id: string): Promise<boolean>;
}

interface Row {
  id: string;
  song_id: string;
  title: string;
  initials: string;
  wanted: string;
  section: string;
  format: SongRequest['format'];
  due_on: string | null;
  done_at: Date | null;
}

export function createRequestsStore(sequelize: Sequelize): RequestsStore {
  return {
    async list(now) {
      const rows = await sequelize.query<Row>(
        `SELECT q.id, q.song_id, s.title, q.initials, q.wanted, q.section, q.format, q.due_on::text, q.done_at
         FROM requests q JOIN songs s ON s.id = q.song_id
         WHERE s.removed_at IS NULL AND (q.done_at IS NULL OR q.done_at > :now::timestamptz - interval '${DONE_SHOWN}')
         ORDER BY q.done_at IS NOT NULL, q.due_on ASC NULLS LAST, q.created_at, q.id`,
        { type: QueryTypes.SELECT, replacements: { now } },
      );
      return rows.map(({ id, song_id, title, initials, wanted, section, format, due_on, done_at }) => ({
        ...{ id, songId: song_id, title, initials, wanted, section, format, dueOn: due_on },
        isDone: done_at !== null,
        doneAt: done_at?.toISOString() ?? null,
      }));
    },

    async keep({ id, songId, initials, wanted, section, format, dueOn, isDone }, now) {
      if ((await SongRow.count({ where: { id: songId } })) === 0) return false;
      const before = await RequestRow.findByPk(id);
      const doneAt = isDone ? (before?.doneAt ?? now) : null;
      await RequestRow.upsert({ id, songId, initials, wanted, section, format, dueOn, doneAt });
      return true;
    },

    async forget(id) {
      return (await RequestRow.destroy({ where: { id } })) > 0;
    },
  };
}
