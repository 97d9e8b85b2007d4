/**
 * Opening and saving the song. Every change is saved by itself on the revision it was made on. When another window has saved in
 * between, both versions are offered; when the server refuses a document, it is told why and not asked again until the document
 * has changed. Whatever happens, what is not saved is kept on this computer (`unsaved-copies.ts`).
 */
import { inject } from '@angular/core';
import { tapResponse } from '@ngrx/operators';
import { patchState, signalStoreFeature, type, withHooks, withMethods, withState } from '@ngrx/signals';
import { rxMethod } from '@ngrx/signals/rxjs-interop';
import isEqual from 'fast-deep-equal';
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
import type { OpenSong } from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';
import type { HandField, SongDocument } from '@wild-needle/core/riff';
import { Api, type ApiError } from '../api/api';
import { IN_TROUBLE, isAway, isRefusal, NOTHING_OPEN, type Version } from './saving-state';
import { keepSteps, keptSteps, type Steps } from './session-history';
import { UnsavedCopies, type LeftCopies, type LeftCopy, type UnreadableCopy } from './unsaved-copies';

/** Changes in quick succession are saved together. */
const SAVE_AFTER_MS = 400;
/** A save that got no answer is tried again after this. */
const RETRY_AFTER_MS = 3000;

export function withSaving() {
  return signalStoreFeature(
    {
      state: type<{
        readonly document: SongDocument | null;
        readonly past: readonly SongDocument[];
        readonly future: readonly SongDocument[];
      }>(),
      methods: type<{
        startHistory(document: SongDocument): void;
        resumeHistory(steps: Steps): void;
        putBehind(document: SongDocument): void;
        applyChange(change: (document: SongDocument) => SongDocument): boolean;
        keepSelection(): void;
        dropSelection(): void;
      }>(),
    },
    withState(NOTHING_OPEN),
    withMethods((store, api = inject(Api), copies = inject(UnsavedCopies)) => {
      /** Documents that were sent and whose answer never came: one of them may be what the server has. */
      let unanswered: SongDocument[] = [];
      /** What the server had at the revision that this window builds on; null when it is not known. */
      let base: SongDocument | null = null;

      function keep(songId: string, copy: { baseRevision: number; document: SongDocument }): void {
        void copies.keep(songId, copy).then((isKept) => {
          if (store.songId() === songId && store.isKept() !== isKept) patchState(store, { isKept });
        });
      }

      /** What another page has left is this page's own from now on. */
      async function takeOver(songId: string, copy: LeftCopy): Promise<void> {
        if (await copies.keep(songId, copy)) await copies.forget(songId, copy.page);
      }

      function showOpened(
        song: OpenSong,
        analysis: Analysis | null,
        { readable, unreadable }: LeftCopies,
      ): void {
        // What the server has is no version of its own, whoever left it.
        const saved = readable.filter((copy) => isEqual(copy.document, song.document));
        saved.forEach(({ page }) => void copies.forget(song.id, page));
        const [newest, ...left] = readable.filter((copy) => !saved.includes(copy));
        unanswered = [];
        base = song.document;
        patchState(store, {
          songId: song.id,
          status: 'open',
          problem: null,
          recording: song.recording,
          recordings: song.recordings,
          analysis,
          revision: song.revision,
          saveStatus: 'saved',
          refusal: null,
          failure: null,
          theirs: null,
          left,
          unreadable,
        });
        store.startHistory(song.document);
        if (newest) void takeOver(song.id, newest);
        if (newest?.baseRevision === song.revision) {
          store.applyChange(() => newest.document);
          patchState(store, { saveStatus: 'unsaved' });
          save();
          void resumeSteps(song.id, newest.document);
        } else if (newest) {
          store.startHistory(newest.document);
          base = null;
          patchState(store, { saveStatus: 'conflict' });
          settle({ revision: song.revision, document: song.document });
        } else void resumeSteps(song.id, song.document);
        store.keepSelection();
      }

      /** What was done before the page was loaded anew can still be undone. */
      async function resumeSteps(songId: string, opened: SongDocument): Promise<void> {
        const steps = await keptSteps(songId, opened);
        if (steps && store.songId() === songId && store.document() === opened) store.resumeHistory(steps);
      }

      /** The document says which recording it is written to: a change, or its undo, may have made that another one. */
      function followReference(document: SongDocument): void {
        const id = document.recordings.find((r) => r.isReference)?.id;
        const recording = store.recordings().find((r) => r.id === id);
        if (!recording || recording.id === store.recording()?.id) return;
        patchState(store, { recording, analysis: null });
        hearReference(recording.id);
      }

      const hearReference = rxMethod<string>(
        pipe(
          switchMap((recordingId) =>
            api.analysis(recordingId).pipe(
              tapResponse({
                next: (analysis) => {
                  if (store.recording()?.id === recordingId) patchState(store, { analysis });
                },
                // It was not listened to yet.
                error: () => undefined,
              }),
            ),
          ),
        ),
      );

      const load = rxMethod<string>(
        pipe(
          switchMap((songId) => {
            const before = store.document();
            // What was changed while it was read anew is newer; its save settles the rest.
            const isOvertaken = (): boolean =>
              store.songId() === songId && store.status() === 'open' && store.document() !== before;
            return api.openSong(songId).pipe(
              switchMap((song) => {
                const { recording, job } = song;
                const heard: Observable<Analysis | null> =
                  recording && job?.status === 'done' ? api.analysis(recording.id) : of(null);
                // Without what was heard the document is still there to work on.
                return forkJoin([of(song), heard.pipe(catchError(() => of(null))), copies.left(song.id)]);
              }),
              tapResponse({
                next: ([song, analysis, left]) => {
                  if (isOvertaken()) patchState(store, { recordings: song.recordings });
                  else showOpened(song, analysis, left);
                },
                error: (error: ApiError) => {
                  patchState(store, { status: 'failed', problem: error.message });
                  if (isAway(error)) setTimeout(() => openAgain(songId), RETRY_AFTER_MS);
                },
              }),
            );
          }),
        ),
      );

      function openAgain(songId: string): void {
        if (store.songId() === songId && store.status() === 'failed') load(songId);
      }

      /** Goes on from the server's version with this window's document. */
      function goOnFrom({ revision, document: theirs }: Version): void {
        base = theirs;
        patchState(store, { revision, theirs: null, saveStatus: 'unsaved' });
        const [songId, document] = [store.songId(), store.document()];
        if (songId === null || !document) return;
        keep(songId, { baseRevision: revision, document });
        save();
      }

      /**
       * The server has a newer version. It may be this window's own, whose answer was lost; it may be the draft of an analysis,
       * into which what was set by hand meanwhile goes; else the user chooses.
       */
      function settle(theirs: Version): void {
        const mine = store.document();
        if (!mine) return;
        if ([mine, ...unanswered].some((document) => isEqual(document, theirs.document))) {
          unanswered = [];
          goOnFrom(theirs);
        } else if (mine.riffs.length === 0 && theirs.document.riffs.length > 0) {
          fillWithDraft(theirs);
        } else patchState(store, { theirs });
      }

      const fillWithDraft = rxMethod<Version>(
        pipe(
          exhaustMap((theirs) => {
            const recording = store.recording();
            if (!recording) {
              patchState(store, { theirs });
              return EMPTY;
            }
            return forkJoin([api.analysis(recording.id), import('@wild-needle/core/draft')]).pipe(
              tapResponse({
                next: ([analysis, { draftInto }]) => {
                  const mine = store.document();
                  if (!mine) return;
                  const isDraft = base && isEqual(draftInto(base, analysis).document, theirs.document);
                  if (!isDraft) {
                    patchState(store, { theirs });
                    return;
                  }
                  const { document, kept } = draftInto(mine, analysis);
                  store.applyChange(() => document);
                  patchState(store, { analysis, keptFromDraft: kept });
                  goOnFrom(theirs);
                  store.keepSelection();
                },
                // Without what was heard the user chooses.
                error: () => patchState(store, { theirs }),
              }),
            );
          }),
        ),
      );

      /** Fetches what the other window saved. */
      const fetchTheirs = rxMethod<void>(
        pipe(
          exhaustMap(() => {
            const songId = store.songId();
            if (songId === null) return EMPTY;
            return api.openSong(songId).pipe(
              tapResponse({
                next: ({ revision, document }) => settle({ revision, document }),
                error: retryLater,
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
            unanswered.push(document);
            return api.saveSong(songId, { baseRevision, document }).pipe(
              tapResponse({
                next: ({ revision }) => {
                  if (store.songId() !== songId) return;
                  unanswered = [];
                  base = document;
                  const changedSince = store.document() !== document;
                  patchState(store, {
                    revision,
                    failure: null,
                    saveStatus: changedSince ? 'unsaved' : 'saved',
                  });
                  if (changedSince) {
                    keep(songId, { baseRevision: revision, document: store.document() ?? document });
                    save();
                  } else void copies.drop(songId);
                },
                error: (error: ApiError) => {
                  if (store.songId() !== songId) return;
                  if (error.code === 'conflict') {
                    patchState(store, { saveStatus: 'conflict' });
                    fetchTheirs();
                  } else if (error.code === 'not-found') patchState(store, { saveStatus: 'removed' });
                  else if (!isRefusal(error)) retryLater(error);
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

      function retryLater({ code }: ApiError): void {
        if (store.saveStatus() !== 'conflict') patchState(store, { saveStatus: 'failing', failure: code });
        setTimeout(() => (store.saveStatus() === 'conflict' ? fetchTheirs() : save()), RETRY_AFTER_MS);
      }

      return {
        open(songId: string): void {
          if (store.songId() === songId && store.status() === 'open') return;
          patchState(store, { ...NOTHING_OPEN, songId, status: 'opening' });
          store.dropSelection();
          load(songId);
        },

        /** An analysis has ended: its draft is shown, with what it left as it was. Changes that are not saved yet stay. */
        draftCame(kept: readonly HandField[]): void {
          const songId = store.songId();
          if (songId === null || store.saveStatus() !== 'saved') return;
          patchState(store, { keptFromDraft: kept });
          load(songId);
        },

        /** Reads the song anew; changes that are not saved yet stay. */
        refresh(): void {
          const songId = store.songId();
          if (songId !== null && (store.saveStatus() === 'saved' || store.status() === 'failed'))
            load(songId);
        },

        /** A recording was removed. */
        recordingGone(id: string): void {
          patchState(store, { recordings: store.recordings().filter((r) => r.id !== id) });
        },

        /** What a part of the song was heard to be anew; the document stays. */
        showHeard(analysis: Analysis): void {
          patchState(store, { analysis });
        },

        /** The document has changed: it is kept here at once, and saved a little later. */
        documentChanged(): void {
          const [songId, document] = [store.songId(), store.document()];
          if (songId === null || !document) return;
          keep(songId, { baseRevision: store.revision(), document });
          followReference(document);
          store.keepSelection();
          if (store.saveStatus() === 'conflict' || store.saveStatus() === 'removed') return;
          patchState(store, { saveStatus: 'unsaved', refusal: null });
          save();
        },

        /** Saves this window's version over the other, which can be had back by undo. */
        keepMine(): void {
          const theirs = store.theirs();
          if (!theirs) return;
          store.putBehind(theirs.document);
          goOnFrom(theirs);
        },

        /** Shows the other version; this window's own can be had back by undo. */
        takeTheirs(): void {
          const [theirs, songId] = [store.theirs(), store.songId()];
          if (!theirs || songId === null) return;
          void copies.drop(songId);
          base = theirs.document;
          store.applyChange(() => theirs.document);
          patchState(store, { revision: theirs.revision, theirs: null, saveStatus: 'saved' });
          store.keepSelection();
        },

        /** Lets go of a version that another window has left. */
        forgetLeft({ page }: LeftCopy | UnreadableCopy): void {
          const songId = store.songId();
          if (songId !== null) void copies.forget(songId, page);
          patchState(store, {
            left: store.left().filter((copy) => copy.page !== page),
            unreadable: store.unreadable().filter((copy) => copy.page !== page),
          });
        },

        /** What the draft has kept was read. */
        keptWasRead(): void {
          patchState(store, { keptFromDraft: [] });
        },
      };
    }),
    withHooks({
      onInit(store) {
        addEventListener('pagehide', () => {
          const [songId, document] = [store.songId(), store.document()];
          if (songId !== null && document)
            keepSteps(songId, document, { past: store.past(), future: store.future() });
        });
        // Asks before a window closes that the server has not everything of.
        addEventListener('beforeunload', (event) => {
          const isPending = store.saveStatus() !== 'saved' && !store.isKept();
          if (IN_TROUBLE.includes(store.saveStatus()) || isPending) event.preventDefault();
        });
      },
    }),
  );
}
