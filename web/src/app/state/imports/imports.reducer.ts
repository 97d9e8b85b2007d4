/** Files on their way in, and those that could not be taken. */
import { createFeature, createReducer, on } from '@ngrx/store';
import type { ImportAnswer } from '@wild-needle/contract';
import { importActions, importsApiActions } from './imports.actions';

export interface FileImport {
  readonly importId: string;
  readonly fileName: string;
  readonly status: 'waiting' | 'sending' | 'reading' | 'known' | 'failed';
  /** Share of the bytes sent, 0 to 1. */
  readonly share: number;
  /** What was wrong and what would work; null while all is well. */
  readonly problem: string | null;
}

export interface ImportsState {
  readonly imports: readonly FileImport[];
  /** What came in last. */
  readonly added: ImportAnswer | null;
}

const initialState: ImportsState = { imports: [], added: null };

function change(state: ImportsState, importId: string, values: Partial<FileImport>): ImportsState {
  return { ...state, imports: state.imports.map((i) => (i.importId === importId ? { ...i, ...values } : i)) };
}

function without(state: ImportsState, importId: string): ImportsState {
  return { ...state, imports: state.imports.filter((i) => i.importId !== importId) };
}

export const importsFeature = createFeature({
  name: 'imports',
  reducer: createReducer(
    initialState,
    on(importActions.fileChosen, (state, { importId, fileName }): ImportsState => ({
      ...state,
      imports: [...state.imports, { importId, fileName, status: 'waiting', share: 0, problem: null }],
    })),
    on(importsApiActions.bytesSent, (state, { importId, share }) =>
      change(state, importId, { share, status: share < 1 ? 'sending' : 'reading' }),
    ),
    on(importsApiActions.importDone, (state, { importId, answer }) =>
      answer.alreadyKnown
        ? change(state, importId, { status: 'known' })
        : { ...without(state, importId), added: answer },
    ),
    on(importsApiActions.importFailed, (state, { importId, message }) =>
      change(state, importId, { status: 'failed', problem: message }),
    ),
    on(importActions.importCancelled, importActions.messageDismissed, (state, { importId }) =>
      without(state, importId),
    ),
  ),
});
