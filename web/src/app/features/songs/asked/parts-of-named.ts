/** The parts of a song that is named by its title, also where the shelf is read later than it is named; none until then. */
import { computed, inject, type Signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, map, of, startWith, switchMap, type Observable } from 'rxjs';
import type { SongSummary } from '@wild-needle/contract';
import type { Section } from '@wild-needle/core/riff';
import { Api } from '../../../api/api';

const NONE: readonly Section[] = [];

export const isCalled = (song: SongSummary, title: string): boolean =>
  song.title.toLowerCase() === title.toLowerCase();

/** In an injection context. */
export function partsOfNamed(
  songs: Signal<readonly SongSummary[]>,
  title: Signal<string>,
): Signal<readonly Section[]> {
  const api = inject(Api);
  const songId = computed(() => songs().find((song) => isCalled(song, title().trim()))?.id ?? null);
  const partsOf = (id: string): Observable<readonly Section[]> =>
    api.openSong(id).pipe(
      map(({ document }) => document.sections),
      startWith(NONE),
      // The whole song can be asked for all the same.
      catchError(() => of(NONE)),
    );
  return toSignal(toObservable(songId).pipe(switchMap((id) => (id === null ? of(NONE) : partsOf(id)))), {
    initialValue: NONE,
  });
}
