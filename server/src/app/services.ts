/** The composition root: stores on one database, wired to each other where a feature needs another's step. */
import { rm } from 'node:fs/promises';
import type { Runner } from 'graphile-worker';
import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import { draftInto } from '@wild-needle/core/draft';
import { openDatabase } from '../db/database';
import { forLog } from '../http/for-log';
import { createAnalysesStore, type AnalysesStore } from '../features/analyses/analyses.store';
import { createImport, type ImportRecording } from '../features/recordings/import-recording';
import { createRecordingsStore, type RecordingsStore } from '../features/recordings/recordings.store';
import { createGuessesStore, type GuessesStore } from '../features/guesses/guesses.store';
import { createPracticeStore, type PracticeStore } from '../features/practice/practice.store';
import { createShapesStore, type ShapesStore } from '../features/shapes/shapes.store';
import { createTakesStore, type TakesStore } from '../features/takes/takes.store';
import { createSongsStore, type SongsStore } from '../features/songs/songs.store';
import { summarise } from '../features/songs/summarise';
import { createAnalyseHandler } from '../jobs/run-analysis';
import { prepareQueue, startRunner } from '../jobs/queue';
import type { Config } from './config';

export interface Services {
  readonly sequelize: Sequelize;
  readonly songs: SongsStore;
  readonly recordings: RecordingsStore;
  readonly analyses: AnalysesStore;
  readonly shapes: ShapesStore;
  readonly guesses: GuessesStore;
  readonly practice: PracticeStore;
  readonly takes: TakesStore;
  readonly importRecording: ImportRecording;
}

/** How often analyses of crashed workers are looked for. */
const STALE_CHECK_MS = 3000;

export async function createServices({ databaseUrl, spoolDir }: Config): Promise<Services> {
  const sequelize = await openDatabase(databaseUrl);
  await prepareQueue(databaseUrl);
  const songs = createSongsStore(sequelize);
  const recordings = createRecordingsStore();
  const analyses = createAnalysesStore(sequelize, async (recordingId, analysis, transaction) => {
    // The first analysis writes a draft; a document that has riffs is left alone.
    const song = await songs.lockOf(recordingId, transaction);
    if (!song || song.document.riffs.length > 0) return [];
    const { document, kept } = draftInto(song.document, analysis);
    await songs.saveDraft(song.id, song.revision, document, summarise(document), new Date(), transaction);
    return [...kept];
  });
  const importRecording = createImport(
    sequelize,
    recordings,
    {
      createSong: (id, document, transaction) =>
        songs.create(id, document, summarise(document), new Date(), transaction),
      queueAnalysis: async (recordingId, transaction) => {
        await analyses.queue(recordingId, undefined, transaction);
      },
    },
    spoolDir,
  );
  return {
    sequelize,
    songs,
    recordings,
    analyses,
    shapes: createShapesStore(),
    guesses: createGuessesStore(),
    practice: createPracticeStore(),
    takes: createTakesStore(sequelize),
    importRecording,
  };
}

/** Works on the queue in this process until stopped. */
export async function startWorking(
  config: Config,
  services: Services,
  logger: Logger,
): Promise<() => Promise<void>> {
  // Left by a crash: nobody else uses this folder.
  await rm(config.spoolDir, { recursive: true, force: true });
  const log = (error: unknown): void => logger.error({ error: forLog(error) }, 'analysis');
  const handler = createAnalyseHandler(services.analyses, services.recordings, config.spoolDir, log);
  let runner: Runner | null = null;
  if (config.jobs > 0) runner = await startRunner(config.databaseUrl, config.jobs, handler);
  const requeue = (): void => void services.analyses.requeueStale().catch(log);
  const staleCheck = setInterval(requeue, STALE_CHECK_MS);
  requeue();
  return async () => {
    clearInterval(staleCheck);
    await runner?.stop();
  };
}
