/** Analyses: what is queued, running, found. Every change is announced on {@link CHANNEL}. */
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import {
  analysisRequestSchema,
  analysisSchema,
  type AnalysisJob,
  type AnalysisRequest,
} from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';
import { AnalysisRow } from '../../db/models';
import { addAnalyseJob } from '../../jobs/queue';
import { STALE_AFTER_S, type AnalysisLedger } from '../../jobs/run-analysis';

/** PostgreSQL notifications: the payload is the id of a changed analysis. */
export const CHANNEL = 'wild_needle_analysis';

const AS_JOB = `SELECT a.id, a.recording_id AS "recordingId", r.song_id AS "songId", a.status, a.share, a.doing,
  a.so_far AS "soFar", a.problem, a.kept
  FROM analyses a JOIN recordings r ON r.id = a.recording_id`;

/** What happens to a song when its recording was heard, in the same transaction; answers what its draft has left as it was. */
export type OnHeard = (
  recordingId: string,
  analysis: Analysis,
  transaction: Transaction,
) => Promise<AnalysisJob['kept']>;

export interface AnalysesStore extends AnalysisLedger {
  get(id: string): Promise<AnalysisJob | null>;
  listUnfinished(): Promise<AnalysisJob[]>;
  /**
   * Queues one; null when there is no such recording. One that is on its way is answered instead, or, where something is
   * given, cancelled.
   */
  queue(recordingId: string, given?: AnalysisRequest, transaction?: Transaction): Promise<string | null>;
  cancel(id: string): Promise<void>;
  newestResult(recordingId: string): Promise<Analysis | null>;
  /** Puts back what a crashed worker left; answers how many. */
  requeueStale(): Promise<number>;
}

export function createAnalysesStore(sequelize: Sequelize, onHeard: OnHeard): AnalysesStore {
  const select = <T extends object>(
    sql: string,
    replacements: Record<string, unknown>,
    transaction?: Transaction,
  ): Promise<T[]> => sequelize.query<T>(sql, { type: QueryTypes.SELECT, replacements, transaction });
  const announce = (id: string, transaction?: Transaction): Promise<unknown> =>
    select('SELECT pg_notify(:channel, :id)', { channel: CHANNEL, id }, transaction);

  /** Changes an analysis that is still in one of the states; false when it is not. */
  async function change(
    id: string,
    from: readonly AnalysisJob['status'][],
    values: Partial<AnalysisRow>,
    transaction?: Transaction,
  ): Promise<boolean> {
    const [count] = await AnalysisRow.update(values, { where: { id, status: [...from] }, transaction });
    if (count > 0) await announce(id, transaction);
    return count > 0;
  }

  return {
    async get(id) {
      const [job] = await select<AnalysisJob>(`${AS_JOB} WHERE a.id = :id`, { id });
      return job ?? null;
    },

    listUnfinished() {
      return select<AnalysisJob>(
        `${AS_JOB} WHERE a.status IN ('queued', 'running') ORDER BY a.created_at`,
        {},
      );
    },

    async queue(recordingId, given = {}, transaction) {
      const on = `WHERE a.recording_id = :recordingId AND a.status IN ('queued', 'running')`;
      const [active] = await select<AnalysisJob>(`${AS_JOB} ${on}`, { recordingId }, transaction);
      const isPlain = given.tuning === undefined && given.confirmed === undefined;
      if (active && isPlain) return active.id;
      const exists = await select(
        'SELECT 1 FROM recordings WHERE id = :recordingId',
        { recordingId },
        transaction,
      );
      if (exists.length === 0) return null;
      const add = async (inside: Transaction): Promise<string> => {
        if (active) {
          await change(active.id, ['queued', 'running'], { status: 'cancelled', doing: 'Cancelled' }, inside);
        }
        const { id } = await AnalysisRow.create(
          {
            recordingId,
            status: 'queued',
            share: 0,
            doing: 'Waiting',
            problem: null,
            given: isPlain ? null : given,
            soFar: null,
            algorithm: null,
            result: null,
            heartbeatAt: null,
          },
          { transaction: inside },
        );
        await addAnalyseJob(sequelize, { analysisId: id }, inside);
        await announce(id, inside);
        return id;
      };
      return transaction ? add(transaction) : sequelize.transaction(add);
    },

    async cancel(id) {
      await change(id, ['queued', 'running'], { status: 'cancelled', doing: 'Cancelled', soFar: null });
    },

    async newestResult(recordingId) {
      const row = await AnalysisRow.findOne({
        where: { recordingId, status: 'done' },
        order: [['createdAt', 'DESC']],
        attributes: ['result'],
      });
      return row && analysisSchema.parse(row.result);
    },

    async requeueStale() {
      return sequelize.transaction(async (transaction) => {
        const stale = await select<{ id: string }>(
          `UPDATE analyses SET status = 'queued', doing = 'Waiting', share = 0
           WHERE status = 'running' AND heartbeat_at < now() - make_interval(secs => :seconds) RETURNING id`,
          { seconds: STALE_AFTER_S },
          transaction,
        );
        for (const { id } of stale) {
          await addAnalyseJob(sequelize, { analysisId: id }, transaction);
          await announce(id, transaction);
        }
        return stale.length;
      });
    },

    async claim(id) {
      const claimed = await change(id, ['queued', 'running'], {
        status: 'running',
        share: 0,
        doing: 'Fetching the recording',
        heartbeatAt: new Date(),
      });
      if (!claimed) return null;
      const row = await AnalysisRow.findByPk(id, { attributes: ['recordingId', 'given'] });
      return row && { recordingId: row.recordingId, given: analysisRequestSchema.parse(row.given ?? {}) };
    },

    beat(id, now) {
      return change(id, ['running'], { ...now, heartbeatAt: new Date() });
    },

    async finish(id, analysis) {
      await sequelize.transaction(async (transaction) => {
        const done = await change(
          id,
          ['running'],
          {
            status: 'done',
            share: 1,
            doing: 'Done',
            soFar: null,
            result: analysis,
            algorithm: analysis.algorithm,
          },
          transaction,
        );
        const row = done
          ? await AnalysisRow.findByPk(id, { attributes: ['recordingId'], transaction })
          : null;
        if (!row) return;
        const kept = await onHeard(row.recordingId, analysis, transaction);
        if (kept.length > 0) await change(id, ['done'], { kept: [...kept] }, transaction);
      });
    },

    async fail(id, problem) {
      await change(id, ['running'], { status: 'failed', doing: 'Failed', soFar: null, problem });
    },
  };
}
