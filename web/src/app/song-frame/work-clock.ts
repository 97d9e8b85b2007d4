/**
 * How long hands are on the open song, step by step: a minute counts while keys, pointer or pedal were used in it. Sent now and then; what
 * can't be sent waits for the next time.
 */
import { DestroyRef, DOCUMENT, inject, Injectable } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { STEPS, type Step } from '@wild-needle/contract';
import { Api } from '../api/api';

/** Hands that were not seen for so long are somewhere else: a guitar is played between two keys. */
const HANDS_OFF_MS = 60_000;
const LOOK_EVERY_MS = 5_000;
const SEND_EVERY_S = 30;
/** After this much that could not be sent the oldest is let go of. */
const MOST_WAITING = 500;

export interface Stretch {
  readonly id: string;
  readonly songId: string;
  readonly step: Step;
  readonly at: string;
  readonly seconds: number;
}

/** Counts looks at which hands were on a song, and hands over stretches of one song and step. */
export class WorkCount {
  private lastHandsMs = -Infinity;
  private lastLookMs: number | null = null;
  private current: { songId: string; step: Step; seconds: number; endMs: number } | null = null;

  constructor(private readonly handOver: (stretch: Stretch) => void) {}

  hands(nowMs: number): void {
    this.lastHandsMs = nowMs;
  }

  look(nowMs: number, songId: string, step: Step): void {
    const seconds = this.lastLookMs === null ? 0 : (nowMs - this.lastLookMs) / 1000;
    this.lastLookMs = nowMs;
    if (this.current && (this.current.songId !== songId || this.current.step !== step)) this.end();
    // A computer that slept counts for nothing.
    const isLooked = seconds * 1000 < 3 * LOOK_EVERY_MS;
    if (nowMs - this.lastHandsMs > HANDS_OFF_MS || !isLooked) return;
    this.current ??= { songId, step, seconds: 0, endMs: nowMs };
    this.current.seconds += seconds;
    this.current.endMs = nowMs;
    if (this.current.seconds >= SEND_EVERY_S) this.end();
  }

  end(): void {
    const { current } = this;
    this.current = null;
    if (!current || current.seconds <= 0) return;
    const { songId, step, seconds, endMs } = current;
    this.handOver({ id: crypto.randomUUID(), songId, step, at: new Date(endMs).toISOString(), seconds });
  }
}

@Injectable()
export class WorkClock {
  private readonly api = inject(Api);
  private waiting: Stretch[] = [];
  private isSending = false;
  private readonly count = new WorkCount((stretch) => {
    this.waiting = [...this.waiting, stretch].slice(-MOST_WAITING);
    void this.send();
  });

  constructor() {
    const page = inject(DOCUMENT);
    const onHands = (): void => this.count.hands(Date.now());
    const events = ['keydown', 'pointerdown', 'wheel'] as const;
    events.forEach((name) => page.addEventListener(name, onHands, { capture: true, passive: true }));
    const looking = setInterval(() => this.look(page.location.pathname), LOOK_EVERY_MS);
    inject(DestroyRef).onDestroy(() => {
      events.forEach((name) => page.removeEventListener(name, onHands, { capture: true }));
      clearInterval(looking);
      this.count.end();
    });
  }

  /** A pedal is a hand too. */
  pedal(): void {
    this.count.hands(Date.now());
  }

  private look(path: string): void {
    const [, songId, last] = /^\/songs\/([\w-]+)\/(\w+)/.exec(path) ?? [];
    const step = STEPS.find((s) => s === last);
    if (songId !== undefined && step) this.count.look(Date.now(), songId, step);
    else this.count.end();
  }

  private async send(): Promise<void> {
    if (this.isSending) return;
    this.isSending = true;
    try {
      for (let next = this.waiting.at(0); next; next = this.waiting.at(0)) {
        const { id, ...body } = next;
        await firstValueFrom(this.api.keepWorkTime(id, body));
        this.waiting = this.waiting.filter((one) => one.id !== id);
      }
    } catch {
      // It waits for the next stretch.
    }
    this.isSending = false;
  }
}
