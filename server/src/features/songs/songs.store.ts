/** Songs and every saved revision of their documents. */
import { col, Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import {
  CHANGES_TOLD,
  upgradeDocument,
  type AnalysisJob,
  type OpenSong,
  type Recording,
  type ShelfQuery,
  type SongSummary,
  type Version,
  type VersionDocument,
} from '@wild-needle/contract';
import { changesBetween, type SongDocument } from '@wild-needle/core/riff';
import { SongRevisionRow, SongRow, type DocumentSummary } from '../../db/models';
import { searchWords } from './search-words';
import { listShelf, NEWEST_JOB } from './shelf.store';

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

/**
 * One statement, so that a save is one way to the database and back, whatever else is going on: the song moves on from the revision
 * that the document was made on (of two savers on the same base one wins), the document is added, the oldest one goes.
 */
const SAVE = `
  WITH moved AS (
    UPDATE songs SET title = $title, artist = $artist, revision = $revision, summary = $summary::jsonb,
      words = $words || lower(array_to_string(tags, ' ')) || ' ', reference_id = COALESCE($referenceId::uuid, reference_id),
      updated_at = COALESCE($updatedAt::timestamptz, updated_at)
    -- Nobody works on a song that was removed; what an analysis has heard it may still get.
    WHERE id = $id::uuid AND revision = $baseRevision AND (removed_at IS NULL OR $updatedAt::timestamptz IS NULL)
    RETURNING id
  ), trimmed AS (
    DELETE FROM song_revisions v USING moved WHERE v.song_id = moved.id AND (v.revision <= $oldest OR (
      v.saved_at < $now::timestamptz - interval '${ALL_KEPT}' AND EXISTS (
        SELECT 1 FROM song_revisions w WHERE w.song_id = v.song_id AND w.revision > v.revision
          AND date_trunc(${STEP}, w.saved_at) = date_trunc(${STEP}, v.saved_at))))
  )
  INSERT INTO song_revisions (song_id, revision, document, saved_at)
  SELECT id, $revision, $document::jsonb, $now::timestamptz FROM moved RETURNING revision`;

interface OpenRow {
  id: string;
  revision: number;
  saved_at: Date;
  document: unknown;
  recordings: Recording[] | null;
  reference_id: string | null;
  job: AnalysisJob | null;
}

export type SaveResult =
  | { readonly saved: true; readonly revision: number; readonly savedAt: Date }
  | { readonly saved: false; readonly reason: 'conflict' | 'not-found' };

export interface SongsStore {
  list(query: ShelfQuery): Promise<SongSummary[]>;
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
  /** The newest document of a song; nobody else saves it until the transaction ends. */
  lock(id: string, transaction: Transaction): Promise<LockedSong | null>;
  /** The same of the song whose reference a recording is. */
  lockOf(recordingId: string, transaction: Transaction): Promise<LockedSong | null>;
  /** Newest first, older ones than `before` when that is given; null where there is no such song. */
  versions(id: string, before?: number): Promise<Version[] | null>;
  /** The song as it was saved; null where it is not kept. */
  version(id: string, revision: number): Promise<VersionDocument | null>;
  /** False when there is no such song. */
  setTags(id: string, tags: readonly string[]): Promise<boolean>;
  /** The newest revision was printed or taken away as a file; false when there is no such song. */
  wasTakenAway(id: string): Promise<boolean>;
  /** Songs whose summary is of another version get a new one, and are found by what is looked for now. */
  summariseAnew(summarise: (document: SongDocument) => DocumentSummary, version: number): Promise<void>;
}

export interface LockedSong {
  readonly id: string;
  readonly revision: number;
  readonly document: SongDocument;
}

/** The recording that the tab is written to. */
function referenceOf({ recordings }: SongDocument): string | null {
  return recordings.find((r) => r.isReference)?.id ?? null;
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
        words: searchWords(document, []),
        referenceId: referenceOf(document),
        updatedAt: row.updatedAt,
        document: JSON.stringify(document),
        now,
        oldest: revision - REVISIONS_KEPT,
      },
      transaction,
    });
    if (saved) return { saved: true, revision, savedAt: now };
    const exists = await SongRow.count({ where: { id, removedAt: null }, transaction });
    return { saved: false, reason: exists > 0 ? 'conflict' : 'not-found' };
  };
  async function locked(
    where: { readonly id: string } | { readonly referenceId: string },
    transaction: Transaction,
  ): Promise<LockedSong | null> {
    const row = await SongRow.findOne({
      where: { ...where },
      attributes: ['id', 'revision'],
      lock: transaction.LOCK.UPDATE,
      transaction,
    });
    const stored =
      row &&
      (await SongRevisionRow.findOne({ where: { songId: row.id, revision: row.revision }, transaction }));
    return (
      row && stored && { id: row.id, revision: row.revision, document: upgradeDocument(stored.document) }
    );
  }

  return {
    list: (query) => listShelf(sequelize, query),

    async open(id) {
      const [row] = await sequelize.query<OpenRow>(
        `SELECT s.id, s.revision, v.saved_at, v.document, ${NEWEST_JOB} AS job,
           (SELECT json_agg(json_build_object('id', x.id, 'fileName', x.file_name,
             'byteLength', x.byte_length, 'codec', x.codec, 'channels', x.channels, 'sampleRate', x.sample_rate,
             'durationS', x.duration_s) ORDER BY x.id = s.reference_id DESC, x.added_at)
            FROM recordings x WHERE x.song_id = s.id) AS recordings, s.reference_id
         FROM songs s JOIN song_revisions v ON v.song_id = s.id AND v.revision = s.revision
         LEFT JOIN recordings r ON r.id = s.reference_id AND r.song_id = s.id
         WHERE s.id = :id AND s.removed_at IS NULL`,
        { type: QueryTypes.SELECT, replacements: { id } },
      );
      if (!row) return null;
      const { saved_at, document, recordings: found, reference_id, ...rest } = row;
      const recordings = found ?? [];
      return {
        ...rest,
        recordings,
        recording: recordings.find((r) => r.id === reference_id) ?? null,
        savedAt: saved_at.toISOString(),
        document: upgradeDocument(document),
      };
    },

    async create(id, document, summary, now, within) {
      const { title, artist } = document;
      const write = async (transaction: Transaction): Promise<void> => {
        const words = searchWords(document, []);
        await SongRow.create(
          {
            id,
            title,
            artist,
            revision: 1,
            summary,
            updatedAt: now,
            words,
            referenceId: referenceOf(document),
          },
          { transaction },
        );
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

    lock: (id, transaction) => locked({ id }, transaction),

    lockOf: (recordingId, transaction) => locked({ referenceId: recordingId }, transaction),

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

    async setTags(id, tags) {
      return sequelize.transaction(async (transaction) => {
        const song = await locked({ id }, transaction);
        if (!song) return false;
        const words = searchWords(song.document, tags);
        await SongRow.update({ tags: [...tags], words }, { where: { id }, transaction });
        return true;
      });
    },

    async wasTakenAway(id) {
      const [count] = await SongRow.update({ takenAway: col('revision') }, { where: { id } });
      return count > 0;
    },

    async summariseAnew(summariseDocument, version) {
      const rows = await sequelize.query<{
        id: string;
        tags: string[];
        reference_id: string | null;
        document: unknown;
      }>(
        `SELECT s.id, s.tags, s.reference_id, v.document FROM songs s
         JOIN song_revisions v ON v.song_id = s.id AND v.revision = s.revision
         WHERE COALESCE((s.summary->>'version')::int, 0) <> :version`,
        { type: QueryTypes.SELECT, replacements: { version } },
      );
      for (const row of rows) {
        const document = upgradeDocument(row.document);
        const [summary, words] = [summariseDocument(document), searchWords(document, row.tags)];
        await SongRow.update(
          // A document that names no recording does not take its sound away.
          { summary, words, referenceId: referenceOf(document) ?? row.reference_id },
          { where: { id: row.id } },
        );
      }
    },
  };
}
