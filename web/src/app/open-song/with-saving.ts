/**
 * Opening and saving the song. Every change is saved by itself on the revision it was made on. When another window has saved in
 * between, both versions are offered; when the server refuses a document, it is told why and not asked again until the document
 * has changed. Whatever happens, what is not saved is kept on this computer (`unsaved-copy.ts`).
 */
import { inject } from '@angular/core';
import { tapResponse } from '@ngrx/operators';
import { patchState, signalStoreFeature, type, withHooks, withMethods, withState } from '@ngrx/signals';
import { rxMethod } from '@ngrx/signals/rxjs-interop';
import {
  catchError,
  concatMap,
  debounceTime,
  EMPTY,
  exhaustMap,
  forkJoin,
  of,
  pipe,
  switchMap,
  type Observable,
} from 'rxjs';
import type { OpenSong, Recording } from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';
import type { SongDocument } from '@wild-needle/core/riff';
import { Api, type ApiError } from '../api/api';
import { dropUnsaved, forgetCopy, keepUnsaved, takeOverUnsaved, type UnreadableCopy } from './unsaved-copy';

/** 'failing': the server does not answer and is tried again; 'refused': it does not take the document as it is. */
export type SaveStatus = 'saved' | 'unsaved' | 'saving' | 'failing' | 'refused' | 'conflict';

interface SavingState {
  readonly songId: string | null;
  readonly status: 'closed' | 'opening' | 'open' | 'failed';
  /** Why it can't be opened, in words. */
  readonly problem: string | null;
  readonly recording: Recording | null;
  readonly analysis: Analysis | null;
  /** Newest revision that this window knows; its changes build on it. */
  readonly revision: number;
  readonly saveStatus: SaveStatus;
  /** Why the server refuses the document, in words; null while it does not. */
  readonly refusal: string | null;
  /** What the other window saved, while the choice is open. */
  readonly theirs: { readonly revision: number; readonly document: SongDocument } | null;
  /** Unsaved copies of before that can't be shown. */
  readonly unreadable: readonly UnreadableCopy[];
}

const NOTHING_OPEN: SavingState = {
  songId: null,
  status: 'closed',
  problem: null,
  recording: null,
  analysis: null,
  revision: 0,
  saveStatus: 'saved',
  refusal: null,
  theirs: null,
  unreadable: [],
};

/** Changes in quick succession are saved together. */
const SAVE_AFTER_MS = 400;
/** A save that got no answer is tried again after this. */
const RETRY_AFTER_MS = 3000;

/** The server has answered that it won't, and will answer the same the next time. */
function isRefusal({ code }: ApiError): boolean {
  return code === 'invalid-request' || code === 'not-found' || code === 'forbidden';
}

