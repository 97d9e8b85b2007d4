/** The composition root: stores on one database, wired to each other where a feature needs another's step. */
import { rm } from 'node:fs/promises';
import type { Logger } from 'pino';
import type { Sequelize } from 'sequelize';
import type { Engine } from '@wild-needle/contract';
import { draftInto } from '@wild-needle/core/draft';
import { openDatabase } from '../db/database';
import { forLog } from '../http/for-log';
import {
  createInstrumentsStore,
  type EngineFacts,
  type InstrumentsStore,
} from '../features/instruments/instruments.store';
import { createAnalysesStore, type AnalysesStore } from '../features/analyses/analyses.store';
import { createImport, type ImportRecording } from '../features/recordings/import-recording';
import {
  CHUNK_BYTES,
  createRecordingsStore,
  type RecordingsStore,
} from '../features/recordings/recordings.store';
import { createGuessesStore, type GuessesStore } from '../features/guesses/guesses.store';
import { createPracticeStore, type PracticeStore } from '../features/practice/practice.store';
import { createSettingsStore, type SettingsStore } from '../features/settings/settings.store';
import { createShapesStore, type ShapesStore } from '../features/shapes/shapes.store';
import { createTakesStore, type TakesStore } from '../features/takes/takes.store';
import { createSongsStore, type SongsStore } from '../features/songs/songs.store';
import { createRemovedStore, type RemovedStore } from '../features/songs/removed.store';
import { summarise, SUMMARY_VERSION } from '../features/songs/summarise';
import { createAlignmentsStore, type AlignmentsStore } from '../features/alignments/alignments.store';
import { createBackupStore, type BackupStore } from '../features/backup/backup.store';
import { searchWords } from '../features/songs/search-words';
import { createRequestsStore, type RequestsStore } from '../features/requests/requests.store';
import { createWorkTimesStore, type WorkTimesStore } from '../features/work-times/work-times.store';
import { isNetworkHere, NETWORK_LEAKS_DB, NETWORK_PACE, networkProblem } from '../audio/network-engine';
import { alignInThread } from '../audio/run-in-thread';
import { NotFoundError } from '../http/errors';
import { createAnalyseHandler } from '../jobs/run-analysis';
import { createSeparateHandler } from '../jobs/run-separation';
import { prepareQueue, startRunners } from '../jobs/queue';
import type { Config } from './config';

export interface Services {
  readonly sequelize: Sequelize;
  readonly songs: SongsStore;
  readonly removed: RemovedStore;
  readonly alignments: AlignmentsStore;
  readonly backup: BackupStore;
  readonly requests: RequestsStore;
  readonly workTimes: WorkTimesStore;
  readonly recordings: RecordingsStore;
  readonly analyses: AnalysesStore;
  readonly instruments: InstrumentsStore;
  readonly engineFacts: (engine: Engine) => EngineFacts;
  /** Where files are kept while they are read. */
  readonly spoolDir: string;
  readonly settings: SettingsStore;
  readonly shapes: ShapesStore;
  readonly guesses: GuessesStore;
  readonly practice: PracticeStore;
  readonly takes: TakesStore;
  readonly importRecording: ImportRecording;
}

/** Seconds of work for a second of sound: a tenth, encoding and storing with it. */
const ROUGH_PACE = 0.1;

/** How often songs are let go of that were removed a month ago. */
const CLEAR_EVERY_MS = 3600 * 1000;
/** How often the work of crashed workers is looked for. */
const STALE_CHECK_MS = 3000;

export async function createServices({ databaseUrl, spoolDir, networkDir }: Config): Promise<Services> {
  const sequelize = await openDatabase(databaseUrl);
  await prepareQueue(databaseUrl);
  const songs = createSongsStore(sequelize);
  await songs.summariseAnew(summarise, SUMMARY_VERSION);
  const removed = createRemovedStore(sequelize);
  const recordings = createRecordingsStore();
  const analyses = createAnalysesStore(sequelize, async (recordingId, analysis, transaction) => {
    // The first analysis writes a draft; a document that has riffs is left alone.
    const song = await songs.lockOf(recordingId, transaction);
    if (!song || song.document.riffs.length > 0) return [];
    const { document, kept } = draftInto(song.document, analysis);
    await songs.saveDraft(song.id, song.revision, document, summarise(document), new Date(), transaction);
    return [...kept];
  });
  const engineFacts = (engine: Engine): EngineFacts =>
    engine === 'rough'
      ? { isHere: true, problem: null, pace: ROUGH_PACE, leaksDb: {} }
      : {
          isHere: isNetworkHere(networkDir),
          problem: networkProblem(),
          pace: NETWORK_PACE,
          leaksDb: NETWORK_LEAKS_DB,
        };
  const importRecording = createImport(
    sequelize,
    recordings,
    {
      createSong: (id, document, transaction) =>
        songs.create(id, document, summarise(document), new Date(), transaction),
      addToSong: async (id, recordingId, transaction) => {
        const song = await songs.lock(id, transaction);
        if (!song) throw new NotFoundError('song');
        // The first recording is what the tab is written to.
        if (song.document.recordings.some((r) => r.isReference)) return;
        const document = { ...song.document, recordings: [{ id: recordingId, isReference: true }] };
        await songs.saveDraft(id, song.revision, document, summarise(document), new Date(), transaction);
      },
      bringBack: (songId) => removed.bringBack(songId),
      queueAnalysis: async (recordingId, transaction) => {
        await analyses.queue(recordingId, undefined, transaction);
      },
    },
    spoolDir,
  );
  return {
    sequelize,
    songs,
    removed,
    alignments: createAlignmentsStore(
      sequelize,
      { writeTo: (id, path) => recordings.writeTo(id, path), align: alignInThread },
      spoolDir,
    ),
    backup: createBackupStore(
      sequelize,
      { summarise, words: searchWords, chunkBytes: CHUNK_BYTES },
      spoolDir,
    ),
    requests: createRequestsStore(sequelize),
    workTimes: createWorkTimesStore(sequelize),
    recordings,
    analyses,
    instruments: createInstrumentsStore(sequelize, engineFacts),
    engineFacts,
    spoolDir,
    settings: createSettingsStore(),
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
  const log = (error: unknown): void => logger.error({ error: forLog(error) }, 'job');
  const { analyses, instruments, recordings } = services;
  const { spoolDir, networkDir } = config;
  const handlers = {
    analyse: createAnalyseHandler(analyses, recordings, spoolDir, log),
    separate: createSeparateHandler(instruments, recordings, { spoolDir, networkDir }, log),
  };
  const runners = config.jobs > 0 ? await startRunners(config.databaseUrl, config.jobs, handlers) : [];
  const requeue = (): void => {
    analyses.requeueStale().catch(log);
    instruments.requeueStale().catch(log);
  };
  const staleCheck = setInterval(requeue, STALE_CHECK_MS);
  requeue();
  const clearRemoved = (): void => void services.removed.clear(new Date()).catch(log);
  const clearing = setInterval(clearRemoved, CLEAR_EVERY_MS);
  clearRemoved();
  return async () => {
    clearInterval(staleCheck);
    clearInterval(clearing);
    await Promise.all(runners.map((runner) => runner.stop()));
  };
}
