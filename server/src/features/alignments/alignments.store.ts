/** Where the moments of a song's reference are in its other recordings: worked out once, then kept. */
import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import pLimit from 'p-limit';
import { QueryTypes, type Sequelize } from 'sequelize';
import { alignmentSchema, type RecordingAlignment } from '@wild-needle/contract';
import { ALIGNMENT_ALGORITHM } from '@wild-needle/core/alignment';
import { AlignmentRow } from '../../db/models';
import { prepareSpool } from '../../audio/spool';

export interface AlignmentsStore {
  /** Null when the recording has no song with a reference. Rejects with an AudioProblem where one of both can't be read. */
  of(recordingId: string): Promise<RecordingAlignment | null>;
}

export interface AlignmentSteps {
  /** Writes the original bytes of a recording to a file. */
  readonly writeTo: (recordingId: string, path: string) => Promise<void>;
  /** Works out an alignment away from this thread. */
  readonly align: (referencePath: string, otherPath: string) => Promise<RecordingAlignment>;
}

export function createAlignmentsStore(
  sequelize: Sequelize,
  { writeTo, align }: AlignmentSteps,
  spoolDir: string,
): AlignmentsStore {
  /** It takes a core for seconds: others wait for their turn. */
  const oneAfterTheOther = pLimit(1);

  async function known(recordingId: string, referenceId: string): Promise<RecordingAlignment | null> {
    const row = await AlignmentRow.findOne({
      where: { recordingId, referenceId, algorithm: ALIGNMENT_ALGORITHM },
    });
    return row && alignmentSchema.parse(row.result);
  }

  async function workOut(recordingId: string, referenceId: string): Promise<RecordingAlignment> {
    const before = await known(recordingId, referenceId);
    if (before) return before;
    await prepareSpool(spoolDir);
    const paths = [referenceId, recordingId].map((id) => ({ id, path: join(spoolDir, randomUUID()) }));
    try {
      for (const { id, path } of paths) await writeTo(id, path);
      const result = await align(paths[0].path, paths[1].path);
      await AlignmentRow.upsert({ recordingId, referenceId, algorithm: ALIGNMENT_ALGORITHM, result });
      return result;
    } finally {
      await Promise.all(paths.map(({ path }) => rm(path, { force: true })));
    }
  }

  return {
    async of(recordingId) {
      const [row] = await sequelize.query<{ reference_id: string | null }>(
        'SELECT s.reference_id FROM songs s JOIN recordings r ON r.song_id = s.id WHERE r.id = :recordingId',
        { type: QueryTypes.SELECT, replacements: { recordingId } },
      );
      const referenceId = row?.reference_id ?? null;
      if (referenceId === null) return null;
      return (
        (await known(recordingId, referenceId)) ?? oneAfterTheOther(() => workOut(recordingId, referenceId))
      );
    },
  };
}
