import { DOCUMENT, inject } from '@angular/core';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { map, tap, withLatestFrom } from 'rxjs';
import * as z from 'zod';
import { settingsActions } from './settings.actions';
import { settingsFeature } from './settings.reducer';
import { DEFAULT_SETTINGS } from './settings.state';

const STORAGE_KEY = 'wild-needle.settings';

/** Steps of a stair that make sense together: it goes up. */
const stairSchema = z
  .object({
    fromPercent: z.int().min(25).max(95),
    byPercent: z.int().min(1).max(25),
    toPercent: z.int().min(50).max(150),
    cleanRounds: z.int().min(1).max(10),
    slipsBack: z.int().min(0).max(10),
  })
  .refine(({ fromPercent, toPercent }) => fromPercent < toPercent);

const storedSchema = z.object({
  theme: z.enum(['auto', 'light', 'dark']).catch(DEFAULT_SETTINGS.theme),
  volume: z.number().min(0).max(1).catch(DEFAULT_SETTINGS.volume),
  clickLevel: z.number().min(0).max(1).catch(DEFAULT_SETTINGS.clickLevel),
  countIn: z.boolean().catch(DEFAULT_SETTINGS.countIn),
  earFirst: z.boolean().catch(DEFAULT_SETTINGS.earFirst),
  pedals: z.record(z.string(), z.string()).catch(DEFAULT_SETTINGS.pedals),
  spelling: z.enum(['key', 'sharps', 'flats']).catch(DEFAULT_SETTINGS.spelling),
  stair: stairSchema.catch(DEFAULT_SETTINGS.stair),
  practiceMinutes: z.int().min(5).max(180).catch(DEFAULT_SETTINGS.practiceMinutes),
  inputDelayMs: z.number().min(0).max(1000).nullable().catch(DEFAULT_SETTINGS.inputDelayMs),
  stringSet: z.string().catch(DEFAULT_SETTINGS.stringSet),
  scaleMm: z.number().min(500).max(800).catch(DEFAULT_SETTINGS.scaleMm),
});

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

export const restoreSettings = createEffect(
  (actions$ = inject(Actions)) =>
    actions$.pipe(
      ofType(ROOT_EFFECTS_INIT),
      map(() => {
        const parsed = storedSchema.safeParse(readStored());
        return settingsActions.restored({ settings: parsed.success ? parsed.data : DEFAULT_SETTINGS });
      }),
    ),
  { functional: true },
);

export const keepSettings = createEffect(
  (actions$ = inject(Actions), store = inject(Store), document = inject(DOCUMENT)) =>
    actions$.pipe(
      ofType(
        settingsActions.restored,
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
      ),
      withLatestFrom(store.select(settingsFeature.selectSettingsState)),
      tap(([, settings]) => {
        keep(settings);
        document.documentElement.dataset['theme'] = settings.theme;
      }),
    ),
  { functional: true, dispatch: false },
);
