/** Tables as Sequelize models. Only stores use them; rows leave the stores as plain objects. */
import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type CreationOptional,
  type Sequelize,
} from 'sequelize';
import type { PartMix, PartPowers } from '@wild-needle/core/parts';
import type { SongProgress } from '@wild-needle/core/riff';
import type {
  AnalysisJob,
  AnalysisRequest,
  Guess,
  Engine,
  HeardSoFar,
  PracticeRound,
  Shape,
  Separation,
  SongSummary,
} from '@wild-needle/contract';

/** What the shelf shows of a document, kept beside it so that the shelf reads no documents. */
export interface DocumentSummary extends Pick<
  SongSummary,
  'tuningLabel' | 'tempoBpm' | 'checkedStrums' | 'strums' | 'riffs' | 'bars'
> {
  /** Of this shape: older ones are made anew. */
  readonly version: number;
  readonly progress: Omit<SongProgress, 'bars'>;
  /** What can be practised by itself. */
  readonly items: readonly { readonly id: string; readonly name: string; readonly bpm: number }[];
}

export class SongRow extends Model<InferAttributes<SongRow>, InferCreationAttributes<SongRow>> {
  declare id: CreationOptional<string>;
  declare title: string;
  declare artist: string;
  declare revision: number;
  declare summary: DocumentSummary;
  declare updatedAt: Date;
  declare referenceId: CreationOptional<string | null>;
  declare tags: CreationOptional<string[]>;
  /** What is searched of the document, see search-words. */
  declare words: CreationOptional<string>;
  /** Revision that was last taken away as a sheet or file; 0 = never. */
  declare takenAway: CreationOptional<number>;
  /** When it was put into "Removed". */
  declare removedAt: CreationOptional<Date | null>;
  /** How loud the parts of the band are; null = as it was recorded. */
  declare partMix: CreationOptional<PartMix | null>;
}

export class SongRevisionRow extends Model<
  InferAttributes<SongRevisionRow>,
  InferCreationAttributes<SongRevisionRow>
> {
  declare songId: string;
  declare revision: number;
  declare document: unknown;
  declare savedAt: Date;
}

export class RecordingRow extends Model<
  InferAttributes<RecordingRow>,
  InferCreationAttributes<RecordingRow>
> {
  declare id: CreationOptional<string>;
  declare songId: string;
  declare fileName: string;
  declare sha256: string;
  /** bigint: the driver answers a string. */
  declare byteLength: number | string;
  declare codec: string;
  declare channels: number;
  declare sampleRate: number;
  declare durationS: number;
  declare envelope: Buffer;
  declare addedAt: CreationOptional<Date>;
}

export class AlignmentRow extends Model<
  InferAttributes<AlignmentRow>,
  InferCreationAttributes<AlignmentRow>
> {
  declare recordingId: string;
  declare referenceId: string;
  declare algorithm: string;
  declare result: unknown;
}

export class RequestRow extends Model<InferAttributes<RequestRow>, InferCreationAttributes<RequestRow>> {
  declare id: string;
  declare songId: string;
  declare initials: string;
  declare wanted: string;
  declare section: string;
  declare format: string | null;
  declare version: string | null;
  /** Day, 'YYYY-MM-DD'. */
  declare dueOn: string | null;
  declare doneAt: Date | null;
  declare createdAt: CreationOptional<Date>;
}

export class SettingsRow extends Model<InferAttributes<SettingsRow>, InferCreationAttributes<SettingsRow>> {
  /** Always 1: there is one row. */
  declare id: number;
  declare value: unknown;
}

export class WorkTimeRow extends Model<InferAttributes<WorkTimeRow>, InferCreationAttributes<WorkTimeRow>> {
  declare id: string;
  declare songId: string;
  declare step: string;
  declare at: Date;
  declare seconds: number;
}

export class RecordingChunkRow extends Model<
  InferAttributes<RecordingChunkRow>,
  InferCreationAttributes<RecordingChunkRow>
> {
  declare recordingId: string;
  declare seq: number;
  declare bytes: Buffer;
}

export class AnalysisRow extends Model<InferAttributes<AnalysisRow>, InferCreationAttributes<AnalysisRow>> {
  declare id: CreationOptional<string>;
  declare recordingId: string;
  declare status: AnalysisJob['status'];
  declare share: number;
  declare doing: string;
  declare problem: AnalysisJob['problem'];
  declare given: AnalysisRequest | null;
  declare soFar: HeardSoFar | null;
  declare kept: CreationOptional<AnalysisJob['kept']>;
  declare algorithm: string | null;
  declare result: unknown;
  declare heartbeatAt: Date | null;
  declare createdAt: CreationOptional<Date>;
}

