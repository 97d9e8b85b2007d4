/** Every address of the HTTP API in one table: the server mounts them, clients call them, OpenAPI describes them. */
import * as z from 'zod';
import { FORMATS } from '@wild-needle/core/formats';
import { pdfRequestSchema } from './pdf';
import { analysisJobSchema, analysisRequestSchema, analysisSchema } from './analysis';
import {
  instrumentsSchema,
  partMixSchema,
  pieceParamsSchema,
  pieceQuerySchema,
  takeApartSchema,
} from './instruments';
import { guessBodySchema, guessesQuerySchema, guessSchema } from './guesses';
import { practiceQuerySchema, practiceRoundBodySchema, practiceRoundSchema } from './practice';
import { alignmentSchema } from './alignment';
import { broughtBackSchema, lastBackupSchema } from './backup';
import { requestBodySchema, requestSchema } from './requests';
import { workedSchema, workTimeBodySchema, workTimesQuerySchema } from './work-times';
import { healthSchema } from './health';
import { keptSettingsSchema, settingsSchema } from './settings';
import { shapeBodySchema, shapeSchema } from './shapes';
import {
  exportParamsSchema,
  removedSongSchema,
  shelfQuerySchema,
  tagsSchema,
  idParamsSchema,
  importAnswerSchema,
  importQuerySchema,
  openSongSchema,
  createAnswerSchema,
  createRequestSchema,
  saveAnswerSchema,
  saveRequestSchema,
  songSummarySchema,
} from './songs';
import { keepTakeSchema, takeBodySchema, takePieceParamsSchema, takeSchema } from './takes';
import { versionDocumentSchema, versionParamsSchema, versionSchema, versionsQuerySchema } from './versions';

export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** Express notation, `:id`. */
  readonly path: string;
  readonly summary: string;
  readonly params?: z.ZodType;
  readonly query?: z.ZodType;
  /** A schema for JSON, 'bytes' for a raw body. */
  readonly body?: z.ZodType | 'bytes';
  readonly status: number;
  /** Another status with the same answer, and when. */
  readonly orStatus?: { readonly status: number; readonly when: string };
  /** Parts are answered as RFC 9110, section 14, has it: 206 and 416. */
  readonly ranges?: true;
  /** A schema for JSON, or the media types that the answer may have; none for 204. */
  readonly answer?: z.ZodType | readonly string[];
}

