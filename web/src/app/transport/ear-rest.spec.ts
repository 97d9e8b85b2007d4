import { describe, expect, it } from 'vitest';
import { LISTEN_MINUTES, listenOn, REST_MINUTES, type Listened } from './ear-rest';

function after(
  minutes: number,
  playing: boolean,
  from: Listened = { minutes: 0, silentMinutes: 0 },
): Listened {
  return Array.from({ length: 4 * minutes }).reduce<Listened>((l) => listenOn(l, playing, 0.25), from);
}

describe('rest for the ears', () => {
  it('is due after three quarters of an hour of sound', () => {
    expect(after(LISTEN_MINUTES, true).minutes).toBe(LISTEN_MINUTES);
  });

  it('is not had by a short pause', () => {
    const paused = after(2, false, after(30, true));
    expect(after(5, true, paused).minutes).toBe(35);
  });

  it('starts anew after a real one', () => {
    expect(after(REST_MINUTES, false, after(50, true)).minutes).toBe(0);
  });
});
