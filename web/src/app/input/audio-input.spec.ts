import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { AudioInput, channelOf } from './audio-input';

const track = Object.assign(new EventTarget(), { stop: vi.fn() });
const stream = { getTracks: () => [track], getAudioTracks: () => [track] };
const context = {
  audioWorklet: { addModule: () => Promise.resolve() },
  createMediaStreamSource: () => ({ connect: () => undefined, disconnect: () => undefined }),
} as unknown as AudioContext;

describe('an input', () => {
  let answer: () => Promise<unknown>;
  let input: AudioInput;
  beforeEach(() => {
    answer = () => Promise.resolve(stream);
    vi.stubGlobal('AudioWorkletNode', function (this: object) {
      Object.assign(this, { port: { close: () => undefined }, disconnect: () => undefined });
    });
    vi.stubGlobal('navigator', {
      mediaDevices: {
        getUserMedia: () => answer(),
        enumerateDevices: () => Promise.resolve([{ kind: 'audioinput', deviceId: 'a', label: '' }]),
      },
    });
    input = TestBed.inject(AudioInput);
  });
  afterEach(() => {
    vi.unstubAllGlobals();
    TestBed.resetTestingModule();
  });

  it('is on once it is allowed, knows its devices, and says when it is unplugged', async () => {
    expect(await input.start(context, () => undefined)).toBe(true);
    expect([input.status(), input.devices()]).toEqual(['on', [{ id: 'a', label: 'Input 1' }]]);
    track.dispatchEvent(new Event('ended'));
    expect(input.status()).toBe('lost');
  });

  it.each([
    ['NotAllowedError', 'refused'],
    ['NotFoundError', 'none'],
    ['OverconstrainedError', 'none'],
  ])('that fails with %s is %s', async (name, status) => {
    answer = () => Promise.reject(new DOMException('no', name));
    expect(await input.start(context, () => undefined)).toBe(false);
    expect(input.status()).toBe(status);
  });

  it('that is allowed only after it was switched off stays off', async () => {
    let allow: (given: unknown) => void = () => undefined;
    answer = () => new Promise((resolve) => (allow = resolve));
    const started = input.start(context, () => undefined);
    input.stop();
    allow(stream);
    expect(await started).toBe(false);
    expect(input.status()).toBe('off');
    expect(track.stop).toHaveBeenCalled();
  });

  it('is heard on the channel that carries the guitar', () => {
    const channels = [Float32Array.of(1, 0), Float32Array.of(0, 0.5)];
    expect([...channelOf({ channels }, 'mix')]).toEqual([0.5, 0.25]);
    expect([...channelOf({ channels }, 'right')]).toEqual([0, 0.5]);
    expect([...channelOf({ channels: channels.slice(0, 1) }, 'right')]).toEqual([1, 0]);
  });
});
