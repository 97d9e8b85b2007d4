/** Lets what the eye is on be painted first, and the rest follow in the frame behind it. */
import { effect, signal, untracked, type Signal } from '@angular/core';

/** Follows `source` by a frame: what hangs on it does not lengthen the way from a key to the tab. In an injection context. */
export function behindPaint<T>(source: Signal<T>): Signal<T> {
  const shown = signal(untracked(source));
  effect((onCleanup) => {
    const value = source();
    let timer: ReturnType<typeof setTimeout> | undefined;
    // A timer that is set while a frame is prepared runs when that frame is out.
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => shown.set(value));
    });
    onCleanup(() => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    });
  });
  return shown.asReadonly();
}
