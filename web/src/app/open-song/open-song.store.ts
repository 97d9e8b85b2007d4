/**
 * The song that is open: its document with history, what was heard, what is selected, and saving. Every change is
 * saved by itself on the revision it was made on; when another window has saved in between, the user is told and
 * offered both versions.
 */
import { computed, inject } from '@angular/core';
import { tapResponse } from '@ngrx/operators';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import { rxMethod } from '@ngrx/signals/rxjs-interop';
import {
  catchError,
  concatMap,
  debounceTime,
  EMPTY,
  exhaustMap,
  forkJoin,
  of,
  type Observable,
  pipe,
  switchMap,
} from 'rxjs';
import type { OpenSong, Recording } from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';
import {
  asGuitar,
  changeAsGuitar,
  passesOf,
  withVariation,
  type GuitarNumber,
  type SongDocument,
} from '@wild-needle/core/riff';
import type { ApiError } from '../api/api';
import { Api } from '../api/api';
import { dropUnsaved, keepUnsaved, readUnsaved } from './unsaved-copy';
import { withHistory } from './with-history';

export type SaveStatus = 'saved' | 'unsaved' | 'saving' | 'failing' | 'conflict';

interface OpenSongState {
  readonly songId: string | null;
  readonly status: 'closed' | 'opening' | 'open' | 'failed';
  /** Why it can't be opened, in words. */
  readonly problem: string | null;
  readonly recording: Recording | null;
  readonly analysis: Analysis | null;
  /** Newest revision that this window knows; its changes build on it. */
  readonly revision: number;
  readonly saveStatus: SaveStatus;
  /** What the other window saved, while the choice is open. */
  readonly theirs: { readonly revision: number; readonly document: SongDocument } | null;
  readonly riffId: string | null;
  readonly sectionId: string | null;
  readonly strumId: string | null;
  /** Other end of a selection of several strums; null while one is chosen. */
  readonly anchorId: string | null;
  /** A place without a strum that is written next, in ticks of the riff; then no strum is chosen. */
  readonly placeTicks: number | null;
  /** Shown and written in place of the part of the riff that it stands for. */
  readonly variationId: string | null;
  /** Whose tab is shown. */
  readonly guitar: GuitarNumber;
  /** String that digits are written on, 1 = highest. */
  readonly string: number | null;
}

const CLOSED: OpenSongState = {
  songId: null,
  status: 'closed',
  problem: null,
  recording: null,
  analysis: null,
  revision: 0,
  saveStatus: 'saved',
  theirs: null,
  riffId: null,
  sectionId: null,
  strumId: null,
  anchorId: null,
  placeTicks: null,
  variationId: null,
  guitar: 1,
  string: null,
};

/** Changes in quick succession are saved together. */
const SAVE_AFTER_MS = 400;
/** A save that failed is tried again after this. */
const RETRY_AFTER_MS = 3000;

