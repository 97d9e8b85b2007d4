/** The shelf as one question to the database: what it shows of each song, searched, sorted, a page at a time. */
import { QueryTypes, type Sequelize } from 'sequelize';
import type { AnalysisJob, ShelfQuery, ShelfSort, SongSummary } from '@wild-needle/contract';
import type { DocumentSummary } from '../../db/models';
import { patternsOf } from './search-words';

/** Newest analysis of the recording `r`, as one JSON value. */
export const NEWEST_JOB = `(
  SELECT json_build_object('id', a.id, 'recordingId', a.recording_id, 'songId', r.song_id, 'status', a.status,
    'share', a.share, 'doing', a.doing,
    'soFar', a.so_far, 'problem', a.problem, 'kept', a.kept)
  FROM analyses a WHERE a.recording_id = r.id ORDER BY a.created_at DESC LIMIT 1)`;

/** The first day that somebody waits for the song. */
const DUE_ON = `(SELECT min(q.due_on) FROM requests q WHERE q.song_id = s.id AND q.done_at IS NULL)`;

const ORDER: Record<ShelfSort, string> = {
  worked: 's.updated_at DESC, s.id',
  due: 'due_on ASC NULLS LAST, s.updated_at DESC, s.id',
  title: 'lower(s.title), s.id',
};

interface ShelfRow {
  id: string;
  title: string;
  artist: string;
  updated_at: Date;
  revision: number;
  taken_away: number;
  summary: DocumentSummary;
  tags: string[];
  duration_s: number | null;
  recordings: SongSummary['recordings'] | null;
  best: Readonly<Record<string, number>> | null;
  due_on: string | null;
  job: AnalysisJob | null;
}

/** Songs that are not removed. */
export async function listShelf(
  sequelize: Sequelize,
  { search = '', sort, offset, limit }: ShelfQuery,
): Promise<SongSummary[]> {
  const patterns = patternsOf(search);
  const found = patterns.map((_, i) => `AND s.words LIKE :p${i}`).join(' ');
  const rows = await sequelize.query<ShelfRow>(
    `SELECT s.id, s.title, s.artist, s.updated_at, s.revision, s.taken_away, s.summary, s.tags, r.duration_s,
       ${DUE_ON}::text AS due_on, ${NEWEST_JOB} AS job,
       (SELECT json_agg(json_build_object('id', x.id, 'fileName', x.file_name, 'durationS', x.duration_s)
          ORDER BY x.id = s.reference_id DESC, x.added_at)
        FROM recordings x WHERE x.song_id = s.id) AS recordings,
       (SELECT json_object_agg(b.item, b.percent) FROM (
          SELECT item, max(percent) AS percent FROM practice_rounds
          WHERE song_id = s.id AND is_whole AND answer = 'clean' GROUP BY item) b) AS best
     FROM songs s LEFT JOIN recordings r ON r.id = s.reference_id AND r.song_id = s.id
     WHERE s.removed_at IS NULL ${found}
     ORDER BY ${ORDER[sort]} LIMIT :limit OFFSET :offset`,
    {
      type: QueryTypes.SELECT,
      replacements: { limit, offset, ...Object.fromEntries(patterns.map((p, i) => [`p${i}`, p])) },
    },
  );
  return rows.map(toSummary);
}

function toSummary({ summary, best, ...row }: ShelfRow): SongSummary {
  const { progress, items, version: _version, ...shown } = summary;
  const practised = items.map((item) => ({ ...item, share: Math.min(1, (best?.[item.id] ?? 0) / 100) }));
  const share = practised.reduce((sum, item) => sum + item.share, 0) / Math.max(1, practised.length);
  const slowest = practised.reduce<(typeof practised)[number] | null>(
    (least, item) => (item.share < (least?.share ?? 1) ? item : least),
    null,
  );
  const { tuning, sections, riffs, check, namedSections, unwritten, toSettle } = progress;
  return {
    ...shown,
    id: row.id,
    title: row.title,
    artist: row.artist,
    updatedAt: row.updated_at.toISOString(),
    revision: row.revision,
    durationS: row.duration_s,
    tags: row.tags,
    steps: {
      ...{ tuning, sections, riffs, check, practice: share },
      // Half where something was changed since.
      sheet: row.taken_away === 0 ? 0 : row.taken_away >= row.revision ? 1 : 0.5,
    },
    namedSections,
    unwritten,
    toSettle,
    slowest: slowest && {
      name: slowest.name,
      bpm: Math.round(slowest.share * slowest.bpm),
      ofBpm: Math.round(slowest.bpm),
    },
    recordings: row.recordings ?? [],
    dueOn: row.due_on,
    job: row.job,
  };
}
