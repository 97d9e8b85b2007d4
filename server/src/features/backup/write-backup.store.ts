/** Makes a backup as a stream, while the program runs: all of it is as it was at one moment. */
import { createHash } from 'node:crypto';
import { PassThrough, Readable, Transform } from 'node:stream';
import { Transaction, type Sequelize } from 'sequelize';
import { ZipFile } from 'yazl';
import {
  AnalysisRow,
  GuessRow,
  PracticeRoundRow,
  RecordingChunkRow,
  RecordingRow,
  RequestRow,
  SettingsRow,
  ShapeRow,
  SongRevisionRow,
  SongRow,
  WorkTimeRow,
} from '../../db/models';
import {
  BACKUP_SCHEMA,
  historyPath,
  LOG,
  MANIFEST,
  recordingPath,
  logFileSchema,
  songPath,
  type LogFile,
  type Manifest,
  type SongFile,
} from './format';

/** Revisions that are read at a time. */
const PAGE = 50;

/**
 * Of every song, or of one that is handed on: then without what belongs to the player. Rejects before anything is written where there is no such
 * song; an error on the way destroys `out`, and a file that is cut so is told when it is brought back. Answers its length.
 */
export async function writeBackup(
  sequelize: Sequelize,
  out: NodeJS.WritableStream,
  { songId, now }: { readonly songId?: string; readonly now: Date },
): Promise<number> {
  // One moment of the database for all that is read.
  return sequelize.transaction(
    { isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ, readOnly: true },
    async (transaction) => {
      const songs = await SongRow.findAll({
        where: songId === undefined ? {} : { id: songId },
        order: ['id'],
        transaction,
      });
      const zip = new ZipFile();
      const files: Manifest['files'] = {};
      const failed = new Promise<never>((_, reject) => {
        zip.on('error', reject);
        const add = (path: string, isStored: boolean, open: () => Promise<Readable>): void =>
          zip.addReadStreamLazy(path, { compress: !isStored, mtime: now }, (done) => {
            open().then(
              (stream) => done(null, counted(stream, path, files, reject)),
              (reason: unknown) => {
                const error = reason instanceof Error ? reason : new Error(String(reason));
                reject(error);
                done(error, new PassThrough());
              },
            );
          });
        for (const song of songs) {
          add(songPath(song.id), false, async () => json(await songFile(song, transaction)));
          add(historyPath(song.id), false, () =>
            Promise.resolve(Readable.from(history(song.id, transaction))),
          );
        }
        add(LOG, false, async () => json(await logFile(songId, transaction)));
        void RecordingRow.findAll({
          where: songId === undefined ? {} : { songId },
          attributes: ['id'],
          order: ['id'],
          transaction,
        }).then((recordings) => {
          for (const { id } of recordings) {
            add(recordingPath(id), true, () => Promise.resolve(Readable.from(chunks(id, transaction))));
          }
          // Opened when all others are through: then it knows them.
          add(MANIFEST, false, () =>
            Promise.resolve(json({ schema: BACKUP_SCHEMA, madeAt: now.toISOString(), files })),
          );
          zip.end();
        }, reject);
      });
      let byteLength = 0;
      const written = new Promise<number>((resolve, reject) => {
        zip.outputStream.on('data', (part: Buffer) => (byteLength += part.length));
        zip.outputStream.pipe(out);
        out.on('finish', () => resolve(byteLength));
        out.on('error', reject);
        out.on('close', () => reject(new Error('nobody takes the backup any more')));
      });
      return Promise.race([written, failed]);
    },
  );
}

/** Notes length and checksum of what passes. */
function counted(
  stream: Readable,
  path: string,
  files: Manifest['files'],
  onError: (error: Error) => void,
): Readable {
  const hash = createHash('sha256');
  let byteLength = 0;
  const counting = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk);
      byteLength += chunk.length;
      done(null, chunk);
    },
    flush(done) {
      if (path !== MANIFEST) files[path] = { byteLength, sha256: hash.digest('hex') };
      done();
    },
  });
  stream.on('error', onError);
  return stream.pipe(counting);
}

const json = (value: unknown): Readable => Readable.from([Buffer.from(JSON.stringify(value))]);

async function songFile(song: SongRow, transaction: Transaction): Promise<SongFile> {
  const rows = await RecordingRow.findAll({ where: { songId: song.id }, order: ['id'], transaction });
  const recordings: SongFile['recordings'] = [];
  const analyses: SongFile['analyses'] = [];
  for (const { envelope, addedAt, byteLength, songId: _, ...row } of rows.map((r) => r.get())) {
    const hasSound =
      (await RecordingChunkRow.count({ where: { recordingId: row.id, seq: 0 }, transaction })) > 0;
    recordings.push({
      ...row,
      byteLength: Number(byteLength),
      addedAt: addedAt.toISOString(),
      envelope: envelope.toString('base64'),
      hasSound,
    });
    const heard = await AnalysisRow.findOne({
      where: { recordingId: row.id, status: 'done' },
      order: [['createdAt', 'DESC']],
      transaction,
    });
    if (heard) {
      const { id, algorithm, result, createdAt } = heard;
      analyses.push({ id, recordingId: row.id, algorithm, result, createdAt: createdAt.toISOString() });
    }
  }
  const { id, revision, tags, takenAway, referenceId } = song;
  return {
    ...{ id, revision, tags, takenAway, referenceId, recordings, analyses },
    updatedAt: song.updatedAt.toISOString(),
    isRemoved: song.removedAt !== null,
    partMix: song.partMix ?? null,
  };
}

async function* history(songId: string, transaction: Transaction): AsyncGenerator<Buffer> {
  for (let offset = 0; ; offset += PAGE) {
    const rows = await SongRevisionRow.findAll({
      where: { songId },
      order: ['revision'],
      limit: PAGE,
      offset,
      transaction,
    });
    for (const { revision, savedAt, document } of rows) {
      yield Buffer.from(`${JSON.stringify({ revision, savedAt: savedAt.toISOString(), document })}\n`);
    }
    if (rows.length < PAGE) return;
  }
}

async function* chunks(recordingId: string, transaction: Transaction): AsyncGenerator<Buffer> {
  for (let seq = 0; ; seq++) {
    const row = await RecordingChunkRow.findOne({ where: { recordingId, seq }, transaction });
    if (!row) return;
    yield row.bytes;
  }
}

/** Of one song only what somebody else can use: nothing of the player's own. */
async function logFile(songId: string | undefined, transaction: Transaction): Promise<LogFile> {
  if (songId !== undefined) {
    return { shapes: [], guesses: [], practiceRounds: [], requests: [], workTimes: [], settings: null };
  }
  /** Dates as text; the schema says which fields there are. */
  const plain = (rows: readonly { get(): object }[]): unknown[] =>
    rows.map((r): unknown => JSON.parse(JSON.stringify(r.get())));
  return logFileSchema.parse({
    shapes: plain(await ShapeRow.findAll({ transaction })),
    guesses: plain(await GuessRow.findAll({ transaction })),
    practiceRounds: plain(await PracticeRoundRow.findAll({ transaction })),
    requests: plain(await RequestRow.findAll({ transaction })),
    workTimes: plain(await WorkTimeRow.findAll({ transaction })),
    settings: (await SettingsRow.findByPk(1, { transaction }))?.value ?? null,
  });
}
