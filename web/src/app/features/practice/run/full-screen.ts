/** The whole screen for the tab, and a screen that stays awake while music plays (Fullscreen API, Screen Wake Lock API; W3C). */
import { DestroyRef, DOCUMENT, effect, inject, Injectable } from '@angular/core';
import { Player } from '../../../transport/player';

@Injectable()
export class FullScreen {
  private readonly page = inject(DOCUMENT);
  private readonly player = inject(Player);
  private lock: WakeLockSentinel | null = null;
  private isWanted = false;

  constructor() {
    const wake = (): void => void this.stayAwake();
    effect(() => {
      this.isWanted = this.player.playing();
      wake();
    });
    // The browser takes the lock back when the page is hidden.
    this.page.addEventListener('visibilitychange', wake);
    inject(DestroyRef).onDestroy(() => {
      this.page.removeEventListener('visibilitychange', wake);
      this.isWanted = false;
      wake();
      if (this.page.fullscreenElement) void this.page.exitFullscreen();
    });
  }

  toggle(): void {
    if (this.page.fullscreenElement) void this.page.exitFullscreen();
    // Where the browser forbids it, everything stays as it is.
    else this.page.documentElement.requestFullscreen().catch(() => undefined);
  }

  private async stayAwake(): Promise<void> {
    if (!this.isWanted) {
      await this.lock?.release();
      this.lock = null;
      return;
    }
    if (!('wakeLock' in navigator) || this.page.hidden || (this.lock && !this.lock.released)) return;
    try {
      this.lock = await navigator.wakeLock.request('screen');
      if (!this.isWanted) await this.stayAwake();
    } catch {
      // An empty battery, or a browser that forbids it: the screen goes its own way.
      this.lock = null;
    }
  }
}
