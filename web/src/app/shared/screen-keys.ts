/** The keys of the screen that is open, for the card that shows them; each screen says its own. */
import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { KeyMap } from './key-map';

@Injectable({ providedIn: 'root' })
export class ScreenKeys {
  private readonly shownSignal = signal<KeyMap>({});
  readonly shown = this.shownSignal.asReadonly();

  /** From within a component: its keys, for as long as it lives. */
  show(keys: KeyMap): void {
    this.shownSignal.set(keys);
    inject(DestroyRef).onDestroy(() => {
      if (this.shownSignal() === keys) this.shownSignal.set({});
    });
  }
}
