import { ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { of } from 'rxjs';
import { afterEach, describe, expect, it } from 'vitest';
import { settingsActions } from './settings.actions';
import { restoreSettings } from './settings.effects';
import { DEFAULT_SETTINGS } from './settings.state';

function restored(stored: string): unknown {
  localStorage.setItem('wild-needle.settings', stored);
  let action: unknown = null;
  restoreSettings(of({ type: ROOT_EFFECTS_INIT })).subscribe((dispatched) => (action = dispatched));
  return action;
}

describe('settings of the browser', () => {
  afterEach(() => localStorage.clear());

  it.each([
    ['damaged text', '{"theme": "da', {}],
    ['another kind of value', '[1]', {}],
    ['one value out of range', '{"theme": "dark", "volume": 7}', { theme: 'dark' as const }],
  ])('start from the usual ones for %s', (_name, stored, kept) => {
    const settings = { ...DEFAULT_SETTINGS, ...kept };
    expect(restored(stored)).toEqual(settingsActions.restored({ settings }));
  });
});
