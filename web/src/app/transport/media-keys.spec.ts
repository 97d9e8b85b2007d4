import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { MediaKeys } from './media-keys';

/** A browser's media session, and the silent element that keeps it with this page. */
const session = {
  handlers: new Map<string, MediaSessionActionHandler | null>(),
  metadata: null as { title: string; artist: string } | null,
  playbackState: 'none',
  position: null as MediaPositionState | null,
  setActionHandler: (action: string, handler: MediaSessionActionHandler | null) =>
    session.handlers.set(action, handler),
  setPositionState: (state: MediaPositionState) => (session.position = state),
};
const silence = { isPlaying: false };

const NOW = { title: 'Salt', artist: 'Lantern', isPlaying: true, positionS: 12, durationS: 60, speed: 0.5 };

describe('media keys', () => {
  const done: string[] = [];
  const keys = (): MediaKeys =>
    new MediaKeys({
      play: () => done.push('play'),
      stop: () => done.push('stop'),
      toStart: () => done.push('start'),
      slow: () => done.push('slow'),
      seek: (timeS) => done.push(`seek ${timeS}`),
      jump: (by) => done.push(`jump ${by}`),
    });

  beforeEach(() => {
    done.length = 0;
    vi.stubGlobal('navigator', { mediaSession: session });
    vi.stubGlobal('MediaMetadata', function (this: object, facts: object) {
      Object.assign(this, facts);
    });
    vi.stubGlobal(
      'Audio',
      class {
        play(): Promise<void> {
          silence.isPlaying = true;
          return Promise.resolve();
        }
        pause(): void {
          silence.isPlaying = false;
        }
      },
    );
  });
  afterEach(() => vi.unstubAllGlobals());

  it('do what they say', () => {
    keys();
    const press = (action: MediaSessionAction, details: object = {}): void =>
      session.handlers.get(action)?.({ action, ...details });
    press('play');
    press('pause');
    press('previoustrack');
    press('nexttrack');
    press('seekto', { seekTime: 7 });
    press('seekbackward');
    press('seekforward');
    expect(done).toEqual(['play', 'stop', 'start', 'slow', 'seek 7', 'jump -1', 'jump 1']);
  });

  it('show what plays, and hold the keys with a silent sound while it does', () => {
    const media = keys();
    media.show(NOW);
    expect(session.metadata).toMatchObject({ title: 'Salt', artist: 'Lantern' });
    expect(session.position).toEqual({ duration: 60, playbackRate: 0.5, position: 12 });
    expect([session.playbackState, silence.isPlaying]).toEqual(['playing', true]);
    media.show({ ...NOW, isPlaying: false, positionS: 99 });
    expect([session.playbackState, silence.isPlaying, session.position?.position]).toEqual([
      'paused',
      false,
      60,
    ]);
  });

  it('are let go of', () => {
    const media = keys();
    media.show(NOW);
    media.drop();
    expect([...session.handlers.values()].every((handler) => handler === null)).toBe(true);
    expect([session.metadata, session.playbackState, silence.isPlaying]).toEqual([null, 'none', false]);
  });
});
