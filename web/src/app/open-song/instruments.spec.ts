import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { of, throwError } from 'rxjs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Instruments, Separation } from '@wild-needle/contract';
import { toggleSilent, WHOLE_BAND, type PartMix } from '@wild-needle/core/parts';
import { Api } from '../api/api';
import { HeardIn } from './heard-in';
import { InstrumentsStore } from './instruments.store';
import { OpenSongStore } from './open-song.store';

const separation = (engine: Separation['engine'], values: Partial<Separation>): Separation => ({
  ...{
    engine,
    status: 'done',
    ready: [],
    pieces: 3,
    secondsLeft: null,
    byteLength: 10,
    missing: [],
    problem: null,
  },
  ...values,
});
const nothing: Instruments = { engines: [], separations: [] };

describe('the instruments of the open song', () => {
  let info: Instruments;
  let asked: number;
  const kept: [string, PartMix][] = [];
  const songId = signal('song');
  const recording = signal<{ id: string } | null>({ id: 'recording' });

  beforeEach(() => {
    vi.useFakeTimers();
    [info, asked] = [nothing, 0];
    kept.length = 0;
    songId.set('song');
    recording.set({ id: 'recording' });
    const api = {
      instruments: () => {
        asked++;
        return of(info);
      },
      takeApart: () => of(info),
      partMix: (id: string) => of(id === 'song' ? toggleSilent(WHOLE_BAND, 'bass') : WHOLE_BAND),
      keepPartMix: (id: string, mix: PartMix) => {
        kept.push([id, mix]);
        return of(undefined);
      },
    };
    TestBed.configureTestingModule({
      providers: [
        { provide: Api, useValue: api },
        { provide: HeardIn, useValue: { recording } },
        { provide: OpenSongStore, useValue: { songId, status: () => 'open' } },
      ],
    });
  });
  afterEach(() => {
    vi.useRealTimers();
    TestBed.resetTestingModule();
  });

  async function shown(now: Instruments): Promise<InstanceType<typeof InstrumentsStore>> {
    info = now;
    const store = TestBed.inject(InstrumentsStore);
    store.show(true);
    TestBed.tick();
    await vi.advanceTimersByTimeAsync(0);
    TestBed.tick();
    return store;
  }

  it('has clean guitars where the network has the piece, also while the panel is closed', async () => {
    const store = TestBed.inject(InstrumentsStore);
    TestBed.tick();
    expect(asked).toBe(0);
    const rough = separation('rough', { ready: [0, 1, 2] });
    const cleanWith = async (ready: number[]): Promise<boolean[]> => {
      info = { engines: [], separations: [separation('network', { status: 'running', ready }), rough] };
      await store.refresh();
      return store.cleanAddresses().map((address) => address.endsWith(`network/${Math.max(...ready)}`));
    };
    expect(await cleanWith([1])).toEqual([false, true, false]);
    expect(store.cleanAddresses()[0]).toBe('');
    // It works on while nobody looks.
    expect(await cleanWith([1, 2])).toEqual([false, false, true]);
    expect(store.cleanAddresses()[1]).not.toBe('');
    expect(store.gains()).toBeNull();
    const guitarsOnly = separation('network', { ready: [0, 1, 2], missing: ['drums', 'voice'] });
    info = { engines: [], separations: [guitarsOnly] };
    await store.refresh();
    expect(store.cleanAddresses()).toEqual([]);
  });

  it('ask nothing while the panel is closed', async () => {
    const store = TestBed.inject(InstrumentsStore);
    TestBed.tick();
    await vi.advanceTimersByTimeAsync(5000);
    expect(asked).toBe(0);
    expect(store.gains()).toBeNull();
  });

  it('are the best that there is of each piece', async () => {
    const store = await shown({
      ...nothing,
      separations: [
        separation('network', { status: 'running', ready: [1] }),
        separation('rough', { ready: [0, 1] }),
      ],
    });
    expect(store.addresses()).toEqual([
      '/api/recordings/recording/instruments/rough/0',
      '/api/recordings/recording/instruments/network/1',
      '',
    ]);
    expect([1, 7, 13].map((s) => store.isApartAt(s))).toEqual([true, true, false]);
    expect(store.separation()?.engine).toBe('network');
    expect(store.byteLength()).toBe(20);
  });

  it('are asked for again while they are taken apart, and then no more', async () => {
    await shown({ ...nothing, separations: [separation('rough', { status: 'running' })] });
    await vi.advanceTimersByTimeAsync(3000);
    const before = asked;
    expect(before).toBeGreaterThan(2);
    info = { ...nothing, separations: [separation('rough', { ready: [0, 1, 2] })] };
    await vi.advanceTimersByTimeAsync(1000);
    await vi.advanceTimersByTimeAsync(5000);
    expect(asked).toBe(before + 1);
  });

  it('sound as the song has them kept, once they are apart', async () => {
    const store = await shown({ ...nothing, separations: [separation('rough', { ready: [0] })] });
    expect(store.gains()).toEqual({ drums: 1, bass: 0, voice: 1, guitars: 1 });
    store.changeMix((mix) => toggleSilent(mix, 'bass'));
    // As it was recorded: nothing is to be mixed.
    expect(store.gains()).toBeNull();
    store.changeMix((mix) => toggleSilent(mix, 'drums'));
    await vi.advanceTimersByTimeAsync(1000);
    expect(kept).toEqual([['song', toggleSilent(WHOLE_BAND, 'drums')]]);
    store.show(false);
    expect(store.gains()).toBeNull();
  });

  it('of another song are its own', async () => {
    const store = await shown(nothing);
    expect(store.mix().silent).toEqual(['bass']);
    songId.set('other');
    TestBed.tick();
    await vi.advanceTimersByTimeAsync(0);
    expect(store.mix()).toEqual(WHOLE_BAND);
  });

  it('say what went wrong', async () => {
    const store = await shown(nothing);
    const api = TestBed.inject(Api);
    vi.spyOn(api, 'takeApart').mockReturnValue(throwError(() => new Error('It needs 4.5 GB.')));
    await store.takeApart('network', 0);
    expect(store.problem()).toBe('It needs 4.5 GB.');
    await store.refresh();
    expect(store.problem()).toBe('');
  });
});
