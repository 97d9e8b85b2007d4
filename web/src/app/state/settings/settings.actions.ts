import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { Settings } from '@wild-needle/contract';
import type { StairSettings } from '@wild-needle/core/practice';

export const settingsActions = createActionGroup({
  source: 'Settings',
  events: {
    /** Where this browser has none. */
    Wanted: emptyProps(),
    Restored: props<{ settings: Settings }>(),
    'Theme Chosen': props<{ theme: Settings['theme'] }>(),
    'Volume Changed': props<{ volume: number }>(),
    'Click Level Changed': props<{ clickLevel: number }>(),
    'Count In Switched': props<{ countIn: boolean }>(),
    'Ear First Switched': props<{ earFirst: boolean }>(),
    'Spelling Chosen': props<{ spelling: Settings['spelling'] }>(),
    'Strings Chosen': props<{ stringSet: string; scaleMm: number }>(),
    'Stair Changed': props<{ stair: StairSettings }>(),
    'Practice Minutes Changed': props<{ practiceMinutes: number }>(),
    'Input Delay Measured': props<{ inputDelayMs: number }>(),
    'Pedal Assigned': props<{ command: string; pedal: string | null }>(),
  },
});
