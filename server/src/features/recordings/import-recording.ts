/**
 * Takes a recording in. The bytes stream into a file of the spool folder and are looked at there; then one transaction
 * stores chunks, recording, song and the queued analysis: together or, after any failure or crash, not at all. A slow
 * upload holds no connection to the database meanwhile.
 */
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, rm } from 'node:fs/promises';
import { join, parse as parsePath } from 'node:path';
import pLimit from 'p-limit';
import { type Sequelize, type Transaction } from 'sequelize';
import { MAX_UPLOAD_BYTES, type ImportAnswer, type ImportQuery } from '@wild-needle/contract';
import { fitText, PLAIN_SONG, TEXT_LIMITS, type SongDocument } from '@wild-needle/core/riff';
import { AudioProblem, tooLarge } from '../../audio/audio-problem';
import type { FileTags } from '../../audio/decode';
import { inspectFile, type InspectedAudio } from '../../audio/inspect-file';
import { copySoundOut } from '../../audio/sound-of-video';
import { prepareSpool, PRIVATE_FILE } from '../../audio/spool';
import { CHUNK_BYTES, type RecordingsStore } from './recordings.store';

/** Looking at a file takes a core for seconds: others wait for their turn. */
const LOOKED_AT_ONCE = 1;

/** What else belongs to a new recording; given by the composition root, since features don't know each other. */
export interface ImportSteps {
  createSong(id: string, document: SongDocument, transaction: Transaction): Promise<void>;
  /** The recording belongs to this song from now on; rejects when there is no such song. */
  addToSong(id: string, recordingId: string, transaction: Transaction): Promise<void>;
  /** A song of which somebody brings a recording once more is wanted on the shelf. */
  bringBack(songId: string): Promise<unknown>;
  queueAnalysis(recordingId: string, transaction: Transaction): Promise<void>;
}

interface SpooledFile {
  readonly sha256: string;
  readonly byteLength: number;
}

export type ImportRecording = (bytes: AsyncIterable<Buffer>, query: ImportQuery) => Promise<ImportAnswer>;

export function createImport(
  sequelize: Sequelize,
  recordings: RecordingsStore,
  steps: ImportSteps,
  spoolDir: string,
): ImportRecording {
  async function answerForKnown(sha256: string): Promise<ImportAnswer | null> {
    const known = await recordings.findByHash(sha256);
    return known && { songId: known.songId, recordingId: known.id, alreadyKnown: true };
  }

  /** Writes what comes in to a file. */
  async function spool(bytes: AsyncIterable<Buffer>, path: string): Promise<SpooledFile> {
    const hash = createHash('sha256');
    const file = await open(path, 'wx', PRIVATE_FILE);
    let byteLength = 0;
    try {
      for await (const chunk of bytes) {
        byteLength += chunk.length;
        if (byteLength > MAX_UPLOAD_BYTES) throw tooLarge();
        hash.update(chunk);
        await file.writeFile(chunk);
      }
    } finally {
      await file.close();
    }
    if (byteLength === 0) {
      throw new AudioProblem('empty', 'This file is empty: it has 0 bytes. Export it again.');
    }
    return { sha256: hash.digest('hex'), byteLength };
  }

  async function addChunks(path: string, recordingId: string, transaction: Transaction): Promise<void> {
    let seq = 0;
    for await (const chunk of createReadStream(path, { highWaterMark: CHUNK_BYTES })) {
      await recordings.addChunk(recordingId, seq++, chunk as Buffer, transaction);
    }
  }

  /** For a file that was brought in before: its sound is put back where that is missing. */
  async function answerAgain(path: string, { sha256 }: SpooledFile): Promise<ImportAnswer | null> {
    const known = await answerForKnown(sha256);
    if (!known) return null;
    const isMute = !(await recordings.hasSound(known.recordingId));
    if (isMute) await sequelize.transaction((t) => addChunks(path, known.recordingId, t));
    await steps.bringBack(known.songId);
    return known;
  }

  async function store(
    path: string,
    query: ImportQuery,
    { sha256, byteLength }: SpooledFile,
    facts: InspectedAudio,
  ): Promise<ImportAnswer> {
    const recordingId = randomUUID();
    const songId = query.songId ?? randomUUID();
    const winner = await sequelize.transaction(async (transaction) => {
      // The same file may come in twice at the same moment: the second one waits here for the first, and finds it.
      await sequelize.query('SELECT pg_advisory_xact_lock(hashtext(:sha256))', {
        replacements: { sha256 },
        transaction,
      });
      const first = await answerForKnown(sha256);
      if (first) return first;
      if (query.songId === undefined) {
        await steps.createSong(songId, emptyDocument(query, facts.tags, recordingId), transaction);
      } else await steps.addToSong(songId, recordingId, transaction);
      const { fileName } = query;
      await recordings.add({ id: recordingId, songId, fileName, sha256, byteLength, facts }, transaction);
      await addChunks(path, recordingId, transaction);
      await steps.queueAnalysis(recordingId, transaction);
      return null;
    });
    return winner ?? { songId, recordingId, alreadyKnown: false };
  }

  /** Of a video its sound only. */
  async function lookAndStore(path: string, query: ImportQuery, file: SpooledFile): Promise<ImportAnswer> {
    const known = await answerAgain(path, file);
    if (known) return known;
    const facts = await inspectFile(path);
    const soundPath = `${path}.sound`;
    try {
      if (!(await copySoundOut(path, soundPath))) return await store(path, query, file, facts);
      const sound = await fileAt(soundPath);
      const again = await answerAgain(soundPath, sound);
      if (again) return again;
      const { tags } = facts;
      return await store(soundPath, query, sound, { ...(await inspectFile(soundPath)), tags });
    } finally {
      await rm(soundPath, { force: true });
    }
  }

  const oneAfterTheOther = pLimit(LOOKED_AT_ONCE);

  return async (bytes, query) => {
    await prepareSpool(spoolDir);
    const path = join(spoolDir, randomUUID());
    try {
      const facts = await spool(bytes, path);
      return await oneAfterTheOther(() => lookAndStore(path, query, facts));
    } finally {
      await rm(path, { force: true });
    }
  };
}

async function fileAt(path: string): Promise<SpooledFile> {
  const hash = createHash('sha256');
  let byteLength = 0;
  for await (const chunk of createReadStream(path)) {
    hash.update(chunk as Buffer);
    byteLength += (chunk as Buffer).length;
  }
  return { sha256: hash.digest('hex'), byteLength };
}

/** A readable title from a file name: 'gravel_choir-take-2.flac' is 'Gravel choir take 2'. */
export function titleOf(fileName: string): string {
  const words = parsePath(fileName).name.replace(/[_-]+/g, ' ').replace(/\s+/g, ' ').trim();
  const title = fitText(words.charAt(0).toUpperCase() + words.slice(1), TEXT_LIMITS.title);
  return title === '' ? 'Untitled' : title;
}

/** The song before anything was heard. What the file says of itself is a proposal: the shelf changes it. */
function emptyDocument(
  { fileName, title, artist }: ImportQuery,
  tags: FileTags,
  recordingId: string,
): SongDocument {
  return {
    ...PLAIN_SONG,
    title: title ?? (fitText(tags.title, TEXT_LIMITS.title) || titleOf(fileName)),
    artist: artist ?? fitText(tags.artist, TEXT_LIMITS.artist),
    recordings: [{ id: recordingId, isReference: true }],
  };
}
