/**
 * The queue of analyses and of bands to be taken apart, in PostgreSQL by graphile-worker: jobs are added in the transaction that makes
 * them necessary, and any number of processes work on them.
 */
import type { Engine } from '@wild-needle/contract';
import { Logger, makeWorkerUtils, run, type Runner } from 'graphile-worker';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

export const ANALYSE_TASK = 'analyse';
const SEPARATE_TASK = 'separate';
/** An unexpected failure is tried again, the third time it is told. */
export const MAX_ATTEMPTS = 3;

export interface AnalyseTask {
  readonly analysisId: string;
}

export interface SeparationTask {
  readonly recordingId: string;
  readonly engine: Engine;
}

/** Makes the queue's tables. */
export async function prepareQueue(connectionString: string): Promise<void> {
  const utils = await makeWorkerUtils({ connectionString, logger });
  await utils.migrate();
  await utils.release();
}

/** Only errors of the queue itself are worth a line; a job's own are logged by its handler. */
const logger = new Logger(() => (level, message) => {
  if (level.valueOf() === 'error') process.stderr.write(`queue: ${message}\n`);
});

/** One job for each key: adding it again after a crash replaces the job that its dead worker still holds. */
async function addJob(
  sequelize: Sequelize,
  name: string,
  key: string,
  payload: object,
  transaction: Transaction | null,
): Promise<void> {
  await sequelize.query(
    'SELECT graphile_worker.add_job(:name, payload := :payload, job_key := :key, max_attempts := :attempts)',
    {
      replacements: { name, payload: JSON.stringify(payload), key: `${name}:${key}`, attempts: MAX_ATTEMPTS },
      type: QueryTypes.SELECT,
      transaction,
    },
  );
}

export async function addAnalyseJob(
  sequelize: Sequelize,
  task: AnalyseTask,
  transaction: Transaction | null,
): Promise<void> {
  await addJob(sequelize, ANALYSE_TASK, task.analysisId, task, transaction);
}

export async function addSeparateJob(
  sequelize: Sequelize,
  task: SeparationTask,
  transaction: Transaction | null,
): Promise<void> {
  await addJob(sequelize, SEPARATE_TASK, `${task.recordingId}:${task.engine}`, task, transaction);
}

export type AnalyseHandler = (task: AnalyseTask, isLastAttempt: boolean) => Promise<void>;
export type SeparateHandler = (task: SeparationTask, isLastAttempt: boolean) => Promise<void>;

/**
 * Works on analyses, so many at a time, and beside them on bands, one at a time. (A named queue of graphile-worker would do that for all
 * processes together, but it stays locked for hours when the one that works on it is killed.)
 */
export async function startRunners(
  connectionString: string,
  concurrency: number,
  handlers: { readonly analyse: AnalyseHandler; readonly separate: SeparateHandler },
): Promise<readonly Runner[]> {
  const shared = { connectionString, logger, noHandleSignals: true };
  return Promise.all([
    run({
      ...shared,
      concurrency,
      taskList: {
        [ANALYSE_TASK]: (payload, { job }) =>
          handlers.analyse(payload as AnalyseTask, job.attempts >= job.max_attempts),
      },
    }),
    run({
      ...shared,
      concurrency: 1,
      taskList: {
        [SEPARATE_TASK]: (payload, { job }) =>
          handlers.separate(payload as SeparationTask, job.attempts >= job.max_attempts),
      },
    }),
  ]);
}
