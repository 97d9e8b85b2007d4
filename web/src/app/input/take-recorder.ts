/**
 * Records a take of one's own, from an input or from a player who is not there: sent to the server in pieces of half a second as it is played,
 * so that a crash loses no more than the last one. What can't be sent waits and is sent again.
 */
import { DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { MAX_DURATION_S } from '@wild-needle/contract';
import { toInt16 } from '@wild-needle/core/units';
import { Api, ApiError } from '../api/api';
import { playClick } from '../transport/click';
import {
  CLICK_BEAT_S,
  CLICK_BEATS,
  NOTHING_ALONG,
  prepareAlong,
  type Accompaniment,
  type Along,
} from './along';
import { AudioInput, channelOf } from './audio-input';
import { createLevelMeter, peakDb, SILENCE, type InputLevel } from './input-level';

const PIECE_S = 0.5;
const CLICK_LEVEL = 0.4;
/** How often the simulated player hands something over. */
const SIMULATED_EVERY_MS = 50;
const RETRY_MS = 1000;
const WAITING = 'The server does not answer: what you play waits here.';

export type RecorderStatus = 'off' | 'armed' | 'counting' | 'recording' | 'ending';

@Injectable({ providedIn: 'root' })
export class TakeRecorder {
  private readonly api = inject(Api);
  readonly input = inject(AudioInput);
  private context: AudioContext | null = null;
  private seq = 0;
  /** Samples that are not a piece yet, and pieces that the server has not got. */
  private filling: Float32Array[] = [];
  private filled = 0;
  private unsent: { readonly seq: number; readonly samples: Int16Array<ArrayBuffer> }[] = [];
  private sending: Promise<void> | null = null;
  private startsAtS = Infinity;
  private meter = createLevelMeter();
  private simulation: ReturnType<typeof setInterval> | undefined;
  private worker: Worker | null = null;

  private readonly statusSignal = signal<RecorderStatus>('off');
  private readonly levelSignal = signal<InputLevel>(SILENCE);
  private readonly secondsSignal = signal(0);
  private readonly problemSignal = signal('');
  private readonly simulatedSignal = signal(false);
  private readonly takeIdSignal = signal<string | null>(null);
  readonly status = this.statusSignal.asReadonly();
  readonly level = this.levelSignal.asReadonly();
  readonly seconds = this.secondsSignal.asReadonly();
  /** Why it has stopped, or could not begin; '' for nothing. */
  readonly problem = this.problemSignal.asReadonly();
  readonly isSimulated = this.simulatedSignal.asReadonly();
  /** The take that is recorded now; null between takes. */
  readonly takeId = this.takeIdSignal.asReadonly();
  readonly countsIn = signal(true);
  /** What is played to. */
  readonly along = signal<Along>(NOTHING_ALONG);
  /** What each take of this visit was played to. */
  private readonly playedTo = new Map<string, Along>();
  private accompaniment: Accompaniment | null = null;

  constructor() {
    effect(() => {
      if (this.input.status() !== 'lost' || untracked(this.status) === 'off') return;
      untracked(() => {
        const wasRecording = this.status() === 'recording';
        this.problemSignal.set(
          wasRecording ? 'The input was unplugged: what was recorded is kept.' : 'The input was unplugged.',
        );
        void this.stop();
      });
    });
    inject(DestroyRef).onDestroy(() => this.switchOff());
  }

  /** Listens, so that the level can be seen before anything is recorded. */
  async arm(isSimulated: boolean): Promise<void> {
    this.switchOff();
    this.problemSignal.set('');
    const context = (this.context ??= new AudioContext());
    await context.resume();
    this.simulatedSignal.set(isSimulated);
    if (isSimulated) this.simulate(context);
    else if (
      !(await this.input.start(context, (piece) =>
        this.hear(piece.startS, channelOf(piece, this.input.channel()), piece.sampleRate),
      ))
    ) {
      this.problemSignal.set(
        this.input.status() === 'refused'
          ? 'The browser keeps the input to itself.'
          : 'No input was found: plug one in, or take the simulated player.',
      );
      return;
    }
    this.statusSignal.set('armed');
  }

  /** Counts in where that is wanted, then records. */
  async record(): Promise<void> {
    const { context } = this;
    if (!context || this.status() !== 'armed') return;
    const takeId = crypto.randomUUID();
    this.statusSignal.set('counting');
    const along = this.along();
    try {
      this.accompaniment = await prepareAlong(context, along, (id) => firstValueFrom(this.api.audio(id)));
      await firstValueFrom(this.api.beginTake(takeId, context.sampleRate));
    } catch (error) {
      this.endAccompaniment();
      this.problemSignal.set(error instanceof Error ? error.message : String(error));
      this.statusSignal.set('armed');
      return;
    }
    [this.seq, this.filling, this.filled, this.unsent] = [0, [], 0, []];
    this.takeIdSignal.set(takeId);
    this.secondsSignal.set(0);
    this.problemSignal.set('');
    this.startsAtS = context.currentTime + (this.countsIn() ? this.countIn(context) : 0);
    this.playedTo.set(takeId, along);
    this.accompaniment?.start(this.startsAtS);
  }

  /** Ends the take; what was played is with the server when this is done, or as much as it has room for. */
  async stop(): Promise<void> {
    if (this.status() !== 'recording') {
      this.switchOff();
      return;
    }
    this.statusSignal.set('ending');
    this.cut();
    await this.send();
    this.switchOff();
  }

  isOfThisVisit(takeId: string): boolean {
    return this.playedTo.has(takeId);
  }

  /** The song that a take was played to; null where it was played to none, or in another visit. */
  songOf(takeId: string): string | null {
    const along = this.playedTo.get(takeId);
    return along?.kind === 'recording' ? along.songId : null;
  }

  private endAccompaniment(): void {
    this.accompaniment?.stop();
    this.accompaniment = null;
  }

  switchOff(): void {
    this.endAccompaniment();
    clearInterval(this.simulation);
    this.worker?.terminate();
    this.worker = null;
    if (this.input.status() !== 'lost') this.input.stop();
    this.startsAtS = Infinity;
    this.takeIdSignal.set(null);
    this.meter = createLevelMeter();
    this.levelSignal.set(SILENCE);
    this.statusSignal.set('off');
  }

  private countIn(context: AudioContext): number {
    const out = new GainNode(context, { gain: CLICK_LEVEL });
    out.connect(context.destination);
    for (let beat = 0; beat < CLICK_BEATS; beat++) {
      playClick(context, out, context.currentTime + 0.1 + beat * CLICK_BEAT_S, beat === 0);
    }
    return 0.1 + CLICK_BEATS * CLICK_BEAT_S;
  }

  private hear(startS: number, samples: Float32Array, sampleRate: number): void {
    this.levelSignal.set(this.meter(startS, peakDb(samples)));
    if (this.takeId() === null || startS < this.startsAtS) return;
    if (this.status() === 'counting') this.statusSignal.set('recording');
    if (this.status() !== 'recording') return;
    this.filling.push(samples);
    this.filled += samples.length;
    this.secondsSignal.update((s) => s + samples.length / sampleRate);
    if (this.filled >= PIECE_S * sampleRate) this.cut();
    if (this.seconds() >= MAX_DURATION_S) {
      this.problemSignal.set(`A take lasts up to ${MAX_DURATION_S / 60} minutes: it is kept.`);
      void this.stop();
    }
  }

  /** What was heard since the last piece is one. */
  private cut(): void {
    if (this.filled === 0) return;
    const all = new Float32Array(this.filled);
    let at = 0;
    for (const part of this.filling) {
      all.set(part, at);
      at += part.length;
    }
    [this.filling, this.filled] = [[], 0];
    this.unsent.push({ seq: this.seq++, samples: toInt16(all) });
    void this.send();
  }

  /** One after the other; a server that is away is asked again. */
  private send(): Promise<void> {
    this.sending ??= this.sendAll().finally(() => (this.sending = null));
    return this.sending;
  }

  private async sendAll(): Promise<void> {
    const takeId = this.takeId();
    for (let next = this.unsent.at(0); next && takeId !== null; next = this.unsent.at(0)) {
      try {
        await firstValueFrom(this.api.addTakePiece(takeId, next.seq, next.samples));
        this.unsent.shift();
        if (this.problem() === WAITING) this.problemSignal.set('');
      } catch (error) {
        const code = error instanceof ApiError ? error.code : 'internal';
        if (code !== 'unreachable' && code !== 'unavailable') {
          this.giveUp(code);
          return;
        }
        this.problemSignal.set(WAITING);
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
      }
    }
  }

  /** It will not be taken, however often it is sent. */
  private giveUp(code: string): void {
    this.unsent = [];
    const why = code === 'disk-full' ? 'There is no room for more' : 'More could not be stored';
    this.problemSignal.set(`${why}: what was recorded before is kept.`);
    if (this.status() === 'recording') this.switchOff();
  }

  private simulate(context: AudioContext): void {
    const worker = new Worker(new URL('./simulated-take.worker', import.meta.url), { type: 'module' });
    this.worker = worker;
    worker.addEventListener('message', ({ data: round }: MessageEvent<Float32Array>) => {
      let heardS = context.currentTime;
      let at = 0;
      this.simulation = setInterval(() => {
        const count = Math.floor((context.currentTime - heardS) * context.sampleRate);
        if (count <= 0) return;
        const samples = Float32Array.from({ length: count }, (_, n) => round[(at + n) % round.length]);
        const startS = heardS;
        at = (at + count) % round.length;
        heardS += count / context.sampleRate;
        this.hear(startS, samples, context.sampleRate);
      }, SIMULATED_EVERY_MS);
    });
    worker.postMessage(context.sampleRate);
  }
}
