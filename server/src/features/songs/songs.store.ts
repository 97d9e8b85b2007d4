/** Songs and every saved revision of their documents. */
import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import {
  CHANGES_TOLD,
  upgradeDocument,
  type AnalysisJob,
  type OpenSong,
  type Recording,
  type SongSummary,
  type Version,
  type VersionDocument,
} from '@wild-needle/contract';
import { changesBetween, type SongDocument } from '@wild-needle/core/riff';
import { SongRevisionRow, SongRow, type DocumentSummary } from '../../db/models';

export type { DocumentSummary };

/** Revisions kept per song at most, however many are saved in a day. */
const REVISIONS_KEPT = 1000;
/** All of the last day are kept, then one an hour, after a week one a day: the last of each. */
const ALL_KEPT = '1 day';
const HOURS_KEPT = '7 days';
/** What one version is kept of, by its age. */
const STEP = `CASE WHEN v.saved_at >= $now::timestamptz - interval '${HOURS_KEPT}' THEN 'hour' ELSE 'day' END`;
/** Versions that are told at a time. */
const VERSIONS_TOLD = 50;

/** Newest analysis of a song's recording, as one JSON value. */
const NEWEST_JOB = `(
  SELECT json_build_object('id', a.id, 'recordingId', a.recording_id, 'songId', r.song_id, 'status', a.status,
    'share', a.share, 'doing', a.doing,
    'soFar', a.so_far, 'problem', a.problem, 'kept', a.kept)
  FROM analyses a WHERE a.recording_id = r.id ORDER BY a.created_at DESC LIMIT 1)`;

/**
 * One statement, so that a save is one way to the database and back, whatever else is going on: the song moves on from the revision
 * that the document was made on (of two savers on the same base one wins), the document is added, the oldest one goes.
 */
const SAVE = `
  WITH moved AS (
    UPDATE songs SET title = $title, artist = $artist, revision = $revision, summary = $summary::jsonb,
      updated_at = COALESCE($updatedAt::timestamptz, updated_at)
    WHERE id = $id::uuid AND revision = $baseRevision RETURNING id
  ), trimmed AS (
    DELETE FROM song_revisions v USING moved WHERE v.song_id = moved.id AND (v.revision <= $oldest OR (
      v.saved_at < $now::timestamptz - interval '${ALL_KEPT}' AND EXISTS (
        SELECT 1 FROM song_revisions w WHERE w.song_id = v.song_id AND w.revision > v.revision
          AND date_trunc(${STEP}, w.saved_at) = date_trunc(${STEP}, v.saved_at))))
  )
  INSERT INTO song_revisions (song_id, revision, document, saved_at)
  SELECT id, $revision, $document::jsonb, $now::timestamptz FROM moved RETURNING revision`;

interface ShelfRow {
  id: string;
  title: string;
  artist: string;
  updated_at: Date;
  revision: number;
  summary: DocumentSummary;
  duration_s: number | null;
  job: AnalysisJob | null;
}

interface OpenRow {
  id: string;
  revision: number;
  saved_at: Date;
  document: unknown;
  recording: Recording | null;
  job: AnalysisJob | null;
}

export type SaveResult =
  | { readonly saved: true; readonly revision: number; readonly savedAt: Date }
  | { readonly saved: false; readonly reason: 'conflict' | 'not-found' };

export interface SongsStore {
  list(): Promise<SongSummary[]>;
  open(id: string): Promise<OpenSong | null>;
  /** A new song with the document as revision 1. */
  create(
    id: string,
    document: SongDocument,
    summary: DocumentSummary,
    now: Date,
    transaction?: Transaction,
  ): Promise<void>;
  /** Stores a document made on `baseRevision`, unless a newer one is there. */
  save(
    id: string,
    baseRevision: number,
    document: SongDocument,
    summary: DocumentSummary,
    now: Date,
  ): Promise<SaveResult>;
  /** The same for what an analysis has written: nobody has worked on the song, its place on the shelf stays. */
  saveDraft(
    id: string,
    baseRevision: number,
    document: SongDocument,
    summary: DocumentSummary,
    now: Date,
    transaction: Transaction,
  ): Promise<SaveResult>;
  /** The newest document of the song that a recording belongs to; nobody else saves it until the transaction ends. */
  lockOf(
    recordingId: string,
    transaction: Transaction,
  ): Promise<{ id: string; revision: number; document: SongDocument } | null>;
  /** Newest first, older ones than `before` when that is given; null where there is no such song. */
  versions(id: string, before?: number): Promise<Version[] | null>;
  /** The song as it was saved; null where it is not kept. */
  version(id: string, revision: number): Promise<VersionDocument | null>;
  /** False when there was none. */
  remove(id: string): Promise<boolean>;
}

