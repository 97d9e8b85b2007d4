import { beforeEach, describe, expect, it } from 'vitest';
import { WorkCount, type Stretch } from './work-clock';

describe('time that hands are on a song', () => {
  let stretches: Stretch[];
  let count: WorkCount;
  /** Looks every five seconds from one second to another. */
  const look = (fromS: number, toS: number, song = 'a', step: Stretch['step'] = 'riffs'): void => {
    for (let s = fromS; s <= toS; s += 5) count.look(1000 * s, song, step);
  };
  const seconds = (): number => stretches.reduce((sum, s) => sum + s.seconds, 0);

  beforeEach(() => {
    stretches = [];
    count = new WorkCount((stretch) => stretches.push(stretch));
  });

  it('counts until the hands were off for a minute', () => {
    count.hands(0);
    look(0, 300);
    count.end();
    expect(seconds()).toBe(60);
  });

  it('is handed over in stretches of half a minute, each under an id of its own', () => {
    count.hands(0);
    look(0, 60);
    expect(stretches.map((s) => s.seconds)).toEqual([30, 30]);
    expect(new Set(stretches.map((s) => s.id)).size).toBe(2);
  });

  it('belongs to the song and the step that were open', () => {
    count.hands(0);
    look(0, 10);
    look(15, 20, 'a', 'check');
    look(25, 30, 'b');
    count.end();
    expect(stretches.map(({ songId, step }) => [songId, step])).toEqual([
      ['a', 'riffs'],
      ['a', 'check'],
      ['b', 'riffs'],
    ]);
  });

  it('is nothing without hands, nor while the computer slept', () => {
    look(0, 100);
    count.hands(100_000);
    count.look(4_000_000, 'a', 'riffs');
    count.end();
    expect(seconds()).toBe(0);
  });
});