export class SeparationRow extends Model<
  InferAttributes<SeparationRow>,
  InferCreationAttributes<SeparationRow>
> {
  declare recordingId: string;
  declare engine: Engine;
  declare status: Separation['status'];
  /** Where it begins. */
  declare fromS: number;
  declare pieces: number;
  /** That one took so far. */
  declare secondsPerPiece: number | null;
  declare problem: string | null;
  declare heartbeatAt: Date | null;
}

export class SeparationPieceRow extends Model<
  InferAttributes<SeparationPieceRow>,
  InferCreationAttributes<SeparationPieceRow>
> {
  declare recordingId: string;
  declare engine: Engine;
  declare piece: number;
  declare bytes: Buffer;
  declare powers: PartPowers | null;
}

export class ShapeRow extends Model<InferAttributes<ShapeRow>, InferCreationAttributes<ShapeRow>> {
  declare id: string;
  declare name: string;
  declare notes: Shape['notes'];
  declare createdAt: CreationOptional<Date>;
}

export class GuessRow extends Model<InferAttributes<GuessRow>, InferCreationAttributes<GuessRow>> {
  declare id: string;
  declare at: Date;
  declare songId: string;
  declare place: string;
  declare guessed: Guess['guessed'];
  declare heard: Guess['heard'];
}

export class PracticeRoundRow extends Model<
  InferAttributes<PracticeRoundRow>,
  InferCreationAttributes<PracticeRoundRow>
> {
  declare id: string;
  declare at: Date;
  declare songId: string;
  declare item: string;
  declare way: PracticeRound['way'];
  declare isWhole: boolean;
  declare percent: number;
  declare answer: PracticeRound['answer'];
  declare seconds: number;
  declare heard: PracticeRound['heard'];
}

export class TakeRow extends Model<InferAttributes<TakeRow>, InferCreationAttributes<TakeRow>> {
  declare id: string;
  declare startedAt: Date;
  declare sampleRate: number;
}

export class TakePieceRow extends Model<
  InferAttributes<TakePieceRow>,
  InferCreationAttributes<TakePieceRow>
> {
  declare takeId: string;
  declare seq: number;
  declare bytes: Buffer;
  declare cameAt: Date;
}

const uuid = { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 };