export function createSongsStore(sequelize: Sequelize): SongsStore {
  /** `updatedAt` null leaves the song's place on the shelf. */
  const store = async (
    id: string,
    baseRevision: number,
    document: SongDocument,
    row: { readonly summary: DocumentSummary; readonly updatedAt: Date | null },
    now: Date,
    transaction?: Transaction,
  ): Promise<SaveResult> => {
    const revision = baseRevision + 1;
    const { title, artist } = document;
    const [saved] = await sequelize.query<{ revision: number }>(SAVE, {
      type: QueryTypes.SELECT,
      bind: {
        id,
        baseRevision,
        revision,
        title,
        artist,
        summary: JSON.stringify(row.summary),
        updatedAt: row.updatedAt,
        document: JSON.stringify(document),
        now,
        oldest: revision - REVISIONS_KEPT,
      },
      transaction,
    });
    if (saved) return { saved: true, revision, savedAt: now };
    const exists = await SongRow.count({ where: { id }, transaction });
    return { saved: false, reason: exists > 0 ? 'conflict' : 'not-found' };
  };
  return {
    async list() {
      const rows = await sequelize.query<ShelfRow>(
        `SELECT s.id, s.title, s.artist, s.updated_at, s.revision, s.summary, r.duration_s, ${NEWEST_JOB} AS job
         FROM songs s LEFT JOIN recordings r ON r.song_id = s.id ORDER BY s.updated_at DESC, s.id`,
        { type: QueryTypes.SELECT },
      );
      return rows.map(({ updated_at, duration_s, summary, ...row }) => ({
        ...row,
        ...summary,
        updatedAt: updated_at.toISOString(),
        durationS: duration_s,
      }));
    },

    async open(id) {
      const [row] = await sequelize.query<OpenRow>(
        `SELECT s.id, s.revision, v.saved_at, v.document, ${NEWEST_JOB} AS job,
           CASE WHEN r.id IS NULL THEN NULL ELSE json_build_object('id', r.id, 'fileName', r.file_name,
             'byteLength', r.byte_length, 'codec', r.codec, 'channels', r.channels, 'sampleRate', r.sample_rate,
             'durationS', r.duration_s) END AS recording
         FROM songs s JOIN song_revisions v ON v.song_id = s.id AND v.revision = s.revision
         LEFT JOIN recordings r ON r.song_id = s.id WHERE s.id = :id`,
        { type: QueryTypes.SELECT, replacements: { id } },
      );
      if (!row) return null;
      const { saved_at, document, ...rest } = row;
      return { ...rest, savedAt: saved_at.toISOString(), document: upgradeDocument(document) };
    },

    async create(id, document, summary, now, within) {
      const { title, artist } = document;
      const write = async (transaction: Transaction): Promise<void> => {
        await SongRow.create({ id, title, artist, revision: 1, summary, updatedAt: now }, { transaction });
        await SongRevisionRow.create({ songId: id, revision: 1, document, savedAt: now }, { transaction });
      };
      await (within ? write(within) : sequelize.transaction(write));
    },

    save(id, baseRevision, document, summary, now) {
      return store(id, baseRevision, document, { summary, updatedAt: now }, now);
    },

    saveDraft(id, baseRevision, document, summary, now, transaction) {
      return store(id, baseRevision, document, { summary, updatedAt: null }, now, transaction);
    },

    async lockOf(recordingId, transaction) {
      const [row] = await sequelize.query<{ id: string; revision: number }>(
        `SELECT s.id, s.revision FROM songs s JOIN recordings r ON r.song_id = s.id
         WHERE r.id = :recordingId FOR UPDATE OF s`,
        { type: QueryTypes.SELECT, replacements: { recordingId }, transaction },
      );
      if (!row) return null;
      const stored = await SongRevisionRow.findOne({
        where: { songId: row.id, revision: row.revision },
        transaction,
      });
      return stored && { ...row, document: upgradeDocument(stored.document) };
    },

    async versions(id, before) {
      // One more than are told: each is told against the one before it.
      const rows = await SongRevisionRow.findAll({
        where: { songId: id, ...(before !== undefined && { revision: { [Op.lt]: before } }) },
        order: [['revision', 'DESC']],
        limit: VERSIONS_TOLD + 1,
      });
      if (rows.length === 0) return (await SongRow.count({ where: { id } })) > 0 ? [] : null;
      const documents = rows.map((row) => upgradeDocument(row.document));
      return rows.slice(0, VERSIONS_TOLD).map(({ revision, savedAt }, i) => {
        const older = documents.at(i + 1);
        const changes = older ? changesBetween(older, documents[i]) : [];
        return {
          revision,
          savedAt: savedAt.toISOString(),
          changes: changes.slice(0, CHANGES_TOLD),
          more: Math.max(0, changes.length - CHANGES_TOLD),
        };
      });
    },

    async version(id, revision) {
      const row = await SongRevisionRow.findOne({ where: { songId: id, revision } });
      return row && { revision, savedAt: row.savedAt.toISOString(), document: upgradeDocument(row.document) };
    },

    async remove(id) {
      return (await SongRow.destroy({ where: { id } })) > 0;
    },
  };
}