export const OpenSongStore = signalStore(
  { providedIn: 'root' },
  withState(CLOSED),
  withHistory(),
  withComputed(({ document, riffId, sectionId, strumId, anchorId, variationId, guitar }) => {
    /** The song as the shown guitar plays it. */
    const written = computed(() => {
      const d = document();
      return d && asGuitar(d, guitar());
    });
    const variation = computed(
      () =>
        written()
          ?.riffs.find((r) => r.id === riffId())
          ?.variations.find((v) => v.id === variationId()) ?? null,
    );
    /** The chosen riff, with the chosen variation in its place. */
    const riff = computed(() => {
      const plain = written()?.riffs.find((r) => r.id === riffId()) ?? null;
      return plain && withVariation(plain, variation());
    });
    const section = computed(() => document()?.sections.find((s) => s.id === sectionId()) ?? null);
    return {
      written,
      variation,
      riff,
      section,
      /** Ids of the chosen strums. */
      selectedIds: computed((): ReadonlySet<string> => {
        const strums = riff()?.strums ?? [];
        const ends = [strumId(), anchorId() ?? strumId()].map((id) => strums.findIndex((s) => s.id === id));
        if (Math.min(...ends) < 0) return new Set();
        return new Set(strums.slice(Math.min(...ends), Math.max(...ends) + 1).map((s) => s.id));
      }),
      /** Passes of the chosen section. */
      passes: computed(() => {
        const [d, s, r] = [document(), section(), riff()];
        return d && s && r ? passesOf(s, r, d.grid) : [];
      }),
      strum: computed(() => riff()?.strums.find((s) => s.id === strumId()) ?? null),
    };
  }),
  withMethods((store, api = inject(Api)) => {
    /** Chooses riff, section and strum; what the document does not have falls back to its first. */
    function selectRiff(riffId: string | null, sectionId: string | null = null): void {
      const document = store.written();
      const plain = document?.riffs.find((r) => r.id === riffId) ?? document?.riffs[0] ?? null;
      const variation = plain?.variations.find((v) => v.id === store.variationId()) ?? null;
      const riff = plain && withVariation(plain, variation);
      const ofRiff = document?.sections.filter((s) => s.riffId === riff?.id) ?? [];
      const section = ofRiff.find((s) => s.id === sectionId) ?? ofRiff[0] ?? null;
      const keepStrum = riff?.strums.some((s) => s.id === store.strumId());
      const strum = keepStrum ? null : (riff?.strums[0] ?? null);
      const keepPlace = riff?.id === store.riffId() && store.placeTicks() !== null;
      const isEmpty = riff?.strums.length === 0;
      patchState(store, {
        riffId: riff?.id ?? null,
        sectionId: section?.id ?? null,
        variationId: variation?.id ?? null,
        ...(keepStrum || keepPlace
          ? {}
          : {
              strumId: strum?.id ?? null,
              anchorId: null,
              placeTicks: isEmpty ? 0 : null,
              string: strum?.frets[0]?.string ?? null,
            }),
      });
    }

    function showOpened(song: OpenSong, analysis: Analysis | null): void {
      const unsaved = readUnsaved(song.id);
      patchState(store, {
        songId: song.id,
        status: 'open',
        problem: null,
        recording: song.recording,
        analysis,
        revision: song.revision,
        saveStatus: 'saved',
        theirs: null,
      });
      store.startHistory(song.document);
      if (unsaved?.baseRevision === song.revision) {
        store.applyChange(() => unsaved.document);
        patchState(store, { saveStatus: 'unsaved' });
        save();
      } else if (unsaved) {
        store.startHistory(unsaved.document);
        patchState(store, {
          saveStatus: 'conflict',
          theirs: { revision: song.revision, document: song.document },
        });
      }
      selectRiff(store.riffId(), store.sectionId());
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
                } else retryLater();
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

    function afterChange(): void {
      const [songId, document] = [store.songId(), store.document()];
      if (songId === null || !document) return;
      keepUnsaved(songId, { baseRevision: store.revision(), document });
      selectRiff(store.riffId(), store.sectionId());
      if (store.saveStatus() === 'conflict') return;
      patchState(store, { saveStatus: 'unsaved' });
      save();
    }

    return {
      selectRiff,
      open(songId: string): void {
        if (store.songId() === songId && store.status() === 'open') return;
        patchState(store, { ...CLOSED, songId, status: 'opening' });
        load(songId);
      },
      /** Reads the song anew, as after an analysis; changes that are not saved yet stay. */
      refresh(): void {
        const songId = store.songId();
        if (songId !== null && (store.saveStatus() === 'saved' || store.status() === 'failed')) load(songId);
      },
      /** What a part of the song was heard to be anew; the document stays. */
      showHeard(analysis: Analysis): void {
        patchState(store, { analysis });
      },
      selectStrum(strumId: string): void {
        const strum = store.riff()?.strums.find((s) => s.id === strumId);
        if (!strum) return;
        const keepsString = strum.frets.some((f) => f.string === store.string());
        patchState(store, {
          strumId,
          anchorId: null,
          placeTicks: null,
          string: keepsString ? store.string() : (strum.frets[0]?.string ?? store.string()),
        });
      },
      selectString(string: number): void {
        patchState(store, { string });
      },
      /** Chooses all strums from the one that was chosen first to this one. */
      selectTo(strumId: string): void {
        if (store.strumId() === null) return;
        patchState(store, { anchorId: store.anchorId() ?? store.strumId(), strumId });
      },
      selectAll(): void {
        const strums = store.riff()?.strums ?? [];
        if (strums.length > 0)
          patchState(store, { anchorId: strums[0].id, strumId: strums.at(-1)!.id, placeTicks: null });
      },
      /** Chooses a place where nothing is written yet. */
      selectPlace(placeTicks: number): void {
        patchState(store, { placeTicks, strumId: null, anchorId: null });
      },
      /** Lets go of the chosen strum: the neck then shows what the needle stands on. */
      selectNothing(): void {
        patchState(store, { placeTicks: null, strumId: null, anchorId: null });
      },
      selectVariation(variationId: string | null): void {
        patchState(store, { variationId });
        selectRiff(store.riffId(), store.sectionId());
      },
      selectGuitar(guitar: GuitarNumber): void {
        patchState(store, {
          guitar: store.document()?.guitar2 ? guitar : 1,
          anchorId: null,
          placeTicks: null,
        });
        selectRiff(store.riffId(), store.sectionId());
      },
      change(change: (document: SongDocument) => SongDocument): void {
        if (store.applyChange(change)) afterChange();
      },
      /** Changes what the shown guitar plays. */
      changeWritten(change: (document: SongDocument) => SongDocument): void {
        if (store.applyChange((document) => changeAsGuitar(document, store.guitar(), change))) afterChange();
      },
      undo(): void {
        if (store.stepBack()) afterChange();
      },
      redo(): void {
        if (store.stepForward()) afterChange();
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
        selectRiff(store.riffId(), store.sectionId());
      },
    };
  }),
  withHooks({
    onInit(store) {
      // The copy on this computer is written at every change; here the browser may still ask before closing.
      addEventListener('beforeunload', (event) => {
        if (store.saveStatus() === 'failing' || store.saveStatus() === 'conflict') event.preventDefault();
      });
    },
  }),
);
