/** The size of an element that a view shows now and then, as a signal's effect. */
import { effect, type ElementRef, type Signal } from '@angular/core';

/** Tells the size of an element now and after every change. */
export function observeSize(
  element: Signal<ElementRef<HTMLElement> | undefined>,
  onSize: (size: DOMRectReadOnly) => void,
): void {
  const observer = new ResizeObserver(([entry]) => onSize(entry.contentRect));
  effect((onCleanup) => {
    const observed = element()?.nativeElement;
    if (!observed) return;
    observer.observe(observed);
    onCleanup(() => observer.unobserve(observed));
  });
}
