/** Recordings: their original bytes in chunks, their facts and outline. */
import { open } from 'node:fs/promises';
import type { Transaction } from 'sequelize';
import { RecordingChunkRow, RecordingRow, SongRow } from '../../db/models';
import type { InspectedAudio } from '../../audio/inspect-file';
import { PRIVATE_FILE } from '../../audio/spool';

/** Bytes per row: large enough to stream fast, small enough that a Range reads little more than it needs. */
export const CHUNK_BYTES = 256 * 1024;

export interface NewRecording {
  readonly id: string;
  readonly songId: string;
  readonly fileName: string;
  readonly sha256: string;
  readonly byteLength: number;
  readonly facts: InspectedAudio;
}

export interface RecordingsStore {
  findByHash(sha256: string): Promise<{ id: string; songId: string } | null>;
  /** Belongs to a recording that is added in the same transaction. */
  addChunk(recordingId: string, seq: number, bytes: Buffer, transaction: Transaction): Promise<void>;
  add(recording: NewRecording, transaction: Transaction): Promise<void>;
  sizeOf(id: string): Promise<{ byteLength: number; sha256: string } | null>;
  /** False for a recording that came back from a backup, which holds no sound. */
  hasSound(id: string): Promise<boolean>;
  /** The bytes [start, end], both included, as they come from the database. */
  read(id: string, start: number, end: number): AsyncGenerator<Buffer>;
  envelopeOf(id: string): Promise<Buffer | null>;
  /** 'reference' when its song is played from it: that one stays. */
  remove(id: string): Promise<'removed' | 'reference' | 'not-found'>;
  /** Throws when there is no such recording. */
  writeTo(id: string, path: string): Promise<void>;
}

export function createRecordingsStore(): RecordingsStore {
  const store: RecordingsStore = {
    async findByHash(sha256) {
      const row = await RecordingRow.findOne({ where: { sha256 }, attributes: ['id', 'songId'] });
      return row && { id: row.id, songId: row.songId };
    },

    async addChunk(recordingId, seq, bytes, transaction) {
      await RecordingChunkRow.create({ recordingId, seq, bytes }, { transaction, returning: false });
    },

    async add({ facts, ...recording }, transaction) {
      const { durationS, codec, channels, sampleRate, envelope } = facts;
      await RecordingRow.create(
        { ...recording, durationS, codec, channels, sampleRate, envelope: Buffer.from(envelope) },
        { transaction, returning: false },
      );
    },

    async sizeOf(id) {
      const row = await RecordingRow.findByPk(id, { attributes: ['byteLength', 'sha256'] });
      return row && { byteLength: Number(row.byteLength), sha256: row.sha256 };
    },

    async hasSound(id) {
      return (await RecordingChunkRow.count({ where: { recordingId: id, seq: 0 } })) > 0;
    },

    async *read(id, start, end) {
      for (let seq = Math.floor(start / CHUNK_BYTES); seq * CHUNK_BYTES <= end; seq++) {
        const row = await RecordingChunkRow.findOne({ where: { recordingId: id, seq } });
        if (!row) return;
        const from = Math.max(0, start - seq * CHUNK_BYTES);
        yield row.bytes.subarray(from, end + 1 - seq * CHUNK_BYTES);
      }
    },

    async envelopeOf(id) {
      const row = await RecordingRow.findByPk(id, { attributes: ['envelope'] });
      return row?.envelope ?? null;
    },

    async remove(id) {
      const row = await RecordingRow.findByPk(id, { attributes: ['songId'] });
      if (!row) return 'not-found';
      const isReference = (await SongRow.count({ where: { id: row.songId, referenceId: id } })) > 0;
      if (isReference) return 'reference';
      return (await RecordingRow.destroy({ where: { id } })) > 0 ? 'removed' : 'not-found';
    },

    async writeTo(id, path) {
      const size = await store.sizeOf(id);
      if (!size) throw new Error(`recording ${id} is gone`);
      const file = await open(path, 'w', PRIVATE_FILE);
      try {
        for await (const bytes of store.read(id, 0, size.byteLength - 1)) await file.write(bytes);
      } finally {
        await file.close();
      }
    },
  };
  return store;
}
