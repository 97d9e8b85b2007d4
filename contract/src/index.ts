export { audioProblemCodeSchema, errorCodeSchema, errorSchema } from './errors';
export type { AudioProblemCode, ErrorBody, ErrorCode } from './errors';
export { describeSongFile, songDocumentSchema, upgradeDocument } from './document';
export { analysisJobSchema, analysisRequestSchema, analysisSchema } from './analysis';
export type { AnalysisJob, AnalysisRequest, HeardSoFar } from './analysis';
export {
  exportParamsSchema,
  idParamsSchema,
  importAnswerSchema,
  importQuerySchema,
  MAX_UPLOAD_BYTES,
  openSongSchema,
  recordingSchema,
  createAnswerSchema,
  createRequestSchema,
  saveAnswerSchema,
  saveRequestSchema,
  songSummarySchema,
  REMOVED_KEPT_DAYS,
  removedSongSchema,
  SHELF_PAGE,
  SHELF_SORTS,
  shelfQuerySchema,
  STEPS,
  TAG_LIMITS,
  tagsSchema,
} from './songs';
export type {
  ImportAnswer,
  ImportQuery,
  OpenSong,
  Recording,
  CreateAnswer,
  CreateRequest,
  SaveAnswer,
  SaveRequest,
  SongSummary,
  RemovedSong,
  ShelfQuery,
  ShelfSort,
  Step,
} from './songs';
export { DEFAULT_SETTINGS, settingsSchema } from './settings';
export type { Settings } from './settings';
export { shapeBodySchema, shapeSchema } from './shapes';
export type { Shape } from './shapes';
export { EAR_KINDS, guessBodySchema, guessesQuerySchema, guessSchema } from './guesses';
export type { EarKind, Guess } from './guesses';
export {
  keepTakeSchema,
  MAX_TAKE_PIECE_BYTES,
  TAKE_SAMPLE_BYTES,
  takeBodySchema,
  takePieceParamsSchema,
  takeSchema,
} from './takes';
export type { Take } from './takes';
export { broughtBackSchema, lastBackupSchema } from './backup';
export type { BroughtBack, LastBackup } from './backup';
export { alignmentSchema } from './alignment';
export type { RecordingAlignment } from './alignment';
export { requestBodySchema, requestSchema } from './requests';
export type { RequestBody, SongRequest } from './requests';
export { workedSchema, workTimeBodySchema, workTimesQuerySchema } from './work-times';
export type { Worked } from './work-times';
export { practiceQuerySchema, practiceRoundBodySchema, practiceRoundSchema } from './practice';
export type { HeardRound, PracticeRound } from './practice';
export { healthSchema } from './health';
export type { Health } from './health';
export { addressOf, ROUTES } from './routes';
export type { Answer, PathParams, Route, Routes } from './routes';
export { describeApi } from './openapi';
export { AUDIO_FORMATS, MAX_CHANNELS, MAX_DURATION_S, TAKEN_ENDINGS, TAKEN_FORMATS } from './audio-formats';
export type { AudioFormat, AudioFormatId } from './audio-formats';
export {
  CHANGES_TOLD,
  versionDocumentSchema,
  versionParamsSchema,
  versionSchema,
  versionsQuerySchema,
} from './versions';
export type { Version, VersionDocument } from './versions';
export { writtenSchema } from './verdicts';
export type { Verdicts, Written } from './verdicts';
export type { Judged } from './judged';
export { pdfRequestSchema } from './pdf';
export type { PdfRequest } from './pdf';
export {
  ENGINES,
  instrumentsSchema,
  keptPartMixSchema,
  partMixSchema,
  pieceParamsSchema,
  pieceQuerySchema,
  takeApartSchema,
} from './instruments';
export type { Engine, Instruments, Separation, TakeApart } from './instruments';