export function withSaving() {
  return signalStoreFeature(
    {
      state: type<{ readonly document: SongDocument | null }>(),
      methods: type<{
        startHistory(document: SongDocument): void;
        applyChange(change: (document: SongDocument) => SongDocument): boolean;
        keepSelection(): void;
        dropSelection(): void;
      }>(),
    },
    withState(NOTHING_OPEN),
    withMethods((store, api = inject(Api)) => {
      function showOpened(song: OpenSong, analysis: Analysis | null): void {
        const { newest, unreadable } = takeOverUnsaved(song.id);
        patchState(store, {
          songId: song.id,
          status: 'open',
          problem: null,
          recording: song.recording,
          analysis,
          revision: song.revision,
          saveStatus: 'saved',
          refusal: null,
          theirs: null,
          unreadable,
        });
        store.startHistory(song.document);
        if (newest?.baseRevision === song.revision) {
          store.applyChange(() => newest.document);
          patchState(store, { saveStatus: 'unsaved' });
          save();
        } else if (newest) {
          store.startHistory(newest.document);
          patchState(store, {
            saveStatus: 'conflict',
            theirs: { revision: song.revision, document: song.document },
          });
        }
        store.keepSelection();
      }

      const load = rxMethod<string>(
        pipe(
          switchMap((songId) =>
            api.openSong(songId).pipe(
              switchMap((song) => {
                const { recording, job } = song;
                const heard: Observable<Analysis | null> =
                  recording && job?.status === 'done' ? api.analysis(recording.id) : of(null);
                // Without what was heard the document is still there to work on.
                return forkJoin([of(song), heard.pipe(catchError(() => of(null)))]);
              }),
              tapResponse({
                next: ([song, analysis]) => showOpened(song, analysis),
                error: (error: ApiError) => patchState(store, { status: 'failed', problem: error.message }),
              }),
            ),
          ),
        ),
      );

      /** Fetches what the other window saved, for the choice. */
      const fetchTheirs = rxMethod<void>(
        pipe(
          exhaustMap(() => {
            const songId = store.songId();
            if (songId === null) return EMPTY;
            return api.openSong(songId).pipe(
              tapResponse({
                next: ({ revision, document }) => patchState(store, { theirs: { revision, document } }),
                error: () => retryLater(),
              }),
            );
          }),
        ),
      );

      const save = rxMethod<void>(
        pipe(
          debounceTime(SAVE_AFTER_MS),
          concatMap(() => {
            const [songId, document, baseRevision] = [store.songId(), store.document(), store.revision()];
            const pending = store.saveStatus() === 'unsaved' || store.saveStatus() === 'failing';
            if (songId === null || !document || !pending) return EMPTY;
            patchState(store, { saveStatus: 'saving' });
            return api.saveSong(songId, { baseRevision, document }).pipe(
              tapResponse({
                next: ({ revision }) => {
                  if (store.songId() !== songId) return;
                  const changedSince = store.document() !== document;
                  patchState(store, { revision, saveStatus: changedSince ? 'unsaved' : 'saved' });
                  if (changedSince) {
                    keepUnsaved(songId, { baseRevision: revision, document: store.document() ?? document });
                    save();
                  } else dropUnsaved(songId);
                },
                error: (error: ApiError) => {
                  if (store.songId() !== songId) return;
                  if (error.code === 'conflict') {
                    patchState(store, { saveStatus: 'conflict' });
                    fetchTheirs();
                  } else if (!isRefusal(error)) retryLater();
                  else if (store.document() === document) {
                    patchState(store, { saveStatus: 'refused', refusal: error.message });
                  } else {
                    // It has changed meanwhile: that may be what was wrong with it.
                    patchState(store, { saveStatus: 'unsaved' });
                    save();
                  }
                },
              }),
            );
          }),
        ),
      );

      function retryLater(): void {
        if (store.saveStatus() !== 'conflict') patchState(store, { saveStatus: 'failing' });
        setTimeout(() => (store.saveStatus() === 'conflict' ? fetchTheirs() : save()), RETRY_AFTER_MS);
      }

      return {
        open(songId: string): void {
          if (store.songId() === songId && store.status() === 'open') return;
          patchState(store, { ...NOTHING_OPEN, songId, status: 'opening' });
          store.dropSelection();
          load(songId);
        },

        /** Reads the song anew, as after an analysis; changes that are not saved yet stay. */
        refresh(): void {
          const songId = store.songId();
          if (songId !== null && (store.saveStatus() === 'saved' || store.status() === 'failed'))
            load(songId);
        },

        /** What a part of the song was heard to be anew; the document stays. */
        showHeard(analysis: Analysis): void {
          patchState(store, { analysis });
        },

        /** The document has changed: it is kept here at once, and saved a little later. */
        documentChanged(): void {
          const [songId, document] = [store.songId(), store.document()];
          if (songId === null || !document) return;
          keepUnsaved(songId, { baseRevision: store.revision(), document });
          store.keepSelection();
          if (store.saveStatus() === 'conflict') return;
          patchState(store, { saveStatus: 'unsaved', refusal: null });
          save();
        },

        /** Saves this window's version over the other; theirs stays in the song's history. */
        keepMine(): void {
          const [theirs, document, songId] = [store.theirs(), store.document(), store.songId()];
          if (!theirs || !document || songId === null) return;
          keepUnsaved(songId, { baseRevision: theirs.revision, document });
          patchState(store, { revision: theirs.revision, theirs: null, saveStatus: 'unsaved' });
          save();
        },

        /** Shows the other version; this window's own can be had back by undo. */
        takeTheirs(): void {
          const [theirs, songId] = [store.theirs(), store.songId()];
          if (!theirs || songId === null) return;
          dropUnsaved(songId);
          store.applyChange(() => theirs.document);
          patchState(store, { revision: theirs.revision, theirs: null, saveStatus: 'saved' });
          store.keepSelection();
        },

        /** Lets go of an unsaved copy that can't be shown. */
        forgetUnreadable(copy: UnreadableCopy): void {
          forgetCopy(copy);
          patchState(store, { unreadable: store.unreadable().filter((c) => c !== copy) });
        },
      };
    }),
    withHooks({
      onInit(store) {
        // Asks before a window closes that the server has not everything of.
        addEventListener('beforeunload', (event) => {
          if (['failing', 'refused', 'conflict'].includes(store.saveStatus())) event.preventDefault();
        });
      },
    }),
  );
}
