/** How long hands were on each song, step by step. */
import { QueryTypes, type Sequelize } from 'sequelize';
import type { Step, Worked } from '@wild-needle/contract';
import { WorkTimeRow } from '../../db/models';

export interface WorkTime {
  readonly id: string;
  readonly songId: string;
  readonly step: Step;
  readonly at: Date;
  readonly seconds: number;
}

export interface WorkTimesStore {
  /** A stretch that is there already stays as it is: it is sent again after a lost answer. */
  keep(time: WorkTime): Promise<void>;
  /** By day, song and step; days of this computer. */
  since(from: Date): Promise<Worked[]>;
}

export function createWorkTimesStore(sequelize: Sequelize): WorkTimesStore {
  return {
    async keep(time) {
      await WorkTimeRow.bulkCreate([{ ...time }], { ignoreDuplicates: true });
    },

    async since(from) {
      const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
      const rows = await sequelize.query<{
        song_id: string;
        title: string;
        step: Step;
        day: string;
        seconds: number;
      }>(
        `SELECT w.song_id, COALESCE(s.title, '') AS title, w.step, (w.at AT TIME ZONE :zone)::date::text AS day,
           sum(w.seconds) AS seconds
         FROM work_times w LEFT JOIN songs s ON s.id = w.song_id WHERE w.at >= :from
         GROUP BY w.song_id, s.title, w.step, day ORDER BY day, title, w.step`,
        { type: QueryTypes.SELECT, replacements: { from, zone } },
      );
      return rows.map(({ song_id, ...row }) => ({ ...row, songId: song_id }));
    },
  };
}
