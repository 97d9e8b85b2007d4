/**
 * The queue of analyses, in PostgreSQL by graphile-worker: jobs are added in the transaction that makes them
 * necessary, and any number of processes work on them.
 */
import { Logger, makeWorkerUtils, run, type Runner } from 'graphile-worker';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

export const ANALYSE_TASK = 'analyse';
/** An unexpected failure is tried again, the third time it is told. */
export const MAX_ATTEMPTS = 3;

export interface AnalyseTask {
  readonly analysisId: string;
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

/** One job per analysis: adding it again after a crash replaces the job that its dead worker still holds. */
export async function addAnalyseJob(
  sequelize: Sequelize,
  task: AnalyseTask,
  transaction: Transaction | null,
): Promise<void> {
  await sequelize.query(
    'SELECT graphile_worker.add_job(:name, payload := :payload, job_key := :key, max_attempts := :attempts)',
    {
      replacements: {
        name: ANALYSE_TASK,
        payload: JSON.stringify(task),
        key: `${ANALYSE_TASK}:${task.analysisId}`,
        attempts: MAX_ATTEMPTS,
      },
      type: QueryTypes.SELECT,
      transaction,
    },
  );
}

export type AnalyseHandler = (task: AnalyseTask, isLastAttempt: boolean) => Promise<void>;

export function startRunner(
  connectionString: string,
  concurrency: number,
  handle: AnalyseHandler,
): Promise<Runner> {
  return run({
    connectionString,
    concurrency,
    logger,
    noHandleSignals: true,
    taskList: {
      [ANALYSE_TASK]: (payload, { job }) => handle(payload as AnalyseTask, job.attempts >= job.max_attempts),
    },
  });
}
