import { createActionGroup, props } from '@ngrx/store';
import type { StairSettings } from '@wild-needle/core/practice';
import type { SettingsState } from './settings.state';

export const settingsActions = createActionGroup({
  source: 'Settings',
  events: {
    Restored: props<{ settings: SettingsState }>(),
    'Theme Chosen': props<{ theme: SettingsState['theme'] }>(),
    'Volume Changed': props<{ volume: number }>(),
    'Click Level Changed': props<{ clickLevel: number }>(),
    'Count In Switched': props<{ countIn: boolean }>(),
    'Ear First Switched': props<{ earFirst: boolean }>(),
    'Spelling Chosen': props<{ spelling: SettingsState['spelling'] }>(),
    'Strings Chosen': props<{ stringSet: string; scaleMm: number }>(),
    'Stair Changed': props<{ stair: StairSettings }>(),
    'Practice Minutes Changed': props<{ practiceMinutes: number }>(),
    'Input Delay Measured': props<{ inputDelayMs: number }>(),
    'Pedal Assigned': props<{ command: string; pedal: string | null }>(),
  },
});
