/** Bands that are taken apart: what is queued, running, stored; and how loud the parts are in each song. */
import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import {
  ENGINES,
  keptPartMixSchema,
  type Engine,
  type Instruments,
  type Separation,
  type TakeApart,
} from '@wild-needle/contract';
import {
  missingParts,
  pieceCount,
  type LeaksDb,
  type PartMix,
  type PartPowers,
} from '@wild-needle/core/parts';
import { RecordingRow, SeparationPieceRow, SeparationRow, SongRow } from '../../db/models';
import { addSeparateJob, type SeparationTask } from '../../jobs/queue';
import { STALE_AFTER_S } from '../../jobs/run-analysis';
import type { SeparationLedger } from '../../jobs/run-separation';

/** What an engine can do on this computer. */
export interface EngineFacts {
  readonly isHere: boolean;
  readonly problem: string | null;
  /** Seconds of work for a second of sound. */
  readonly pace: number;
  /** What is quieter than this is no part of the band. */
  readonly leaksDb: LeaksDb;
}

export interface InstrumentsStore extends SeparationLedger {
  /** Null where there is no such recording. */
  of(recordingId: string): Promise<Instruments | null>;
  /** Queues one, or has one that runs go on from another place; false where there is no such recording. */
  takeApart(recordingId: string, wish: TakeApart): Promise<boolean>;
  stop(recordingId: string): Promise<void>;
  remove(recordingId: string): Promise<void>;
  /** As it is stored; null where it is not apart. */
  piece(task: SeparationTask, piece: number): Promise<Buffer | null>;
  mixOf(songId: string): Promise<PartMix | null>;
  setMix(songId: string, mix: PartMix): Promise<boolean>;
  /** Puts back what a crashed worker left; answers how many. */
  requeueStale(): Promise<number>;
}

interface Ready {
  readonly ready: number[];
  readonly byteLength: number;
  /** Of the pieces that know it. */
  readonly powers: readonly PartPowers[];
}

/** How much the newest piece counts in the pace: the computer may get busy, or free. */
const NEWEST = 0.3;

