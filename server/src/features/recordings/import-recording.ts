/**
 * Takes a recording in. Everything happens in one transaction while the bytes stream in: chunks, recording, song
 * and the queued analysis appear together or, after any failure or crash, not at all.
 */
import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, rm } from 'node:fs/promises';
import { join, parse as parsePath } from 'node:path';
import { UniqueConstraintError, type Sequelize, type Transaction } from 'sequelize';
import { MAX_UPLOAD_BYTES, type ImportAnswer, type ImportQuery } from '@wild-needle/contract';
import { PLAIN_SONG, type SongDocument } from '@wild-needle/core/riff';
import { AudioProblem } from '../../jobs/decode';
import { runInThread } from '../../jobs/run-in-thread';
import { CHUNK_BYTES, type RecordingsStore } from './recordings.store';

/** What else belongs to a new recording; given by the composition root, since features don't know each other. */
export interface ImportSteps {
  createSong(id: string, document: SongDocument, transaction: Transaction): Promise<void>;
  queueAnalysis(recordingId: string, transaction: Transaction): Promise<void>;
}

/** Ends the transaction without an error for the user. */
class AlreadyKnown extends Error {
  constructor(readonly answer: ImportAnswer) {
    super('already known');
  }
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

  async function importOnce(
    bytes: AsyncIterable<Buffer>,
    query: ImportQuery,
    path: string,
    onHash: (sha256: string) => void,
  ): Promise<ImportAnswer> {
    const recordingId = randomUUID();
    const songId = randomUUID();
    return sequelize.transaction(async (transaction) => {
      const hash = createHash('sha256');
      const spool = await open(path, 'w');
      let byteLength = 0;
      try {
        let seq = 0;
        for await (const chunk of rechunk(bytes, CHUNK_BYTES)) {
          byteLength += chunk.length;
          if (byteLength > MAX_UPLOAD_BYTES) throw tooLarge();
          hash.update(chunk);
          await recordings.addChunk(recordingId, seq++, chunk, transaction);
          await spool.write(chunk);
        }
      } finally {
        await spool.close();
      }
      if (byteLength === 0)
        throw new AudioProblem('empty', 'This file is empty: it has 0 bytes. Export it again.');
      const sha256 = hash.digest('hex');
      onHash(sha256);
      const known = await answerForKnown(sha256);
      if (known) throw new AlreadyKnown(known);

      const facts = await runInThread('inspect', path, null);
      await steps.createSong(songId, emptyDocument(query, recordingId), transaction);
      await recordings.add(
        { id: recordingId, songId, fileName: query.fileName, sha256, byteLength, facts },
        transaction,
      );
      await steps.queueAnalysis(recordingId, transaction);
      return { songId, recordingId, alreadyKnown: false };
    });
  }

  return async (bytes, query) => {
    await mkdir(spoolDir, { recursive: true });
    const path = join(spoolDir, randomUUID());
    let sha256 = '';
    try {
      return await importOnce(bytes, query, path, (hash) => (sha256 = hash));
    } catch (error) {
      if (error instanceof AlreadyKnown) return error.answer;
      // The same file came in twice at the same moment: the other one won.
      const known = error instanceof UniqueConstraintError ? await answerForKnown(sha256) : null;
      if (known) return known;
      throw error;
    } finally {
      await rm(path, { force: true });
    }
  };
}

export function tooLarge(): AudioProblem {
  return new AudioProblem(
    'too-large',
    'This file is larger than 500 MB. Export it as FLAC or MP3, or cut out the song.',
  );
}

/** Pieces of exactly `size` bytes, the last one shorter. */
async function* rechunk(source: AsyncIterable<Buffer>, size: number): AsyncGenerator<Buffer> {
  let pending: Buffer[] = [];
  let length = 0;
  for await (const bytes of source) {
    pending.push(bytes);
    length += bytes.length;
    if (length < size) continue;
    const all = Buffer.concat(pending);
    let at = 0;
    for (; at + size <= all.length; at += size) yield all.subarray(at, at + size);
    pending = [all.subarray(at)];
    length = all.length - at;
  }
  if (length > 0) yield Buffer.concat(pending);
}

/** A readable title from a file name: 'gravel_choir-take-2.flac' is 'Gravel choir take 2'. */
export function titleOf(fileName: string): string {
  const words = parsePath(fileName).name.replace(/[_-]+/g, ' ').replace(/\s+/g, ' ').trim();
  return words === '' ? 'Untitled' : (words.charAt(0).toUpperCase() + words.slice(1)).slice(0, 200);
}

/** The song before anything was heard. */
function emptyDocument({ fileName, title, artist }: ImportQuery, recordingId: string): SongDocument {
  return {
    ...PLAIN_SONG,
    title: title ?? titleOf(fileName),
    artist: artist ?? '',
    recordings: [{ id: recordingId, isReference: true }],
  };
}
