/**
 * Brings a backup back, all of it or nothing. A song that the shelf has as it is in the backup, or that has gone on from there, is known; one of
 * which the shelf has another version stands beside that; nothing is overwritten.
 */
import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { Sequelize, Transaction } from 'sequelize';
import { analysisSchema, upgradeDocument, type BroughtBack } from '@wild-needle/contract';
import { fitText, TEXT_LIMITS, type SongDocument } from '@wild-needle/core/riff';
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
  type DocumentSummary,
} from '../../db/models';
import type { SongFile } from './format';
import type { Backup } from './read-backup';

/** What a song needs besides its document; given by the composition root, since features don't know each other. */
export interface BringBackSteps {
  summarise(document: SongDocument): DocumentSummary;
  words(document: SongDocument, tags: readonly string[]): string;
  readonly chunkBytes: number;
}

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });

export async function bringBack(
  sequelize: Sequelize,
  backup: Backup,
  steps: BringBackSteps,
): Promise<BroughtBack> {
  return sequelize.transaction(async (transaction) => {
    const counts = { songs: 0, known: 0, beside: 0 };
    for (const id of backup.songIds) {
      const song = await backup.song(id);
      const there = await SongRow.findByPk(song.id, { transaction });
      if (!there) {
        await addSong(backup, song, null, steps, transaction);
        counts.songs++;
      } else if (await hasGoneOnFrom(backup, song, transaction)) {
        if (there.removedAt !== null && !song.isRemoved) {
          await there.update({ removedAt: null }, { transaction });
        }
        await addMissingSound(backup, song, steps, transaction);
        counts.known++;
      } else {
        await addSong(backup, song, `backup of ${DAY.format(backup.madeAt)}`, steps, transaction);
        counts.beside++;
      }
    }
    await addLog(backup, transaction);
    return { ...counts, madeAt: backup.madeAt.toISOString() };
  });
}

/** The newest document of the backup is among the revisions of the shelf, or stands there once brought back beside. */
async function hasGoneOnFrom(backup: Backup, song: SongFile, transaction: Transaction): Promise<boolean> {
  let newest: SongDocument | null = null;
  for await (const line of backup.history(song.id)) {
    if (line.revision === song.revision) newest = upgradeDocument(line.document);
  }
  if (!newest) return false;
  const row = await SongRevisionRow.findOne({
    where: { songId: song.id, revision: song.revision },
    transaction,
  });
  if (row && isDeepStrictEqual(upgradeDocument(row.document), newest)) return true;
  // The same backup once more: its other version stands beside already.
  const title = besideTitle(newest.title, `backup of ${DAY.format(backup.madeAt)}`);
  const others = await SongRow.findAll({ where: { title, removedAt: null }, transaction });
  return others.length > 0;
}

const besideTitle = (title: string, suffix: string): string => {
  const tail = ` (${suffix})`;
  return `${fitText(title, TEXT_LIMITS.title - tail.length)}${tail}`;
};

