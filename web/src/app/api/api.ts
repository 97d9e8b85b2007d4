/**
 * The server over HTTP. Addresses, methods and answers come from the contract's table of routes; every answer is parsed with its
 * schema. Failures become an {@link ApiError} with a code.
 */
import { HttpClient, HttpErrorResponse, HttpEventType } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { catchError, filter, map, Observable, throwError } from 'rxjs';
import { ZodError, type z } from 'zod';
import {
  addressOf,
  analysisJobSchema,
  errorSchema,
  ROUTES,
  type AnalysisJob,
  type Answer,
  type BroughtBack,
  type CreateAnswer,
  type LastBackup,
  type CreateRequest,
  type ErrorCode,
  type Guess,
  type ImportAnswer,
  type Instruments,
  type OpenSong,
  type PathParams,
  type PdfRequest,
  type PracticeRound,
  type RecordingAlignment,
  type RemovedSong,
  type ShelfQuery,
  type RequestBody,
  type Settings,
  type SongRequest,
  type Worked,
  type Routes,
  type SaveAnswer,
  type SaveRequest,
  type Shape,
  type Take,
  type TakeApart,
  type SongSummary,
  type Version,
  type VersionDocument,
} from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';
import type { PartMix } from '@wild-needle/core/parts';

export class ApiError extends Error {
  constructor(
    readonly code: ErrorCode | 'unreachable',
    message: string,
  ) {
    super(message);
    this.name = 'ApiError';
  }
}

export type ImportEvent =
  | { readonly kind: 'sent'; readonly share: number }
  | { readonly kind: 'done'; readonly answer: ImportAnswer };

function toApiError(error: unknown): Observable<never> {
  if (error instanceof HttpErrorResponse) {
    const body = errorSchema.safeParse(error.error);
    if (body.success) return throwError(() => new ApiError(body.data.code, body.data.message));
    // Whatever stands between says no, and will say it again.
    if (error.status >= 400 && error.status < 500) {
      return throwError(() => new ApiError('invalid-request', `It was refused (${error.status}).`));
    }
    return throwError(() => new ApiError('unreachable', 'Wild Needle does not answer. Is it still running?'));
  }
  if (error instanceof ZodError) {
    return throwError(
      () => new ApiError('internal', 'The answer is of another version. Load the page again.'),
    );
  }
  return throwError(() => error);
}

/** Routes that answer JSON, that answer bytes, and that answer nothing. */
type Answering<Kind> = {
  [Name in keyof Routes]: Routes[Name] extends { readonly answer: Kind } ? Name : never;
}[keyof Routes];
type JsonRoute = Answering<z.ZodType>;
type BytesRoute = Answering<readonly ['application/octet-stream']>;
type SilentRoute = Exclude<keyof Routes, Answering<z.ZodType | readonly string[]>>;

