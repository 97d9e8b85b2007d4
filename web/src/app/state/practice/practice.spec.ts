import { TestBed } from '@angular/core/testing';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import { of, throwError } from 'rxjs';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { PracticeRound } from '@wild-needle/contract';
import { Api } from '../../api/api';
import { practiceActions } from './practice.actions';
import * as effects from './practice.effects';
import { practiceFeature } from './practice.reducer';

const SONG = '00000000-0000-4000-8000-000000000001';
const round = (n: number): PracticeRound => ({
  id: `00000000-0000-4000-8000-00000000010${n}`,
  at: `2026-02-03T10:00:0${n}.000Z`,
  songId: SONG,
  item: 'riff:b',
  way: 'whole',
  isWhole: true,
  percent: 80,
  answer: 'clean',
  seconds: 4,
  heard: null,
});

function page(api: Partial<Api>): Store {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [
      provideStore(),
      provideState(practiceFeature),
      provideEffects(effects),
      { provide: Api, useValue: api },
    ],
  });
  return TestBed.inject<Store>(Store);
}
const ids = (rounds: readonly PracticeRound[]): number[] => rounds.map((r) => Number(r.id.slice(-1)));

describe('rounds that were practised', () => {
  afterEach(() => localStorage.clear());

  it('wait for a server that is away, over a reload, and are sent with the next one', () => {
    const away = page({
      practiceRounds: () => throwError(() => new Error('away')),
      keepPracticeRound: () => throwError(() => new Error('away')),
    });
    away.dispatch(practiceActions.opened({ songId: SONG }));
    away.dispatch(practiceActions.roundPlayed({ round: round(1) }));
    expect(ids(away.selectSignal(practiceFeature.selectUnsent)())).toEqual([1]);
    expect(away.selectSignal(practiceFeature.selectStatus)()).toBe('failed');

    const keepPracticeRound = vi.fn(() => of(undefined));
    const back = page({ practiceRounds: () => of([round(2)]), keepPracticeRound });
    back.dispatch(practiceActions.opened({ songId: SONG }));
    expect(ids(back.selectSignal(practiceFeature.selectRounds)())).toEqual([1, 2]);
    expect(keepPracticeRound).toHaveBeenCalledWith(round(1));
    expect(back.selectSignal(practiceFeature.selectUnsent)()).toEqual([]);
    expect(localStorage.length).toBe(0);
  });

  it('of another song are not shown, and a damaged one in the browser is passed over', () => {
    localStorage.setItem('wild-needle.practice-round.x', '{"id": 1}');
    const store = page({ practiceRounds: () => of([]), keepPracticeRound: () => of(undefined) });
    store.dispatch(practiceActions.opened({ songId: SONG }));
    store.dispatch(practiceActions.roundPlayed({ round: { ...round(3), songId: round(9).id } }));
    expect(store.selectSignal(practiceFeature.selectRounds)()).toEqual([]);
  });
});
