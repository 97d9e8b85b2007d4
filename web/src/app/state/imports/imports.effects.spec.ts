import { of, Subject, throwError, type Observable } from 'rxjs';
import type { Action } from '@ngrx/store';
import { describe, expect, it } from 'vitest';
import { MAX_UPLOAD_BYTES } from '@wild-needle/contract';
import type { Api } from '../../api/api';
import type { ImportFiles } from './import-files';
import { importActions, importsApiActions } from './imports.actions';
import { sendFiles } from './imports.effects';

const ANSWER = { songId: 's', recordingId: 'r', alreadyKnown: false };

/** The effect on files a and b, with what the server answers to each; returns what it dispatches. */
function send(
  answers: Record<string, ReturnType<Api['importRecording']>>,
  cancelled: string[] = [],
): Action[] {
  const actions$ = new Subject<Action>();
  const chosen = new Map<string, File>();
  const files = { take: (importId: string) => chosen.get(importId) ?? null };
  const api = { importRecording: (file: File) => answers[file.name] };
  const dispatched: Action[] = [];
  sendFiles(actions$, api as Api, files as ImportFiles).subscribe((action) => dispatched.push(action));
  for (const name of Object.keys(answers)) {
    const file = new File(['sound'], name);
    if (name === 'huge') Object.defineProperty(file, 'size', { value: MAX_UPLOAD_BYTES + 1 });
    chosen.set(name, file);
    actions$.next(importActions.fileChosen({ importId: name, fileName: name, songId: null }));
  }
  for (const importId of cancelled) actions$.next(importActions.importCancelled({ importId }));
  return dispatched;
}

const never = (): Observable<never> => new Subject<never>();

describe('sending files', () => {
  it('says how far it is, and what came of it', () => {
    const sent = { kind: 'sent', share: 0.5 } as const;
    expect(send({ a: of(sent, { kind: 'done', answer: ANSWER } as const) })).toEqual([
      importsApiActions.bytesSent({ importId: 'a', share: 0.5 }),
      importsApiActions.importDone({ importId: 'a', answer: ANSWER }),
    ]);
  });

  it('goes on with the next file after one that failed', () => {
    const done = of({ kind: 'done', answer: ANSWER } as const);
    expect(send({ a: throwError(() => new Error('Not audio')), b: done })).toEqual([
      importsApiActions.importFailed({ importId: 'a', message: 'Not audio' }),
      importsApiActions.importDone({ importId: 'b', answer: ANSWER }),
    ]);
  });

  it('goes on with the next file once one is cancelled, and not before', () => {
    const done = of({ kind: 'done', answer: ANSWER } as const);
    expect(send({ a: never(), b: done })).toEqual([]);
    expect(send({ a: never(), b: done }, ['a'])).toEqual([
      importsApiActions.importDone({ importId: 'b', answer: ANSWER }),
    ]);
  });

  it('refuses a file that is too large without sending it', () => {
    const [action] = send({ huge: never() });
    expect(action).toMatchObject({ type: importsApiActions.importFailed.type, importId: 'huge' });
  });
});
