/** The server over HTTP; every answer is parsed with its schema. Failures become an {@link ApiError} with a code. */
import { HttpClient, HttpErrorResponse, HttpEventType } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { catchError, filter, map, Observable, throwError } from 'rxjs';
import * as z from 'zod';
import {
  analysisJobSchema,
  analysisSchema,
  errorSchema,
  importAnswerSchema,
  openSongSchema,
  saveAnswerSchema,
  shapeSchema,
  songSummarySchema,
  type AnalysisJob,
  type ErrorCode,
  type ImportAnswer,
  type OpenSong,
  type SaveAnswer,
  type SaveRequest,
  type Shape,
  type SongSummary,
} from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';

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
    return throwError(() => new ApiError('unreachable', 'Wild Needle does not answer. Is it still running?'));
  }
  return throwError(() => error);
}

@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  listSongs(): Observable<SongSummary[]> {
    return this.http.get<unknown>('/api/songs').pipe(
      map((v) => z.array(songSummarySchema).parse(v)),
      catchError(toApiError),
    );
  }

  openSong(id: string): Observable<OpenSong> {
    return this.http.get<unknown>(`/api/songs/${id}`).pipe(
      map((v) => openSongSchema.parse(v)),
      catchError(toApiError),
    );
  }

  saveSong(id: string, request: SaveRequest): Observable<SaveAnswer> {
    return this.http.put<unknown>(`/api/songs/${id}/document`, request).pipe(
      map((v) => saveAnswerSchema.parse(v)),
      catchError(toApiError),
    );
  }

  deleteSong(id: string): Observable<unknown> {
    return this.http.delete<unknown>(`/api/songs/${id}`).pipe(catchError(toApiError));
  }

  importRecording(file: File): Observable<ImportEvent> {
    return this.http
      .post<unknown>('/api/recordings', file, {
        params: { fileName: file.name },
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
            ? { kind: 'done', answer: importAnswerSchema.parse(event.body) }
            : null;
        }),
        filter((event) => event !== null),
        catchError(toApiError),
      );
  }

  envelope(recordingId: string): Observable<Uint8Array> {
    return this.http.get(`/api/recordings/${recordingId}/envelope`, { responseType: 'arraybuffer' }).pipe(
      map((bytes) => new Uint8Array(bytes)),
      catchError(toApiError),
    );
  }

  audio(recordingId: string): Observable<ArrayBuffer> {
    return this.http
      .get(`/api/recordings/${recordingId}/audio`, { responseType: 'arraybuffer' })
      .pipe(catchError(toApiError));
  }

  analysis(recordingId: string): Observable<Analysis> {
    return this.http.get<unknown>(`/api/recordings/${recordingId}/analysis`).pipe(
      map((v) => analysisSchema.parse(v)),
      catchError(toApiError),
    );
  }

  startAnalysis(recordingId: string): Observable<AnalysisJob> {
    return this.http.post<unknown>(`/api/recordings/${recordingId}/analyses`, null).pipe(
      map((v) => analysisJobSchema.parse(v)),
      catchError(toApiError),
    );
  }

  cancelAnalysis(id: string): Observable<AnalysisJob> {
    return this.http.post<unknown>(`/api/analyses/${id}/cancel`, null).pipe(
      map((v) => analysisJobSchema.parse(v)),
      catchError(toApiError),
    );
  }

  /** Every change of an analysis; reconnects by itself as EventSource does. */
  analysisEvents(): Observable<AnalysisJob> {
    return new Observable((subscriber) => {
      const source = new EventSource('/api/analyses/events');
      source.addEventListener('job', (event) => {
        const job = analysisJobSchema.safeParse(JSON.parse(event.data as string));
        if (job.success) subscriber.next(job.data);
      });
      return () => source.close();
    });
  }

  listShapes(): Observable<Shape[]> {
    return this.http.get<unknown>('/api/shapes').pipe(
      map((v) => z.array(shapeSchema).parse(v)),
      catchError(toApiError),
    );
  }

  keepShape({ id, ...body }: Shape): Observable<Shape> {
    return this.http.put<unknown>(`/api/shapes/${id}`, body).pipe(
      map((v) => shapeSchema.parse(v)),
      catchError(toApiError),
    );
  }

  forgetShape(id: string): Observable<void> {
    return this.http.delete<void>(`/api/shapes/${id}`).pipe(catchError(toApiError));
  }
}
