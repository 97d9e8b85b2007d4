import { TestBed } from '@angular/core/testing';
import { provideStore } from '@ngrx/store';
import { beforeEach, describe, expect, it } from 'vitest';
import { settingsFeature } from '../state/settings/settings.reducer';
import { Pedals, readPedal, type PedalCommand } from './pedals';

const bytes = (...values: number[]): Uint8Array => Uint8Array.from(values);

describe('MIDI bytes', () => {
  it('of switches and pedals are read on any channel', () => {
    expect(readPedal(bytes(0xb0, 64, 127))).toEqual({ pedal: 'control 64', value: 1 });
    expect(readPedal(bytes(0xbf, 64, 0))).toEqual({ pedal: 'control 64', value: 0 });
    expect(readPedal(bytes(0x92, 36, 100))).toEqual({ pedal: 'note 36', value: 1 });
    expect(readPedal(bytes(0xc3, 5))).toEqual({ pedal: 'program 5', value: 1 });
  });

  it('of other things are left alone', () => {
    for (const other of [
      bytes(0x80, 36, 0),
      bytes(0x90, 36, 0),
      bytes(0xf8),
      bytes(0xe0, 0, 64),
      bytes(0xb0),
    ]) {
      expect(readPedal(other)).toBeNull();
    }
  });
});

describe('pedals', () => {
  let pedals: Pedals;
  let done: [PedalCommand, number][];
  beforeEach(() => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [provideStore({ [settingsFeature.name]: settingsFeature.reducer })],
    });
    pedals = TestBed.inject(Pedals);
    done = [];
    pedals.setHandler((command, value) => done.push([command, value]));
  });

  it('learn what they do by being pressed, and do it once a press', () => {
    pedals.learn('loop');
    pedals.receive(bytes(0xb0, 70, 127));
    expect([pedals.learning(), pedals.assigned()['loop'], done]).toEqual([null, 'control 70', []]);
    pedals.receive(bytes(0xb0, 70, 127));
    pedals.receive(bytes(0xb0, 70, 0));
    pedals.receive(bytes(0xb0, 70, 127));
    expect(done).toEqual([['loop', 1]]);
  });

  it('have one meaning: a pedal that is learned anew leaves its old command', () => {
    pedals.learn('loop');
    pedals.receive(bytes(0xc0, 1));
    pedals.learn('slow');
    pedals.receive(bytes(0xc0, 1));
    pedals.receive(bytes(0xc0, 1));
    pedals.receive(bytes(0xc0, 1));
    expect(done.map(([command]) => command)).toEqual(['slow', 'slow']);
    expect(pedals.assigned()['loop']).toBeUndefined();
  });

  it('follow an expression pedal on its whole way', () => {
    pedals.learn('speed');
    pedals.receive(bytes(0xb0, 11, 127));
    for (const value of [100, 64, 0]) pedals.receive(bytes(0xb0, 11, value));
    expect(done.map(([, value]) => Math.round(127 * value))).toEqual([100, 64, 0]);
  });

  it('can be forgotten, and learning can be taken back', () => {
    pedals.learn('play');
    pedals.learn('play');
    pedals.receive(bytes(0xb0, 80, 127));
    expect(pedals.assigned()['play']).toBeUndefined();
    pedals.learn('play');
    pedals.receive(bytes(0xb0, 80, 0));
    pedals.receive(bytes(0xb0, 80, 127));
    expect(pedals.assigned()['play']).toBe('control 80');
    pedals.forget('play');
    pedals.receive(bytes(0xb0, 80, 0));
    pedals.receive(bytes(0xb0, 80, 127));
    expect(done).toEqual([]);
  });
});
