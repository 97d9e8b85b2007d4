/** What the deck plays follows the instruments: which pieces of the band are apart, and how loud its parts are. */
import { effect, inject, Injectable, untracked } from '@angular/core';
import { InstrumentsStore } from '../open-song/instruments.store';
import { Player } from './player';

/** While the band is taken apart, what sounds is made anew at most this often. */
const ANEW_EVERY_MS = 4000;
/** While a slider is dragged, the sound follows at most this often. */
const HEAR_EVERY_MS = 150;

@Injectable()
export class BandSound {
  private readonly instruments = inject(InstrumentsStore);
  private readonly player = inject(Player);

  constructor() {
    let madeAtMs = 0;
    effect((onCleanup) => {
      const addresses = this.instruments.addresses();
      if (this.player.status() !== 'ready') return;
      const dueMs = this.instruments.isUnderway() ? madeAtMs + ANEW_EVERY_MS - Date.now() : 0;
      const later = setTimeout(
        () => {
          madeAtMs = Date.now();
          this.player.setApart(addresses);
        },
        Math.max(0, dueMs),
      );
      onCleanup(() => clearTimeout(later));
    });
    let heard: ReturnType<typeof setTimeout> | undefined;
    effect(() => {
      const gains = this.instruments.gains();
      if (this.player.status() !== 'ready') return;
      if (gains === null && untracked(this.player.hearing).parts === null) return;
      heard ??= setTimeout(() => {
        heard = undefined;
        this.player.setHearing({ ...this.player.hearing(), parts: this.instruments.gains() });
      }, HEAR_EVERY_MS);
    });
  }
}
