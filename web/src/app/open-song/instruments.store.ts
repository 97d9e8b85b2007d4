/**
 * The band of the recording that sounds, taken apart: how far that is, and how loud its parts are. Asks nothing while the panel is closed;
 * levels are kept with the song.
 */
import { computed, DestroyRef, effect, inject, untracked } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import { firstValueFrom, type Observable } from 'rxjs';
import { addressOf, type Engine, type Instruments, type Separation } from '@wild-needle/contract';
import { gainsOf, PIECE_S, WHOLE_BAND, type PartGains, type PartMix } from '@wild-needle/core/parts';
import { Api } from '../api/api';
import type { PieceAddresses } from '../recording/band-pieces';
import { HeardIn } from './heard-in';
import { OpenSongStore } from './open-song.store';

/** How often it is asked how far the server is. */
const ASK_EVERY_MS = 1000;
/** Sliders move on meanwhile. */
const KEEP_AFTER_MS = 400;

interface State {
  readonly isShown: boolean;
  readonly info: Instruments | null;
  readonly mix: PartMix;
  /** What could not be done, as a sentence; '' for nothing. */
  readonly problem: string;
}
const initialState: State = { isShown: false, info: null, mix: WHOLE_BAND, problem: '' };

function isUnderway({ status }: Separation): boolean {
  return status === 'queued' || status === 'running';
}

export const InstrumentsStore = signalStore(
  { providedIn: 'root' },
  withState(initialState),
  withComputed((store, song = inject(OpenSongStore), heardIn = inject(HeardIn)) => ({
    recordingId: computed(() => heardIn.recording()?.id ?? null),
    songId: computed(() => (song.status() === 'open' ? song.songId() : null)),
    /** The one that is on its way; else the best that there is. */
    separation: computed(() => {
      const all = store.info()?.separations ?? [];
      return all.find(isUnderway) ?? all.at(0) ?? null;
    }),
  })),
  withComputed((store) => ({
    isUnderway: computed(() => (store.info()?.separations ?? []).some(isUnderway)),
    /** Where each piece can be fetched, by the best engine that has it. */
    addresses: computed<PieceAddresses>(
      () => {
        const [id, info] = [store.recordingId(), store.info()];
        const separations = info?.separations ?? [];
        if (id === null) return [];
        const pieces = Math.max(0, ...separations.map((s) => s.pieces));
        const ready = separations.map(({ engine, ready: numbers }) => ({ engine, has: new Set(numbers) }));
        return Array.from({ length: pieces }, (_, piece) => {
          const by = ready.find(({ has }) => has.has(piece));
          return by ? addressOf('piece', { id, engine: by.engine, piece: String(piece) }) : '';
        });
      },
      { equal: (a, b) => a.length === b.length && a.every((address, i) => address === b[i]) },
    ),
    /**
     * Pieces whose guitars are clean enough to be heard by themselves: the network's. None of a song without drums, where nothing
     * could be taken for a stroke and what is in the drums all the same are strokes.
     */
    cleanAddresses: computed<PieceAddresses>(() => {
      const [id, separations] = [store.recordingId(), store.info()?.separations ?? []];
      const network = separations.find((s) => s.engine === 'network');
      if (id === null || !network || network.missing.includes('drums')) return [];
      const has = new Set(network.ready);
      return Array.from({ length: network.pieces }, (_, piece) =>
        has.has(piece) ? addressOf('piece', { id, engine: 'network', piece: String(piece) }) : '',
      );
    }),
    byteLength: computed(() => (store.info()?.separations ?? []).reduce((sum, s) => sum + s.byteLength, 0)),
  })),
  withComputed((store) => ({
    /** What sounds of each part; null while the panel is closed, nothing is apart, or all is as it was recorded. */
    gains: computed<PartGains | null>(() => {
      if (!store.isShown() || !store.addresses().some((address) => address !== '')) return null;
      const gains = gainsOf(store.mix());
      return Object.values(gains).every((gain) => gain === 1) ? null : gains;
    }),
  })),
  withMethods((store, api = inject(Api)) => {
    let keeping: ReturnType<typeof setTimeout> | undefined;
    const take = async (answer: (recordingId: string) => Observable<Instruments>): Promise<void> => {
      const id = store.recordingId();
      if (id === null) return;
      try {
        const info = await firstValueFrom(answer(id));
        if (id === store.recordingId()) patchState(store, { info, problem: '' });
      } catch (error) {
        patchState(store, { problem: error instanceof Error ? error.message : String(error) });
      }
    };
    return {
      /** What is apart now; asked by itself only while the panel is open. */
      refresh: () => take((id) => api.instruments(id)),
      show(isShown: boolean): void {
        patchState(store, { isShown });
      },
      /** From the place on that is listened to; goes on where it was. */
      takeApart: (engine: Engine, fromS: number) => take((id) => api.takeApart(id, { engine, fromS })),
      stop: () => take((id) => api.stopTakingApart(id)),
      remove: () => take((id) => api.removeParts(id)),
      /** True where the band is apart. */
      isApartAt: (timeS: number): boolean => !!store.addresses()[Math.floor(timeS / PIECE_S)],
      changeMix(change: (mix: PartMix) => PartMix): void {
        const mix = change(store.mix());
        patchState(store, { mix });
        const songId = store.songId();
        clearTimeout(keeping);
        keeping = setTimeout(() => {
          if (songId !== null) void firstValueFrom(api.keepPartMix(songId, mix)).catch(() => undefined);
        }, KEEP_AFTER_MS);
      },
      async readMix(songId: string): Promise<void> {
        const mix = await firstValueFrom(api.partMix(songId)).catch(() => WHOLE_BAND);
        if (songId === store.songId()) patchState(store, { mix });
      },
    };
  }),
  withHooks({
    onInit(store) {
      effect(() => {
        store.recordingId();
        patchState(store, { info: null, problem: '' });
      });
      effect(() => {
        store.songId();
        patchState(store, { mix: WHOLE_BAND });
      });
      effect(() => {
        const songId = store.songId();
        if (songId !== null && store.isShown()) untracked(() => void store.readMix(songId));
      });
      effect(() => {
        if (store.recordingId() !== null && store.isShown()) untracked(() => void store.refresh());
      });
      const timer = setInterval(() => {
        if (store.isShown() && (store.isUnderway() || store.info() === null)) void store.refresh();
      }, ASK_EVERY_MS);
      inject(DestroyRef).onDestroy(() => clearInterval(timer));
    },
  }),
);
