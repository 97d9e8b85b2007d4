/** How the settings change. */
import { createFeature, createReducer, on } from '@ngrx/store';
import { settingsActions } from './settings.actions';
import { DEFAULT_SETTINGS, type SettingsState } from './settings.state';

export const settingsFeature = createFeature({
  name: 'settings',
  reducer: createReducer(
    DEFAULT_SETTINGS,
    on(settingsActions.restored, (_state, { settings }): SettingsState => settings),
    on(settingsActions.themeChosen, (state, { theme }): SettingsState => ({ ...state, theme })),
    on(settingsActions.clickLevelChanged, (state, { clickLevel }): SettingsState => ({
      ...state,
      clickLevel,
    })),
    on(settingsActions.countInSwitched, (state, { countIn }): SettingsState => ({ ...state, countIn })),
    on(settingsActions.earFirstSwitched, (state, { earFirst }): SettingsState => ({ ...state, earFirst })),
    on(settingsActions.spellingChosen, (state, { spelling }): SettingsState => ({ ...state, spelling })),
    on(settingsActions.stringsChosen, (state, { stringSet, scaleMm }): SettingsState => ({
      ...state,
      stringSet,
      scaleMm,
    })),
    on(settingsActions.stairChanged, (state, { stair }): SettingsState => ({ ...state, stair })),
    on(settingsActions.practiceMinutesChanged, (state, { practiceMinutes }): SettingsState => ({
      ...state,
      practiceMinutes,
    })),
    on(settingsActions.inputDelayMeasured, (state, { inputDelayMs }): SettingsState => ({
      ...state,
      inputDelayMs,
    })),
    // A pedal does one thing.
    on(settingsActions.pedalAssigned, (state, { command, pedal }): SettingsState => {
      const others = Object.entries(state.pedals).filter(([c, p]) => c !== command && p !== pedal);
      return {
        ...state,
        pedals: Object.fromEntries(pedal === null ? others : [...others, [command, pedal]]),
      };
    }),
    on(settingsActions.volumeChanged, (state, { volume }): SettingsState => ({ ...state, volume })),
  ),
});