export const ROUTES = {
  health: {
    method: 'get',
    path: '/api/health',
    summary: 'Whether database and queue answer',
    status: 200,
    orStatus: { status: 503, when: 'one of them does not' },
    answer: healthSchema,
  },
  describeApi: {
    method: 'get',
    path: '/api/openapi.json',
    summary: 'This description (OpenAPI 3.1)',
    status: 200,
    answer: z.record(z.string(), z.unknown()),
  },
  describeSongFile: {
    method: 'get',
    path: '/api/song-file.schema.json',
    summary: 'The song file as JSON Schema (draft 2020-12)',
    status: 200,
    answer: z.record(z.string(), z.unknown()),
  },
  listSongs: {
    method: 'get',
    path: '/api/songs',
    summary: 'The shelf: songs that have what is searched, a page of them at a time',
    query: shelfQuerySchema,
    status: 200,
    answer: z.array(songSummarySchema),
  },
  createSong: {
    method: 'post',
    path: '/api/songs',
    summary: 'Put a song on the shelf that has no recording yet',
    body: createRequestSchema,
    status: 201,
    answer: createAnswerSchema,
  },
  openSong: {
    method: 'get',
    path: '/api/songs/:id',
    summary: 'A song with its document',
    params: idParamsSchema,
    status: 200,
    answer: openSongSchema,
  },
  saveSong: {
    method: 'put',
    path: '/api/songs/:id/document',
    summary: 'Save a document made on a revision; 409 when that is no longer the newest',
    params: idParamsSchema,
    body: saveRequestSchema,
    status: 200,
    answer: saveAnswerSchema,
  },
  listVersions: {
    method: 'get',
    path: '/api/songs/:id/versions',
    summary: 'Saved versions of a song with what each changed, newest first, a page at a time',
    params: idParamsSchema,
    query: versionsQuerySchema,
    status: 200,
    answer: z.array(versionSchema),
  },
  openVersion: {
    method: 'get',
    path: '/api/songs/:id/versions/:revision',
    summary: 'A song as it was saved once',
    params: versionParamsSchema,
    status: 200,
    answer: versionDocumentSchema,
  },
  exportSong: {
    method: 'get',
    path: '/api/songs/:id/export/:format',
    summary: 'The song in a format that it can be taken away in',
    params: exportParamsSchema,
    status: 200,
    answer: [...new Set(FORMATS.map(({ mime }) => mime))],
  },
  makePdf: {
    method: 'post',
    path: '/api/pdf',
    summary: 'Pages that are drawn as SVG as one PDF, the fonts inside',
    body: pdfRequestSchema,
    status: 200,
    answer: ['application/pdf'],
  },
  deleteSong: {
    method: 'delete',
    path: '/api/songs/:id',
    summary: 'Put a song into "Removed", where it waits for 30 days',
    params: idParamsSchema,
    status: 204,
  },
  setTags: {
    method: 'put',
    path: '/api/songs/:id/tags',
    summary: 'The tags of a song',
    params: idParamsSchema,
    body: tagsSchema,
    status: 204,
  },
  wasTakenAway: {
    method: 'post',
    path: '/api/songs/:id/taken-away',
    summary: 'Note that the newest revision was printed or taken away as a file',
    params: idParamsSchema,
    status: 204,
  },
  listRemoved: {
    method: 'get',
    path: '/api/removed-songs',
    summary: 'Songs that wait to be brought back, newest first',
    status: 200,
    answer: z.array(removedSongSchema),
  },
  bringSongBack: {
    method: 'post',
    path: '/api/removed-songs/:id/bring-back',
    summary: 'Put a removed song on the shelf again',
    params: idParamsSchema,
    status: 204,
  },
  removeForGood: {
    method: 'delete',
    path: '/api/removed-songs/:id',
    summary: 'Remove a song with its recordings for good',
    params: idParamsSchema,
    status: 204,
  },
  lastBackup: {
    method: 'get',
    path: '/api/last-backup',
    summary: 'When the last backup was taken, and how large it was; null for never',
    status: 200,
    answer: lastBackupSchema,
  },
  backUp: {
    method: 'get',
    path: '/api/backup',
    summary: 'Everything in one ZIP: songs with their history, recordings, log, requests, shapes, settings',
    status: 200,
    answer: ['application/zip'],
  },
  backUpSong: {
    method: 'get',
    path: '/api/songs/:id/backup',
    summary: 'One song with its recordings in one ZIP, to hand on',
    params: idParamsSchema,
    status: 200,
    answer: ['application/zip'],
  },
  bringBack: {
    method: 'post',
    path: '/api/backup',
    summary: 'Bring a backup back: all of it or nothing, and nothing is overwritten',
    body: 'bytes',
    status: 200,
    answer: broughtBackSchema,
  },
  readSettings: {
    method: 'get',
    path: '/api/settings',
    summary: 'What the player prefers, as the browser that was used last has it; null while nothing was kept',
    status: 200,
    answer: keptSettingsSchema,
  },
  keepSettings: {
    method: 'put',
    path: '/api/settings',
    summary: 'Keep what the player prefers; a value out of its range is the usual one',
    body: settingsSchema,
    status: 204,
  },
  listRequests: {
    method: 'get',
    path: '/api/requests',
    summary: 'Who asked for what: open ones by their day, then those done in the last week',
    status: 200,
    answer: z.array(requestSchema),
  },
  keepRequest: {
    method: 'put',
    path: '/api/requests/:id',
    summary: 'Keep a request under an id of its own; one that is there is replaced',
    params: idParamsSchema,
    body: requestBodySchema,
    status: 204,
  },
  forgetRequest: {
    method: 'delete',
    path: '/api/requests/:id',
    summary: 'Forget a request',
    params: idParamsSchema,
    status: 204,
  },
  listWorkTimes: {
    method: 'get',
    path: '/api/work-times',
    summary: 'Seconds worked per song, step and day since a day',
    query: workTimesQuerySchema,
    status: 200,
    answer: z.array(workedSchema),
  },
  keepWorkTime: {
    method: 'put',
    path: '/api/work-times/:id',
    summary: 'Keep a stretch of work under an id of its own; again it changes nothing',
    params: idParamsSchema,
    body: workTimeBodySchema,
    status: 204,
  },
  listShapes: {
    method: 'get',
    path: '/api/shapes',
    summary: "The player's own shapes, oldest first",
    status: 200,
    answer: z.array(shapeSchema),
  },
  keepShape: {
    method: 'put',
    path: '/api/shapes/:id',
    summary: 'Keep a shape under its id; one that is there is replaced',
    params: idParamsSchema,
    body: shapeBodySchema,
    status: 200,
    answer: shapeSchema,
  },
  forgetShape: {
    method: 'delete',
    path: '/api/shapes/:id',
    summary: 'Forget a shape',
    params: idParamsSchema,
    status: 204,
  },
  listGuesses: {
    method: 'get',
    path: '/api/guesses',
    summary: 'What the ear has named since a day, in order of time',
    query: guessesQuerySchema,
    status: 200,
    answer: z.array(guessSchema),
  },
  keepGuess: {
    method: 'put',
    path: '/api/guesses/:id',
    summary: 'Keep what the ear has named, under an id of its own; again it changes nothing',
    params: idParamsSchema,
    body: guessBodySchema,
    status: 204,
  },
  listPracticeRounds: {
    method: 'get',
    path: '/api/practice-rounds',
    summary: 'What was practised of a song, in order of time',
    query: practiceQuerySchema,
    status: 200,
    answer: z.array(practiceRoundSchema),
  },
  keepPracticeRound: {
    method: 'put',
    path: '/api/practice-rounds/:id',
    summary: 'Keep a round that was practised, under an id of its own; again it changes nothing',
    params: idParamsSchema,
    body: practiceRoundBodySchema,
    status: 204,
  },
  listTakes: {
    method: 'get',
    path: '/api/takes',
    summary: 'Takes that were recorded and neither kept nor thrown away, oldest first',
    status: 200,
    answer: z.array(takeSchema),
  },
  beginTake: {
    method: 'put',
    path: '/api/takes/:id',
    summary: 'Begin a take under an id of its own; again it changes nothing',
    params: idParamsSchema,
    body: takeBodySchema,
    status: 204,
  },
  addTakePiece: {
    method: 'put',
    path: '/api/takes/:id/pieces/:seq',
    summary: 'A piece of a take: samples of 16 bits, little-endian, one channel; again it changes nothing',
    params: takePieceParamsSchema,
    body: 'bytes',
    status: 204,
  },
  keepTake: {
    method: 'post',
    path: '/api/takes/:id/keep',
    summary: 'Make a song of a take and queue its analysis',
    params: idParamsSchema,
    body: keepTakeSchema,
    status: 201,
    answer: importAnswerSchema,
  },
  throwTakeAway: {
    method: 'delete',
    path: '/api/takes/:id',
    summary: 'Throw a take away',
    params: idParamsSchema,
    status: 204,
  },
  importRecording: {
    method: 'post',
    path: '/api/recordings',
    summary: 'Import an audio file sent as the body; makes a song and queues its analysis',
    query: importQuerySchema,
    body: 'bytes',
    status: 201,
    orStatus: { status: 200, when: 'the same bytes are on the shelf already' },
    answer: importAnswerSchema,
  },
  recordingAudio: {
    method: 'get',
    path: '/api/recordings/:id/audio',
    summary: 'The original bytes; understands Range',
    params: idParamsSchema,
    status: 200,
    ranges: true,
    answer: ['application/octet-stream'],
  },
  removeRecording: {
    method: 'delete',
    path: '/api/recordings/:id',
    summary: 'Remove a recording that its song has beside the reference',
    params: idParamsSchema,
    status: 204,
  },
  recordingAlignment: {
    method: 'get',
    path: '/api/recordings/:id/alignment',
    summary:
      'Where the moments of the reference of its song are in another recording; worked out when it is asked for first',
    params: idParamsSchema,
    status: 200,
    answer: alignmentSchema,
  },
  recordingEnvelope: {
    method: 'get',
    path: '/api/recordings/:id/envelope',
    summary: 'The outline of the sound: one byte per 5 ms, 255 = loudest',
    params: idParamsSchema,
    status: 200,
    answer: ['application/octet-stream'],
  },
  instruments: {
    method: 'get',
    path: '/api/recordings/:id/instruments',
    summary: 'How far the band of a recording is taken apart, and by what it can be',
    params: idParamsSchema,
    status: 200,
    answer: instrumentsSchema,
  },
  takeApart: {
    method: 'post',
    path: '/api/recordings/:id/instruments',
    summary: 'Take the band apart from a place on, or go on with it from there',
    params: idParamsSchema,
    body: takeApartSchema,
    status: 202,
    answer: instrumentsSchema,
  },
  stopTakingApart: {
    method: 'post',
    path: '/api/recordings/:id/instruments/stop',
    summary: 'Stop taking the band apart; what is apart stays',
    params: idParamsSchema,
    status: 200,
    answer: instrumentsSchema,
  },
  removeParts: {
    method: 'delete',
    path: '/api/recordings/:id/instruments',
    summary: 'Remove the parts of a band; they can be made again',
    params: idParamsSchema,
    status: 200,
    answer: instrumentsSchema,
  },
  piece: {
    method: 'get',
    path: '/api/recordings/:id/instruments/:engine/:piece',
    summary:
      'Six seconds taken apart, with 80 ms more on both sides: samples of 16 bits, drums left, right, bass left, right, voice, guitars',
    params: pieceParamsSchema,
    query: pieceQuerySchema,
    status: 200,
    answer: ['application/octet-stream'],
  },
  partMix: {
    method: 'get',
    path: '/api/songs/:id/parts',
    summary: 'How loud the parts of the band are in this song',
    params: idParamsSchema,
    status: 200,
    answer: partMixSchema,
  },
  setPartMix: {
    method: 'put',
    path: '/api/songs/:id/parts',
    summary: 'Keep how loud the parts of the band are',
    params: idParamsSchema,
    body: partMixSchema,
    status: 204,
  },
  recordingAnalysis: {
    method: 'get',
    path: '/api/recordings/:id/analysis',
    summary: 'The newest finished analysis',
    params: idParamsSchema,
    status: 200,
    answer: analysisSchema,
  },
  startAnalysis: {
    method: 'post',
    path: '/api/recordings/:id/analyses',
    summary:
      'Queue an analysis, with what is known already; one that is on its way is answered instead, unless something is given',
    params: idParamsSchema,
    body: analysisRequestSchema,
    status: 202,
    answer: analysisJobSchema,
  },
  cancelAnalysis: {
    method: 'post',
    path: '/api/analyses/:id/cancel',
    summary: 'Stop an analysis; a finished one stays finished',
    params: idParamsSchema,
    status: 200,
    answer: analysisJobSchema,
  },
  analysisEvents: {
    method: 'get',
    path: '/api/analyses/events',
    summary: 'Server-sent events `job`, each an analysis job; those on their way come first',
    status: 200,
    answer: ['text/event-stream'],
  },
} as const satisfies Record<string, Route>;

export type Routes = typeof ROUTES;

type Named<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | Named<Rest>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

/** What stands in the path of a route. */
export type PathParams<Name extends keyof Routes> = Readonly<Record<Named<Routes[Name]['path']>, string>>;

/** What a route answers with, for those that answer JSON. */
export type Answer<Name extends keyof Routes> = Routes[Name] extends { readonly answer: infer A }
  ? A extends z.ZodType
    ? z.infer<A>
    : never
  : never;

/** The address of a route, with what stands in its path. */
export function addressOf<Name extends keyof Routes>(name: Name, params: PathParams<Name>): string {
  const given: Readonly<Record<string, string>> = params;
  return ROUTES[name].path.replace(/:(\w+)/g, (_, key: string) => encodeURIComponent(given[key]));
}
