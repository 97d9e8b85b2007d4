/** Who asked for what. */
import { QueryTypes, type Sequelize } from 'sequelize';
import type { RequestBody, SongRequest } from '@wild-needle/contract';
import { RequestRow, SongRow } from '../../db/models';

/** What is done stays in sight so long. */
const DONE_SHOWN = '7 days';

export interface RequestsStore {
  /** Open ones by their day, those without one after them, then those done of late. */
  list(now: Date): Promise<SongRequest[]>;
  /** False when there is no such song. */
  keep(request: RequestBody & { readonly id: string }, now: Date): Promise<boolean>;
  forget(id: string): Promise<boolean>;
}

interface Row {
  id: string;
  song_id: string;
  title: string;
  initials: string;
  wanted: string;
  section: string;
  section_name: string | null;
  version: SongRequest['version'];
  format: SongRequest['format'];
  due_on: string | null;
  done_at: Date | null;
}

export function createRequestsStore(sequelize: Sequelize): RequestsStore {
  return {
    async list(now) {
      const rows = await sequelize.query<Row>(
        `SELECT q.id, q.song_id, s.title, q.initials, q.wanted, q.section, q.format, q.version, q.due_on::text,
           q.done_at, part.value->>'name' AS section_name
         FROM requests q JOIN songs s ON s.id = q.song_id
         JOIN song_revisions v ON v.song_id = s.id AND v.revision = s.revision
         LEFT JOIN LATERAL jsonb_array_elements(v.document->'sections') part ON part.value->>'id' = q.section
         WHERE s.removed_at IS NULL AND (q.done_at IS NULL OR q.done_at > :now::timestamptz - interval '${DONE_SHOWN}')
         ORDER BY q.done_at IS NOT NULL, q.due_on ASC NULLS LAST, q.created_at, q.id`,
        { type: QueryTypes.SELECT, replacements: { now } },
      );
      return rows.map(({ song_id, section_name, due_on, done_at, ...row }) => ({
        ...row,
        ...{ songId: song_id, sectionName: section_name ?? '', dueOn: due_on },
        isDone: done_at !== null,
        doneAt: done_at?.toISOString() ?? null,
      }));
    },

    async keep({ id, songId, initials, wanted, section, format, version, dueOn, isDone }, now) {
      if ((await SongRow.count({ where: { id: songId } })) === 0) return false;
      const before = await RequestRow.findByPk(id);
      const doneAt = isDone ? (before?.doneAt ?? now) : null;
      await RequestRow.upsert({ id, songId, initials, wanted, section, format, version, dueOn, doneAt });
      return true;
    },

    async forget(id) {
      return (await RequestRow.destroy({ where: { id } })) > 0;
    },
  };
}