export function defineModels(sequelize: Sequelize): void {
  const options = { sequelize, timestamps: false, underscored: true };
  SongRow.init(
    {
      id: uuid,
      title: DataTypes.TEXT,
      artist: DataTypes.TEXT,
      revision: DataTypes.INTEGER,
      summary: DataTypes.JSONB,
      updatedAt: DataTypes.DATE,
      referenceId: DataTypes.UUID,
      tags: { type: DataTypes.ARRAY(DataTypes.TEXT), defaultValue: [] },
      words: { type: DataTypes.TEXT, defaultValue: '' },
      takenAway: { type: DataTypes.INTEGER, defaultValue: 0 },
      removedAt: DataTypes.DATE,
      partMix: DataTypes.JSONB,
    },
    { ...options, tableName: 'songs' },
  );
  SongRevisionRow.init(
    {
      songId: { type: DataTypes.UUID, primaryKey: true },
      revision: { type: DataTypes.INTEGER, primaryKey: true },
      document: DataTypes.JSONB,
      savedAt: DataTypes.DATE,
    },
    { ...options, tableName: 'song_revisions' },
  );
  RecordingRow.init(
    {
      id: uuid,
      songId: DataTypes.UUID,
      fileName: DataTypes.TEXT,
      sha256: DataTypes.CHAR(64),
      byteLength: DataTypes.BIGINT,
      codec: DataTypes.TEXT,
      channels: DataTypes.INTEGER,
      sampleRate: DataTypes.INTEGER,
      durationS: DataTypes.DOUBLE,
      envelope: DataTypes.BLOB,
      addedAt: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
    },
    { ...options, tableName: 'recordings' },
  );
  RecordingChunkRow.init(
    {
      recordingId: { type: DataTypes.UUID, primaryKey: true },
      seq: { type: DataTypes.INTEGER, primaryKey: true },
      bytes: DataTypes.BLOB,
    },
    { ...options, tableName: 'recording_chunks' },
  );
  AnalysisRow.init(
    {
      id: uuid,
      recordingId: DataTypes.UUID,
      status: DataTypes.TEXT,
      share: DataTypes.DOUBLE,
      doing: DataTypes.TEXT,
      problem: DataTypes.JSONB,
      given: DataTypes.JSONB,
      soFar: DataTypes.JSONB,
      kept: { type: DataTypes.JSONB, defaultValue: [] },
      algorithm: DataTypes.TEXT,
      result: DataTypes.JSONB,
      heartbeatAt: DataTypes.DATE,
      createdAt: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
    },
    { ...options, tableName: 'analyses' },
  );
  AlignmentRow.init(
    {
      recordingId: { type: DataTypes.UUID, primaryKey: true },
      referenceId: { type: DataTypes.UUID, primaryKey: true },
      algorithm: DataTypes.TEXT,
      result: DataTypes.JSONB,
    },
    { ...options, tableName: 'alignments' },
  );
  RequestRow.init(
    {
      id: uuid,
      songId: DataTypes.UUID,
      initials: DataTypes.TEXT,
      wanted: DataTypes.TEXT,
      section: DataTypes.TEXT,
      format: DataTypes.TEXT,
      version: DataTypes.TEXT,
      dueOn: DataTypes.DATEONLY,
      doneAt: DataTypes.DATE,
      createdAt: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
    },
    { ...options, tableName: 'requests' },
  );
  SettingsRow.init(
    { id: { type: DataTypes.INTEGER, primaryKey: true }, value: DataTypes.JSONB },
    { ...options, tableName: 'settings' },
  );
  WorkTimeRow.init(
    {
      id: uuid,
      songId: DataTypes.UUID,
      step: DataTypes.TEXT,
      at: DataTypes.DATE,
      seconds: DataTypes.DOUBLE,
    },
    { ...options, tableName: 'work_times' },
  );
  SeparationRow.init(
    {
      recordingId: { type: DataTypes.UUID, primaryKey: true },
      engine: { type: DataTypes.TEXT, primaryKey: true },
      status: DataTypes.TEXT,
      fromS: DataTypes.DOUBLE,
      pieces: DataTypes.INTEGER,
      secondsPerPiece: DataTypes.DOUBLE,
      problem: DataTypes.TEXT,
      heartbeatAt: DataTypes.DATE,
    },
    { ...options, tableName: 'separations' },
  );
  SeparationPieceRow.init(
    {
      recordingId: { type: DataTypes.UUID, primaryKey: true },
      engine: { type: DataTypes.TEXT, primaryKey: true },
      piece: { type: DataTypes.INTEGER, primaryKey: true },
      bytes: DataTypes.BLOB,
      powers: DataTypes.JSONB,
    },
    { ...options, tableName: 'separation_pieces' },
  );
  ShapeRow.init(
    {
      id: uuid,
      name: DataTypes.TEXT,
      notes: DataTypes.JSONB,
      createdAt: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
    },
    { ...options, tableName: 'shapes' },
  );
  GuessRow.init(
    {
      id: uuid,
      at: DataTypes.DATE,
      songId: DataTypes.UUID,
      place: DataTypes.TEXT,
      guessed: DataTypes.JSONB,
      heard: DataTypes.JSONB,
    },
    { ...options, tableName: 'guesses' },
  );
  PracticeRoundRow.init(
    {
      id: uuid,
      at: DataTypes.DATE,
      songId: DataTypes.UUID,
      item: DataTypes.TEXT,
      way: DataTypes.TEXT,
      isWhole: DataTypes.BOOLEAN,
      percent: DataTypes.INTEGER,
      answer: DataTypes.TEXT,
      seconds: DataTypes.DOUBLE,
      heard: DataTypes.JSONB,
    },
    { ...options, tableName: 'practice_rounds' },
  );
  TakeRow.init(
    { id: uuid, startedAt: DataTypes.DATE, sampleRate: DataTypes.INTEGER },
    { ...options, tableName: 'takes' },
  );
  TakePieceRow.init(
    {
      takeId: { type: DataTypes.UUID, primaryKey: true },
      seq: { type: DataTypes.INTEGER, primaryKey: true },
      bytes: DataTypes.BLOB,
      cameAt: DataTypes.DATE,
    },
    { ...options, tableName: 'take_pieces' },
  );
}
