/** Takes piece by piece: a row each, so that a crash loses no more than the piece that was on its way. */
import { col, fn, type Sequelize } from 'sequelize';
import { MAX_DURATION_S, TAKE_SAMPLE_BYTES, type Take } from '@wild-needle/contract';
import { TakePieceRow, TakeRow } from '../../db/models';

/** Without a piece for so long nobody records any more. */
const SILENT_MS = 5000;

export interface TakeSound {
  readonly sampleRate: number;
  readonly startedAt: Date;
  readonly byteLength: number;
}

export interface TakesStore {
  /** Not yet kept nor thrown away, oldest first; those without a piece are left out. */
  list(now: Date): Promise<Take[]>;
  /** One that is there already stays as it is: it is asked for again after a lost answer. */
  begin(id: string, sampleRate: number, now: Date): Promise<void>;
  /** Answers false where there is no such take; 'full' when it has lasted as long as a recording may. */
  add(id: string, seq: number, bytes: Buffer, now: Date): Promise<boolean | 'full'>;
  soundOf(id: string): Promise<TakeSound | null>;
  /** Its pieces in order. */
  read(id: string): AsyncGenerator<Buffer>;
  remove(id: string): Promise<boolean>;
}

export function createTakesStore(sequelize: Sequelize): TakesStore {
  const bytesOf = async (id: string): Promise<{ readonly bytes: number; readonly cameAt: Date | null }> => {
    const row = await TakePieceRow.findOne({
      where: { takeId: id },
      attributes: [
        [fn('coalesce', fn('sum', fn('length', col('bytes'))), 0), 'total'],
        [fn('max', col('came_at')), 'cameAt'],
      ],
      raw: true,
    });
    const { total, cameAt } = (row ?? {}) as { total?: string; cameAt?: Date | null };
    return { bytes: Number(total ?? 0), cameAt: cameAt ?? null };
  };
  return {
    async list(now) {
      const rows = await TakeRow.findAll({ order: ['startedAt'] });
      const takes = await Promise.all(
        rows.map(async ({ id, startedAt, sampleRate }): Promise<Take> => {
          const { bytes, cameAt } = await bytesOf(id);
          return {
            id,
            startedAt: startedAt.toISOString(),
            seconds: bytes / TAKE_SAMPLE_BYTES / sampleRate,
            isRecording: cameAt !== null && now.getTime() - new Date(cameAt).getTime() < SILENT_MS,
          };
        }),
      );
      return takes.filter((take) => take.seconds > 0);
    },

    async begin(id, sampleRate, now) {
      await TakeRow.bulkCreate([{ id, sampleRate, startedAt: now }], { ignoreDuplicates: true });
    },

    async add(id, seq, bytes, now) {
      return sequelize.transaction(async (transaction) => {
        const take = await TakeRow.findByPk(id, { transaction });
        if (!take) return false;
        // Pieces are about as long as each other: their number tells the length without reading them.
        if (seq * bytes.length > MAX_DURATION_S * take.sampleRate * TAKE_SAMPLE_BYTES) return 'full';
        await TakePieceRow.bulkCreate([{ takeId: id, seq, bytes, cameAt: now }], {
          transaction,
          ignoreDuplicates: true,
        });
        return true;
      });
    },

    async soundOf(id) {
      const take = await TakeRow.findByPk(id);
      if (!take) return null;
      const { bytes } = await bytesOf(id);
      return { sampleRate: take.sampleRate, startedAt: take.startedAt, byteLength: bytes };
    },

    async *read(id) {
      const rows = await TakePieceRow.findAll({
        where: { takeId: id },
        attributes: ['seq'],
        order: ['seq'],
        raw: true,
      });
      for (const { seq } of rows) {
        const piece = await TakePieceRow.findOne({ where: { takeId: id, seq } });
        if (piece) yield piece.bytes;
      }
    },

    async remove(id) {
      return (await TakeRow.destroy({ where: { id } })) > 0;
    },
  };
}
