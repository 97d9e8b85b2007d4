import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { behindPaint } from './behind-paint';

/** Runs what was asked to run before the next frame, then the timers that it set. */
function nextFrame(): void {
  vi.advanceTimersToNextFrame();
  vi.advanceTimersByTime(1);
}

describe('behindPaint', () => {
  beforeEach(() => {
    vi.useFakeTimers({
      toFake: ['requestAnimationFrame', 'cancelAnimationFrame', 'setTimeout', 'clearTimeout'],
    });
    return () => vi.useRealTimers();
  });

  it('starts with what is there', () => {
    expect(TestBed.runInInjectionContext(() => behindPaint(signal('E5')))()).toBe('E5');
  });

  it('follows when the frame is out and not before', () => {
    const source = signal('E5');
    const shown = TestBed.runInInjectionContext(() => behindPaint(source));
    TestBed.tick();
    nextFrame();
    source.set('G5');
    TestBed.tick();
    expect(shown()).toBe('E5');
    nextFrame();
    expect(shown()).toBe('G5');
  });

  it('shows only the last of what changed within a frame', () => {
    const source = signal(1);
    const shown = TestBed.runInInjectionContext(() => behindPaint(source));
    for (const value of [2, 3]) {
      source.set(value);
      TestBed.tick();
      expect(shown()).toBe(1);
    }
    nextFrame();
    expect(shown()).toBe(3);
  });
});
