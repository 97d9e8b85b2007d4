/** What the user prefers on this computer. */
import { createFeature, createReducer, on } from '@ngrx/store';
import { settingsActions } from './settings.actions';

export interface SettingsState {
  /** `auto` follows the operating system. */
  readonly theme: 'auto' | 'light' | 'dark';
  /** 0 to 1. */
  readonly volume: number;
}

/** Loud enough to hear, with room above: hearing comes first. */
export const DEFAULT_SETTINGS: SettingsState = { theme: 'auto', volume: 0.6 };

export const settingsFeature = createFeature({
  name: 'settings',
  reducer: createReducer(
    DEFAULT_SETTINGS,
    on(settingsActions.restored, (_state, { settings }): SettingsState => settings),
    on(settingsActions.themeChosen, (state, { theme }): SettingsState => ({ ...state, theme })),
    on(settingsActions.volumeChanged, (state, { volume }): SettingsState => ({ ...state, volume })),
  ),
});
