/** Reminds to rest the ears: after three quarters of an hour of sound, until it was silent for a while. */
import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { Player } from './player';

/** Breaks in long listening are advised by every hearing guide; the lengths here are common practice. */
export const LISTEN_MINUTES = 45;
export const REST_MINUTES = 5;
const STEP_MS = 15_000;
const STEP_MINUTES = STEP_MS / 60_000;

export interface Listened {
  readonly minutes: number;
  readonly silentMinutes: number;
}

/** One step of the clock on; after `restMinutes` of silence it begins anew. */
export function listenOn(
  { minutes, silentMinutes }: Listened,
  playing: boolean,
  step: number,
  restMinutes = REST_MINUTES,
): Listened {
  if (playing) return { minutes: minutes + step, silentMinutes: 0 };
  const silent = silentMinutes + step;
  return silent >= restMinutes ? { minutes: 0, silentMinutes: silent } : { minutes, silentMinutes: silent };
}

@Injectable({ providedIn: 'root' })
export class EarRest {
  private readonly player = inject(Player);
  private readonly listened = signal<Listened>({ minutes: 0, silentMinutes: 0 });

  /** Whole minutes until a rest is due; 0 when it is. */
  readonly minutesLeft = computed(() => Math.max(0, Math.ceil(LISTEN_MINUTES - this.listened().minutes)));

  constructor() {
    const timer = setInterval(
      () => this.listened.update((l) => listenOn(l, this.player.playing(), STEP_MINUTES)),
      STEP_MS,
    );
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }
}
