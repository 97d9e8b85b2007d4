import { ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { of, type Observable } from 'rxjs';
import { DEFAULT_SETTINGS, type Settings } from '@wild-needle/contract';
import { afterEach, describe, expect, it } from 'vitest';
import type { Api } from '../../api/api';
import { settingsActions } from './settings.actions';
import { fetchSettings, restoreSettings } from './settings.effects';

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

  it('come from the server where this browser has none, and only there', () => {
    const settings = { ...DEFAULT_SETTINGS, theme: 'dark' as const };
    const api = { settings: (): Observable<Settings | null> => of(settings) } as Api;
    const fetched: unknown[] = [];
    const fetch = (): unknown =>
      fetchSettings(of(settingsActions.wanted()), api).subscribe((action) => fetched.push(action));
    fetch();
    expect(fetched).toEqual([settingsActions.restored({ settings })]);
    localStorage.setItem('wild-needle.settings', '{}');
    fetch();
    expect(fetched).toHaveLength(1);
  });
});