/** `suffix` of the title where it stands beside another version; it has ids of its own then. */
async function addSong(
  backup: Backup,
  song: SongFile,
  suffix: string | null,
  steps: BringBackSteps,
  transaction: Transaction,
): Promise<void> {
  const idOf = (id: string): string => ids.get(id) ?? id;
  const all = [song.id, ...song.recordings.map((r) => r.id), ...song.analyses.map((a) => a.id)];
  const ids = new Map(suffix === null ? [] : all.map((id) => [id, randomUUID()]));
  const own = (document: SongDocument): SongDocument => ({
    ...document,
    title: suffix === null ? document.title : besideTitle(document.title, suffix),
    recordings: document.recordings.map((r) => ({ ...r, id: idOf(r.id) })),
  });
  let newest: SongDocument | null = null;
  const songId = idOf(song.id);
  const revisions: { songId: string; revision: number; document: SongDocument; savedAt: Date }[] = [];
  for await (const { revision, savedAt, document } of backup.history(song.id)) {
    const upgraded = own(upgradeDocument(document));
    if (revision === song.revision) newest = upgraded;
    revisions.push({ songId, revision, document: upgraded, savedAt: new Date(savedAt) });
  }
  if (!newest) throw new Error(`the newest revision of ${song.id} is missing`);
  const { revision, tags, takenAway, referenceId, partMix } = song;
  await SongRow.create(
    {
      ...{ id: songId, title: newest.title, artist: newest.artist, revision, tags, takenAway, partMix },
      summary: steps.summarise(newest),
      words: steps.words(newest, tags),
      updatedAt: new Date(song.updatedAt),
      referenceId: referenceId === null ? null : idOf(referenceId),
      removedAt: song.isRemoved ? backup.madeAt : null,
    },
    { transaction },
  );
  for (const row of revisions) await SongRevisionRow.create(row, { transaction, returning: false });
  for (const { envelope, hasSound, addedAt, ...recording } of song.recordings) {
    await RecordingRow.create(
      {
        ...recording,
        id: idOf(recording.id),
        songId,
        addedAt: new Date(addedAt),
        envelope: Buffer.from(envelope, 'base64'),
      },
      { transaction, returning: false },
    );
    if (hasSound) await addSound(backup, recording.id, idOf(recording.id), steps, transaction);
  }
  for (const { id, recordingId, algorithm, result, createdAt } of song.analyses) {
    // What an older program heard may be of another shape: the recording is listened to again when that is wanted.
    if (!analysisSchema.safeParse(result).success) continue;
    await AnalysisRow.create(
      {
        ...{ id: idOf(id), recordingId: idOf(recordingId), algorithm, result, status: 'done', share: 1 },
        ...{ doing: 'Done', problem: null, given: null, soFar: null, heartbeatAt: null },
        createdAt: new Date(createdAt),
      },
      { transaction, returning: false },
    );
  }
}

/** A song that came back without its sound gets it. */
async function addMissingSound(
  backup: Backup,
  song: SongFile,
  steps: BringBackSteps,
  transaction: Transaction,
): Promise<void> {
  for (const { id, hasSound } of song.recordings) {
    const isThere = (await RecordingRow.count({ where: { id }, transaction })) > 0;
    const isMute = (await RecordingChunkRow.count({ where: { recordingId: id, seq: 0 }, transaction })) === 0;
    if (isThere && isMute && hasSound) await addSound(backup, id, id, steps, transaction);
  }
}

async function addSound(
  backup: Backup,
  from: string,
  to: string,
  { chunkBytes }: BringBackSteps,
  transaction: Transaction,
): Promise<void> {
  let seq = 0;
  let rest = Buffer.alloc(0);
  const put = async (bytes: Buffer): Promise<void> => {
    await RecordingChunkRow.create({ recordingId: to, seq: seq++, bytes }, { transaction, returning: false });
  };
  for await (const part of await backup.sound(from)) {
    rest = Buffer.concat([rest, part as Buffer]);
    for (; rest.length >= chunkBytes; rest = rest.subarray(chunkBytes))
      await put(rest.subarray(0, chunkBytes));
  }
  if (rest.length > 0) await put(rest);
}

const dated = <T extends { readonly at: string }>(row: T): Omit<T, 'at'> & { at: Date } => ({
  ...row,
  at: new Date(row.at),
});

/** Rows that are there stay as they are. */
async function addLog(backup: Backup, transaction: Transaction): Promise<void> {
  const { shapes, guesses, practiceRounds, requests, workTimes, settings } = await backup.log();
  const options = { transaction, ignoreDuplicates: true };
  await ShapeRow.bulkCreate(
    shapes.map((row) => ({ ...row, createdAt: new Date(row.createdAt) })),
    options,
  );
  await GuessRow.bulkCreate(guesses.map(dated), options);
  await PracticeRoundRow.bulkCreate(practiceRounds.map(dated), options);
  const songs = await SongRow.findAll({ attributes: ['id'], transaction });
  const known = new Set(songs.map(({ id }) => id));
  await RequestRow.bulkCreate(
    requests
      .filter(({ songId }) => known.has(songId))
      .map((row) => ({
        ...row,
        doneAt: row.doneAt === null ? null : new Date(row.doneAt),
        createdAt: new Date(row.createdAt),
      })),
    options,
  );
  await WorkTimeRow.bulkCreate(workTimes.map(dated), options);
  if (settings) await SettingsRow.bulkCreate([{ id: 1, value: settings }], options);
}
