/** Reminds to rest the hands: after so many minutes of playing in one go. It never stops the music. Common practice of teachers. */
import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { listenOn, type Listened } from '../../../transport/ear-rest';
import { Player } from '../../../transport/player';

const SHAKE_MINUTES = 10;
const REST_MINUTES = 20;
/** A pause of so long is a rest. */
const RESTED_MINUTES = 2;
const STEP_MS = 5000;
const STEP_MINUTES = STEP_MS / 60_000;

/** What is to be said after so much playing in one go, and so much silence; '' for nothing. */
export function handsWords({ minutes, silentMinutes }: Listened): string {
  if (silentMinutes >= RESTED_MINUTES) return `Rested ${Math.floor(silentMinutes)} min.`;
  const played = Math.floor(minutes);
  if (played >= REST_MINUTES) return 'Rest the hands now; the loop waits.';
  return played >= SHAKE_MINUTES ? `${played} minutes without a pause: shake the hands out.` : '';
}

@Injectable({ providedIn: 'root' })
export class HandsRest {
  private readonly player = inject(Player);
  private readonly played = signal<Listened>({ minutes: 0, silentMinutes: 0 });
  private readonly hasPlayed = signal(false);

  readonly words = computed(() => (this.hasPlayed() ? handsWords(this.played()) : ''));

  constructor() {
    const timer = setInterval(() => {
      const isPlaying = this.player.playing();
      if (isPlaying) this.hasPlayed.set(true);
      if (this.hasPlayed()) this.played.update((p) => listenOn(p, isPlaying, STEP_MINUTES, RESTED_MINUTES));
    }, STEP_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }
}
