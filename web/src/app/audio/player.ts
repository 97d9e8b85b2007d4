/**
 * Plays the recording: speed without change of pitch, gapless loop, pitch correction, all changed while it sounds.
 * The playhead is a signal here and no part of any store; it follows the clock of the sound device.
 */
import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { loopRounds, positionAt, type Loop, type Segment } from './play-cursor';
import { createStretchNode, scheduleSegment, type StretchNode } from './stretch-node';

export const MIN_SPEED = 0.25;
export const MAX_SPEED = 1.5;

/** Changes are scheduled this far ahead, so that the stretcher has its blocks ready. */
const LOOKAHEAD_S = 0.12;
/** Changes of level and pauses are faded over this time: no click. */
const FADE_S = 0.015;
/** A loop seam can overshoot to 1.6 times full scale: this much room is left. */
const HEADROOM = 0.6;

type Status = 'empty' | 'loading' | 'ready' | 'failed';

@Injectable({ providedIn: 'root' })
export class Player {
  private context: AudioContext | null = null;
  private node: StretchNode | null = null;
  private gain: GainNode | null = null;
  private segment: Segment = { contextS: 0, inputS: 0, speed: 1, loop: null };
  private frame = 0;
  /** Guards against a song that was closed while its sound was still read. */
  private loadNumber = 0;

  private readonly statusSignal = signal<Status>('empty');
  private readonly playingSignal = signal(false);
  private readonly nowSignal = signal(0);
  private readonly speedSignal = signal(1);
  private readonly loopSignal = signal<Loop | null>(null);
  private readonly roundsSignal = signal(0);
  private readonly durationSignal = signal(0);
  private semitones = 0;
  private volume = 0.6;

  readonly status = this.statusSignal.asReadonly();
  readonly playing = this.playingSignal.asReadonly();
  /** Place in the recording, seconds; every frame while playing. */
  readonly nowS = this.nowSignal.asReadonly();
  readonly speed = this.speedSignal.asReadonly();
  readonly loop = this.loopSignal.asReadonly();
  /** Completed rounds of the loop since playing started. */
  readonly rounds = this.roundsSignal.asReadonly();
  readonly durationS = this.durationSignal.asReadonly();

  constructor() {
    inject(DestroyRef).onDestroy(() => void this.context?.close());
  }

  /** Forgets what was loaded. */
  unload(): void {
    this.loadNumber++;
    this.stop();
    void this.node?.dropBuffers();
    this.durationSignal.set(0);
    this.loopSignal.set(null);
    this.speedSignal.set(1);
    this.semitones = 0;
    this.moveTo(0);
    this.statusSignal.set('empty');
  }

  /** `bytes` is a whole audio file; it is consumed. */
  async load(bytes: ArrayBuffer): Promise<void> {
    this.unload();
    const mine = this.loadNumber;
    this.statusSignal.set('loading');
    try {
      const context = (this.context ??= new AudioContext({ latencyHint: 'interactive' }));
      const decoded = await context.decodeAudioData(bytes);
      const node = await this.ensureNode(context);
      if (mine !== this.loadNumber) return;
      const durationS = decoded.duration;
      // One buffer: the stretcher misreads where several meet. Transferred, so that the page holds it once.
      const channels = Array.from({ length: decoded.numberOfChannels }, (_, c) => decoded.getChannelData(c));
      await node.addBuffers(
        channels,
        channels.map((c) => c.buffer),
      );
      if (mine !== this.loadNumber) return;
      this.durationSignal.set(durationS);
      this.statusSignal.set('ready');
    } catch (error) {
      if (mine === this.loadNumber) this.statusSignal.set('failed');
      throw error;
    }
  }

  async play(): Promise<void> {
    if (this.statusSignal() !== 'ready' || this.playingSignal() || !this.context || !this.gain) return;
    await this.context.resume();
    if (this.nowSignal() >= this.durationSignal() - 0.05) this.moveTo(this.loopSignal()?.startS ?? 0);
    this.playingSignal.set(true);
    this.roundsSignal.set(0);
    this.gain.gain.cancelScheduledValues(0);
    this.gain.gain.setTargetAtTime(this.volume * HEADROOM, this.context.currentTime, FADE_S);
    this.startSegment(this.nowSignal());
    this.frame = requestAnimationFrame(this.follow);
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
    if (!this.playingSignal() || !this.context || !this.node || !this.gain) return;
    const now = this.context.currentTime;
    this.nowSignal.set(this.position());
    this.playingSignal.set(false);
    this.gain.gain.setTargetAtTime(0, now, FADE_S);
    const rest = { ...this.segment, contextS: now + 4 * FADE_S, inputS: this.nowSignal(), loop: null };
    scheduleSegment(this.node, rest, false, this.semitones);
  }

  toggle(): void {
    if (this.playingSignal()) this.stop();
    else void this.play();
  }

  seek(timeS: number): void {
    const bounded = Math.min(Math.max(0, timeS), Math.max(0, this.durationSignal()));
    if (this.playingSignal()) this.startSegment(bounded);
    this.nowSignal.set(bounded);
  }

  setSpeed(speed: number): void {
    this.speedSignal.set(Math.min(MAX_SPEED, Math.max(MIN_SPEED, Math.round(speed * 100) / 100)));
    this.restart();
  }

  setLoop(loop: Loop | null): void {
    this.loopSignal.set(loop);
    this.roundsSignal.set(0);
    const now = this.position();
    // Before the loop playback runs into it; behind it there is no way back, so it starts anew.
    if (loop && now >= loop.endS) this.seek(loop.startS);
    else this.restart();
  }

  /** Shift of the pitch in semitones, without change of speed. */
  setSemitones(semitones: number): void {
    if (semitones === this.semitones) return;
    this.semitones = semitones;
    this.restart();
  }

  /** 0 to 1. */
  setVolume(volume: number): void {
    this.volume = volume;
    if (this.playingSignal() && this.context && this.gain) {
      this.gain.gain.setTargetAtTime(volume * HEADROOM, this.context.currentTime, FADE_S);
    }
  }

  private async ensureNode(context: AudioContext): Promise<StretchNode> {
    if (!this.node) {
      this.node = await createStretchNode(context);
      this.gain = new GainNode(context, { gain: 0 });
      this.node.connect(this.gain).connect(context.destination);
    }
    return this.node;
  }

  /** Continues from the present place with changed settings. */
  private restart(): void {
    if (!this.playingSignal() || !this.context) return;
    this.startSegment(positionAt(this.segment, this.context.currentTime + LOOKAHEAD_S));
  }

  private startSegment(inputS: number): void {
    if (!this.context || !this.node) return;
    const contextS = this.context.currentTime + LOOKAHEAD_S;
    this.segment = { contextS, inputS, speed: this.speedSignal(), loop: this.loopSignal() };
    scheduleSegment(this.node, this.segment, true, this.semitones);
  }

  private moveTo(timeS: number): void {
    this.segment = { ...this.segment, inputS: timeS };
    this.nowSignal.set(timeS);
  }

  /** What is heard now: the device lags behind its clock by its output latency. */
  private position(): number {
    if (!this.playingSignal() || !this.context) return this.nowSignal();
    return positionAt(this.segment, this.context.currentTime - (this.context.outputLatency || 0));
  }

  private readonly follow = (): void => {
    if (!this.context) return;
    const now = this.position();
    this.roundsSignal.set(loopRounds(this.segment, this.context.currentTime));
    if (now >= this.durationSignal()) {
      this.stop();
      this.nowSignal.set(this.durationSignal());
      return;
    }
    this.nowSignal.set(now);
    this.frame = requestAnimationFrame(this.follow);
  };
}
