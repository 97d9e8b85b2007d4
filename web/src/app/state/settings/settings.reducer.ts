/** How the settings change. */
import { createFeature, createReducer, on } from '@ngrx/store';
import { DEFAULT_SETTINGS, type Settings } from '@wild-needle/contract';
import { settingsActions } from './settings.actions';

export const settingsFeature = createFeature({
  name: 'settings',
  reducer: createReducer(
    DEFAULT_SETTINGS,
    on(settingsActions.restored, (_state, { settings }): Settings => settings),
    on(settingsActions.themeChosen, (state, { theme }): Settings => ({ ...state, theme })),
    on(settingsActions.clickLevelChanged, (state, { clickLevel }): Settings => ({
      ...state,
      clickLevel,
    })),
    on(settingsActions.countInSwitched, (state, { countIn }): Settings => ({ ...state, countIn })),
    on(settingsActions.earFirstSwitched, (state, { earFirst }): Settings => ({ ...state, earFirst })),
    on(settingsActions.spellingChosen, (state, { spelling }): Settings => ({ ...state, spelling })),
    on(settingsActions.stringsChosen, (state, { stringSet, scaleMm }): Settings => ({
      ...state,
      stringSet,
      scaleMm,
    })),
    on(settingsActions.stairChanged, (state, { stair }): Settings => ({ ...state, stair })),
    on(settingsActions.practiceMinutesChanged, (state, { practiceMinutes }): Settings => ({
      ...state,
      practiceMinutes,
    })),
    on(settingsActions.inputDelayMeasured, (state, { inputDelayMs }): Settings => ({
      ...state,
      inputDelayMs,
    })),
    // A pedal does one thing.
    on(settingsActions.pedalAssigned, (state, { command, pedal }): Settings => {
      const others = Object.entries(state.pedals).filter(([c, p]) => c !== command && p !== pedal);
      return {
        ...state,
        pedals: Object.fromEntries(pedal === null ? others : [...others, [command, pedal]]),
      };
    }),
    on(settingsActions.volumeChanged, (state, { volume }): Settings => ({ ...state, volume })),
  ),
});
