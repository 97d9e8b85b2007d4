/**
 * Which part of the song the strip shows: the whole, or a window down to single samples. Zooms around a place, scrolls, and
 * goes along with the needle while it plays.
 */
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Player } from '../../transport/player';
import { OpenSongStore } from '../../open-song/open-song.store';

/** Shortest window on screen: about a sample a pixel. */
const SHORTEST_S = 0.02;
/** Share of the view that is shown again when the needle leaves it. */
const OVERLAP = 0.1;

export interface ViewWindow {
  readonly fromS: number;
  readonly toS: number;
}

@Injectable()
export class StripView {
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  /** Null shows the whole song. */
  private readonly chosen = signal<ViewWindow | null>(null);
  /** Of the lane, pixels; follows the window. */
  readonly width = signal(Math.max(300, innerWidth - 32));

  /** The recording's length is known before its sound is decoded; without one its beats last as long as its silence. */
  readonly durationS = computed(() => this.song.recording()?.durationS ?? this.player.durationS());
  readonly window = computed((): ViewWindow => this.chosen() ?? { fromS: 0, toS: this.durationS() });
  readonly isZoomed = computed(() => this.chosen() !== null);
  readonly lengthS = computed(() => Math.max(1e-6, this.window().toS - this.window().fromS));

  constructor() {
    // Another song is seen whole.
    effect(() => {
      this.song.songId();
      untracked(() => this.chosen.set(null));
    });
    effect(() => {
      const nowS = this.player.nowS();
      if (this.player.playing()) untracked(() => this.follow(nowS));
    });
  }

  /** Pixels from the left edge; outside of 0 and the width for what is not shown. */
  xOf(timeS: number): number {
    return ((timeS - this.window().fromS) / this.lengthS()) * this.width();
  }

  /** Per cent of the width. */
  percentOf(timeS: number): number {
    return (100 * (timeS - this.window().fromS)) / this.lengthS();
  }

  timeAt(x: number): number {
    return this.window().fromS + (x / this.width()) * this.lengthS();
  }

  /** Shows `factor` times as much, with what is at `timeS` staying where it is. */
  zoom(timeS: number, factor: number): void {
    const { fromS } = this.window();
    const length = Math.max(SHORTEST_S, this.lengthS() * factor);
    if (length >= this.durationS()) {
      this.chosen.set(null);
      return;
    }
    this.show(timeS - (timeS - fromS) * (length / this.lengthS()), length);
  }

  scroll(byS: number): void {
    if (this.isZoomed()) this.show(this.window().fromS + byS, this.lengthS());
  }

  showWhole(): void {
    this.chosen.set(null);
  }

  private show(fromS: number, lengthS: number): void {
    const from = Math.max(0, Math.min(this.durationS() - lengthS, fromS));
    this.chosen.set({ fromS: from, toS: from + lengthS });
  }

  private follow(nowS: number): void {
    if (!this.isZoomed()) return;
    const { fromS, toS } = this.window();
    if (nowS < fromS || nowS > toS) this.show(nowS - OVERLAP * this.lengthS(), this.lengthS());
  }
}