@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  listSongs({ search, sort, offset }: Partial<ShelfQuery> = {}): Observable<SongSummary[]> {
    const given = { search, sort, offset: offset === undefined ? undefined : String(offset) };
    const query = Object.entries(given).flatMap(([key, value]) => (value ? [[key, value]] : []));
    return this.ask('listSongs', {}, null, Object.fromEntries(query) as Record<string, string>);
  }

  setTags(id: string, tags: readonly string[]): Observable<void> {
    return this.tell('setTags', { id }, { tags });
  }

  /** The newest revision was printed or taken away as a file. */
  wasTakenAway(id: string): Observable<void> {
    return this.tell('wasTakenAway', { id });
  }

  removedSongs(): Observable<RemovedSong[]> {
    return this.ask('listRemoved', {});
  }

  bringSongBack(id: string): Observable<void> {
    return this.tell('bringSongBack', { id });
  }

  removeForGood(id: string): Observable<void> {
    return this.tell('removeForGood', { id });
  }

  settings(): Observable<Settings | null> {
    return this.ask('readSettings', {});
  }

  keepSettings(settings: Settings): Observable<void> {
    return this.tell('keepSettings', {}, settings);
  }

  requests(): Observable<SongRequest[]> {
    return this.ask('listRequests', {});
  }

  keepRequest(id: string, body: RequestBody): Observable<void> {
    return this.tell('keepRequest', { id }, body);
  }

  forgetRequest(id: string): Observable<void> {
    return this.tell('forgetRequest', { id });
  }

  workedSince(time: Date): Observable<Worked[]> {
    return this.ask('listWorkTimes', {}, null, { since: time.toISOString() });
  }

  keepWorkTime(id: string, body: Omit<Worked, 'title' | 'day'> & { readonly at: string }): Observable<void> {
    return this.tell('keepWorkTime', { id }, body);
  }

  lastBackup(): Observable<LastBackup> {
    return this.ask('lastBackup', {});
  }

  bringBack(file: File): Observable<BroughtBack> {
    const { method, answer } = ROUTES.bringBack;
    return this.http
      .request<unknown>(method, addressOf('bringBack', {}), {
        body: file,
        headers: { 'Content-Type': 'application/octet-stream' },
      })
      .pipe(
        map((value) => answer.parse(value)),
        catchError(toApiError),
      );
  }

  alignment(recordingId: string): Observable<RecordingAlignment> {
    return this.ask('recordingAlignment', { id: recordingId });
  }

  removeRecording(id: string): Observable<void> {
    return this.tell('removeRecording', { id });
  }

  openSong(id: string): Observable<OpenSong> {
    return this.ask('openSong', { id });
  }

  createSong(request: CreateRequest): Observable<CreateAnswer> {
    return this.ask('createSong', {}, request);
  }

  saveSong(id: string, request: SaveRequest): Observable<SaveAnswer> {
    return this.ask('saveSong', { id }, request);
  }

  /** Pages as one file. */
  makePdf(request: PdfRequest): Observable<ArrayBuffer> {
    const { method } = ROUTES.makePdf;
    return this.http
      .request(method, addressOf('makePdf', {}), { body: request, responseType: 'arraybuffer' })
      .pipe(catchError(toApiError));
  }

  deleteSong(id: string): Observable<void> {
    return this.tell('deleteSong', { id });
  }

  /** A new song, or another recording of the song that is named. */
  importRecording(file: File, songId: string | null = null): Observable<ImportEvent> {
    const { method, answer } = ROUTES.importRecording;
    return this.http
      .request<unknown>(method, addressOf('importRecording', {}), {
        body: file,
        params: { fileName: file.name, ...(songId !== null && { songId }) },
        headers: { 'Content-Type': 'application/octet-stream' },
        reportProgress: true,
        observe: 'events',
      })
      .pipe(
        map((event): ImportEvent | null => {
          if (event.type === HttpEventType.UploadProgress) {
            return { kind: 'sent', share: event.total ? event.loaded / event.total : 0 };
          }
          return event.type === HttpEventType.Response
            ? { kind: 'done', answer: answer.parse(event.body) }
            : null;
        }),
        filter((event) => event !== null),
        catchError(toApiError),
      );
  }

  envelope(recordingId: string): Observable<Uint8Array> {
    return this.bytes('recordingEnvelope', { id: recordingId }).pipe(map((bytes) => new Uint8Array(bytes)));
  }

  audio(recordingId: string): Observable<ArrayBuffer> {
    return this.bytes('recordingAudio', { id: recordingId });
  }

  analysis(recordingId: string): Observable<Analysis> {
    return this.ask('recordingAnalysis', { id: recordingId });
  }

  instruments(recordingId: string): Observable<Instruments> {
    return this.ask('instruments', { id: recordingId });
  }

  takeApart(recordingId: string, wish: TakeApart): Observable<Instruments> {
    return this.ask('takeApart', { id: recordingId }, wish);
  }

  stopTakingApart(recordingId: string): Observable<Instruments> {
    return this.ask('stopTakingApart', { id: recordingId });
  }

  removeParts(recordingId: string): Observable<Instruments> {
    return this.ask('removeParts', { id: recordingId });
  }

  partMix(songId: string): Observable<PartMix> {
    return this.ask('partMix', { id: songId });
  }

  keepPartMix(songId: string, mix: PartMix): Observable<void> {
    return this.tell('setPartMix', { id: songId }, mix);
  }

  startAnalysis(recordingId: string): Observable<AnalysisJob> {
    return this.ask('startAnalysis', { id: recordingId });
  }

  cancelAnalysis(id: string): Observable<AnalysisJob> {
    return this.ask('cancelAnalysis', { id });
  }

  /** Every change of an analysis; reconnects by itself as EventSource does. */
  analysisEvents(): Observable<AnalysisJob> {
    return new Observable((subscriber) => {
      const source = new EventSource(addressOf('analysisEvents', {}));
      source.addEventListener('job', (event) => {
        const job = analysisJobSchema.safeParse(JSON.parse(event.data as string));
        if (job.success) subscriber.next(job.data);
      });
      return () => source.close();
    });
  }

  listShapes(): Observable<Shape[]> {
    return this.ask('listShapes', {});
  }

  keepShape({ id, ...body }: Shape): Observable<Shape> {
    return this.ask('keepShape', { id }, body);
  }

  forgetShape(id: string): Observable<void> {
    return this.tell('forgetShape', { id });
  }

  versions(id: string, before: number | null): Observable<Version[]> {
    return this.ask('listVersions', { id }, null, before === null ? {} : { before: String(before) });
  }

  version(id: string, revision: number): Observable<VersionDocument> {
    return this.ask('openVersion', { id, revision: String(revision) });
  }

  guessesSince(time: Date): Observable<Guess[]> {
    return this.ask('listGuesses', {}, null, { since: time.toISOString() });
  }

  keepGuess({ id, ...body }: Guess): Observable<void> {
    return this.tell('keepGuess', { id }, body);
  }

  practiceRounds(songId: string): Observable<PracticeRound[]> {
    return this.ask('listPracticeRounds', {}, null, { songId });
  }

  keepPracticeRound({ id, ...body }: PracticeRound): Observable<void> {
    return this.tell('keepPracticeRound', { id }, body);
  }

  takes(): Observable<Take[]> {
    return this.ask('listTakes', {});
  }

  beginTake(id: string, sampleRate: number): Observable<void> {
    return this.tell('beginTake', { id }, { sampleRate });
  }

  addTakePiece(id: string, seq: number, samples: Int16Array<ArrayBuffer>): Observable<void> {
    const { method } = ROUTES.addTakePiece;
    return this.http
      .request(method, addressOf('addTakePiece', { id, seq: String(seq) }), {
        body: samples.buffer,
        headers: { 'Content-Type': 'application/octet-stream' },
      })
      .pipe(
        map(() => undefined),
        catchError(toApiError),
      );
  }

  /** A new song, or another recording of the song that is named. */
  keepTake(id: string, title: string, songId: string | null = null): Observable<ImportAnswer> {
    return this.ask('keepTake', { id }, { title, ...(songId !== null && { songId }) });
  }

  throwTakeAway(id: string): Observable<void> {
    return this.tell('throwTakeAway', { id });
  }

  private ask<Name extends JsonRoute>(
    name: Name,
    params: PathParams<Name>,
    body: unknown = null,
    query: Readonly<Record<string, string>> = {},
  ): Observable<Answer<Name>> {
    const { method, answer } = ROUTES[name];
    return this.http.request<unknown>(method, addressOf(name, params), { body, params: query }).pipe(
      // The table gives each name the schema of its own answer; the compiler can't follow that through the union.
      map((value) => answer.parse(value) as Answer<Name>),
      catchError(toApiError),
    );
  }

  private tell<Name extends SilentRoute>(
    name: Name,
    params: PathParams<Name>,
    body: unknown = null,
  ): Observable<void> {
    return this.http.request(ROUTES[name].method, addressOf(name, params), { body }).pipe(
      map(() => undefined),
      catchError(toApiError),
    );
  }

  private bytes<Name extends BytesRoute>(name: Name, params: PathParams<Name>): Observable<ArrayBuffer> {
    return this.http
      .get(addressOf(name, params), { responseType: 'arraybuffer' })
      .pipe(catchError(toApiError));
  }
}
