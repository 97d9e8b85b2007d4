/** Settings stay in the browser; the server has them too, for a browser that has none and for the backup. */
import { DOCUMENT, inject } from '@angular/core';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { catchError, debounceTime, EMPTY, filter, map, of, switchMap, tap, withLatestFrom } from 'rxjs';
import { DEFAULT_SETTINGS, settingsSchema } from '@wild-needle/contract';
import { Api } from '../../api/api';
import { settingsActions } from './settings.actions';
import { settingsFeature } from './settings.reducer';

const STORAGE_KEY = 'wild-needle.settings';
/** A slider changes many times before it rests. */
const RESTS_MS = 500;

/** Null when there is nothing, or nothing that can be read. */
function readStored(): unknown {
  try {
    return JSON.parse(localStorage.getItem(STORAGE_KEY) ?? 'null');
  } catch {
    return null;
  }
}

/** Where storage is full or forbidden, settings last as long as the page. */
function keep(settings: unknown): void {
  try {
    localStorage.setItem(STORAGE_KEY, JSON.stringify(settings));
  } catch {
    // The page works without.
  }
}

const CHANGES = [
  settingsActions.themeChosen,
  settingsActions.volumeChanged,
  settingsActions.clickLevelChanged,
  settingsActions.countInSwitched,
  settingsActions.earFirstSwitched,
  settingsActions.pedalAssigned,
  settingsActions.spellingChosen,
  settingsActions.stringsChosen,
  settingsActions.stairChanged,
  settingsActions.practiceMinutesChanged,
  settingsActions.inputDelayMeasured,
] as const;

export const restoreSettings = createEffect(
  (actions$ = inject(Actions)) =>
    actions$.pipe(
      ofType(ROOT_EFFECTS_INIT),
      map(() => {
        const parsed = settingsSchema.safeParse(readStored());
        return settingsActions.restored({ settings: parsed.success ? parsed.data : DEFAULT_SETTINGS });
      }),
    ),
  { functional: true },
);

/** In a browser that has none: those that the server has, also after a backup has brought them. */
export const fetchSettings = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(ROOT_EFFECTS_INIT, settingsActions.wanted),
      filter(() => readStored() === null),
      switchMap(() => api.settings().pipe(catchError(() => of(null)))),
      switchMap((settings) =>
        settings && readStored() === null ? of(settingsActions.restored({ settings })) : EMPTY,
      ),
    ),
  { functional: true },
);

export const showTheme = createEffect(
  (actions$ = inject(Actions), store = inject(Store), document = inject(DOCUMENT)) =>
    actions$.pipe(
      ofType(settingsActions.restored, settingsActions.themeChosen),
      withLatestFrom(store.select(settingsFeature.selectTheme)),
      tap(([, theme]) => (document.documentElement.dataset['theme'] = theme)),
    ),
  { functional: true, dispatch: false },
);

export const keepSettings = createEffect(
  (actions$ = inject(Actions), store = inject(Store)) =>
    actions$.pipe(
      ofType(...CHANGES),
      withLatestFrom(store.select(settingsFeature.selectSettingsState)),
      tap(([, settings]) => keep(settings)),
    ),
  { functional: true, dispatch: false },
);

/** What does not arrive is sent with the next change, or when the page is opened again. */
export const sendSettings = createEffect(
  (actions$ = inject(Actions), store = inject(Store), api = inject(Api)) =>
    actions$.pipe(
      ofType(ROOT_EFFECTS_INIT, ...CHANGES),
      debounceTime(RESTS_MS),
      filter(() => readStored() !== null),
      withLatestFrom(store.select(settingsFeature.selectSettingsState)),
      switchMap(([, settings]) => api.keepSettings(settings).pipe(catchError(() => EMPTY))),
    ),
  { functional: true, dispatch: false },
);