export function createInstrumentsStore(
  sequelize: Sequelize,
  engineFacts: (engine: Engine) => EngineFacts,
): InstrumentsStore {
  const UNDERWAY: readonly Separation['status'][] = ['queued', 'running'];

  async function readyOf(task: SeparationTask): Promise<Ready> {
    const rows = await sequelize.query<{ piece: number; bytes: number; powers: PartPowers | null }>(
      `SELECT piece, octet_length(bytes) AS bytes, powers FROM separation_pieces
       WHERE recording_id = :recordingId AND engine = :engine ORDER BY piece`,
      { type: QueryTypes.SELECT, replacements: { ...task } },
    );
    return {
      ready: rows.map((r) => r.piece),
      byteLength: rows.reduce((sum, r) => sum + r.bytes, 0),
      powers: rows.flatMap((r) => r.powers ?? []),
    };
  }

  async function describe(row: SeparationRow): Promise<Separation> {
    const { recordingId, engine, status, pieces, secondsPerPiece, problem } = row;
    const { ready, byteLength, powers } = await readyOf({ recordingId, engine });
    const secondsLeft = secondsPerPiece === null ? null : secondsPerPiece * (pieces - ready.length);
    const isAllKnown = status === 'done' && powers.length === pieces;
    const missing = isAllKnown ? missingParts(powers, engineFacts(engine).leaksDb) : [];
    return { engine, status, ready, pieces, secondsLeft, byteLength, missing, problem };
  }

  /** Changes one that is in one of the states; false when it is not. */
  async function change(
    { recordingId, engine }: SeparationTask,
    from: readonly Separation['status'][],
    values: Partial<SeparationRow>,
    transaction?: Transaction,
  ): Promise<boolean> {
    const where = { recordingId, engine, status: [...from] };
    const [count] = await SeparationRow.update(values, { where, transaction });
    return count > 0;
  }

  return {
    async of(recordingId) {
      const recording = await RecordingRow.findByPk(recordingId, { attributes: ['durationS'] });
      if (!recording) return null;
      const rows = await SeparationRow.findAll({ where: { recordingId } });
      rows.sort((a, b) => ENGINES.indexOf(a.engine) - ENGINES.indexOf(b.engine));
      return {
        engines: ENGINES.map((engine) => {
          const { isHere, problem, pace } = engineFacts(engine);
          return { engine, isHere, problem, seconds: Math.ceil(pace * recording.durationS) };
        }),
        separations: await Promise.all(rows.map(describe)),
      };
    },

    async takeApart(recordingId, { engine, fromS }) {
      const task = { recordingId, engine };
      const recording = await RecordingRow.findByPk(recordingId, { attributes: ['durationS'] });
      if (!recording) return false;
      await sequelize.transaction(async (transaction) => {
        // Another place is gone to by the one that is on its way.
        if (await change(task, UNDERWAY, { fromS }, transaction)) return;
        await SeparationRow.upsert(
          {
            ...task,
            status: 'queued',
            fromS,
            pieces: pieceCount(recording.durationS),
            secondsPerPiece: null,
            problem: null,
            heartbeatAt: null,
          },
          { transaction, returning: false },
        );
        await addSeparateJob(sequelize, task, transaction);
      });
      return true;
    },

    async stop(recordingId) {
      await SeparationRow.update({ status: 'stopped' }, { where: { recordingId, status: [...UNDERWAY] } });
    },

    async remove(recordingId) {
      await SeparationRow.destroy({ where: { recordingId } });
    },

    async piece({ recordingId, engine }, piece) {
      const row = await SeparationPieceRow.findOne({ where: { recordingId, engine, piece } });
      return row?.bytes ?? null;
    },

    async mixOf(songId) {
      const row = await SongRow.findByPk(songId, { attributes: ['partMix'] });
      return row && keptPartMixSchema.parse(row.partMix);
    },

    async setMix(songId, partMix) {
      const [count] = await SongRow.update({ partMix }, { where: { id: songId } });
      return count > 0;
    },

    async requeueStale() {
      return sequelize.transaction(async (transaction) => {
        const stale = await sequelize.query<SeparationTask>(
          `UPDATE separations SET status = 'queued'
           WHERE status = 'running' AND heartbeat_at < now() - make_interval(secs => :seconds)
           RETURNING recording_id AS "recordingId", engine`,
          { type: QueryTypes.SELECT, replacements: { seconds: STALE_AFTER_S }, transaction },
        );
        for (const task of stale) await addSeparateJob(sequelize, task, transaction);
        return stale.length;
      });
    },

    claim(task) {
      return change(task, UNDERWAY, { status: 'running', heartbeatAt: new Date() });
    },

    async wanted(task) {
      const row = await SeparationRow.findOne({ where: { ...task, status: 'running' } });
      return row && { fromS: row.fromS, pieces: row.pieces, ready: (await readyOf(task)).ready };
    },

    beat(task) {
      return change(task, ['running'], { heartbeatAt: new Date() });
    },

    async addPiece(task, piece, seconds) {
      await sequelize.transaction(async (transaction) => {
        const row = await SeparationRow.findOne({
          where: { ...task, status: 'running' },
          lock: transaction.LOCK.UPDATE,
          transaction,
        });
        // Removed meanwhile: a piece without its separation would stay for ever.
        if (!row) return;
        await SeparationPieceRow.upsert({ ...task, ...piece }, { transaction, returning: false });
        const before = row.secondsPerPiece ?? seconds;
        const secondsPerPiece = before + NEWEST * (seconds - before);
        await row.update({ secondsPerPiece, heartbeatAt: new Date() }, { transaction });
      });
    },

    async finish(task) {
      await sequelize.transaction(async (transaction) => {
        const isDone = await change(task, ['running'], { status: 'done', problem: null }, transaction);
        if (!isDone || task.engine === 'rough') return;
        // Stored once: what is rough has been surpassed.
        const { recordingId } = task;
        await SeparationRow.destroy({
          where: { recordingId, engine: { [Op.ne]: task.engine } },
          transaction,
        });
      });
    },

    async fail(task, problem) {
      await change(task, ['running', 'queued'], { status: 'failed', problem });
    },
  };
}
