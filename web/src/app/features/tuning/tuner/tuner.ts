/**
 * What the tuner hears: the microphone or line input, or a simulated guitar whose strings are each a little off, so that
 * everything can be tried without one.
 */
import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { createTunerPitch, TUNER_WINDOW, type TunerPitch } from './tuner-pitch';
import { playReferenceTone } from './reference-tone';

export type TunerInput = 'off' | 'input' | 'simulated';

const READ_EVERY_MS = 80;
/** Of the simulated guitar: how far each string is off at first, cents; what a turn of its peg moves, and how long it rings. */
const SIMULATED_OFF: readonly number[] = [-32, 11, -4, 18, -9, 26, 7, -15];
const PEG_CENTS = 4;
const SIMULATED_RING_S = 5;
const TARGET_S = 1.6;

@Injectable({ providedIn: 'root' })
export class Tuner {
  private context: AudioContext | null = null;
  private analyser: AnalyserNode | null = null;
  private stream: MediaStream | null = null;
  private timer: ReturnType<typeof setInterval> | undefined;
  private readPitch: TunerPitch | null = null;
  /** Guards against an input that is allowed only after the tuner was left. */
  private startNumber = 0;
  /** The simulated string that was struck last. */
  private ringing: OscillatorNode | null = null;
  private readonly simulatedOff = [...SIMULATED_OFF];
  private readonly inputSignal = signal<TunerInput>('off');
  private readonly freqSignal = signal<number | null>(null);
  private readonly problemSignal = signal<string | null>(null);

  readonly input = this.inputSignal.asReadonly();
  /** Hz of what is played now; null when nothing clear sounds. */
  readonly freqHz = this.freqSignal.asReadonly();
  /** Why there is no input, in words. */
  readonly problem = this.problemSignal.asReadonly();

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  async start(input: 'input' | 'simulated'): Promise<void> {
    this.stop();
    this.problemSignal.set(null);
    const mine = this.startNumber;
    const { context, analyser } = this.ensure();
    await context.resume();
    if (input === 'input') {
      try {
        const stream = await navigator.mediaDevices.getUserMedia({
          audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
        });
        if (mine !== this.startNumber) {
          stream.getTracks().forEach((track) => track.stop());
          return;
        }
        this.stream = stream;
        context.createMediaStreamSource(stream).connect(analyser);
      } catch {
        this.problemSignal.set('No input can be heard. Allow the microphone, or use the simulated guitar.');
        return;
      }
    }
    if (mine !== this.startNumber) return;
    this.inputSignal.set(input);
    const samples = new Float32Array(TUNER_WINDOW);
    const read = (this.readPitch ??= createTunerPitch());
    this.timer = setInterval(() => {
      analyser.getFloatTimeDomainData(samples);
      this.freqSignal.set(read(samples, context.sampleRate));
    }, READ_EVERY_MS);
  }

  stop(): void {
    this.startNumber++;
    clearInterval(this.timer);
    this.stream?.getTracks().forEach((track) => track.stop());
    this.stream = null;
    this.inputSignal.set('off');
    this.freqSignal.set(null);
  }

  /** Strikes a string of the simulated guitar, as far off as it is. */
  strike(string: number, targetHz: number): void {
    const { context, analyser } = this.ensure();
    const cents = this.simulatedOff[(string - 1) % SIMULATED_OFF.length];
    this.ringing = playReferenceTone(
      context,
      analyser,
      targetHz * 2 ** (cents / 1200),
      context.currentTime,
      SIMULATED_RING_S,
    );
  }

  /** Turns a peg of the simulated guitar, and strikes its string again. */
  turnPeg(string: number, by: 1 | -1, targetHz: number): void {
    this.simulatedOff[(string - 1) % SIMULATED_OFF.length] += by * PEG_CENTS;
    this.ringing?.stop();
    this.strike(string, targetHz);
  }

  /** Sounds tones to tune by, one after the other. */
  async soundTargets(freqsHz: readonly number[]): Promise<void> {
    const { context } = this.ensure();
    await context.resume();
    freqsHz.forEach((hz, i) =>
      playReferenceTone(
        context,
        context.destination,
        hz,
        context.currentTime + 0.05 + i * TARGET_S,
        TARGET_S,
      ),
    );
  }

  private ensure(): { context: AudioContext; analyser: AnalyserNode } {
    const context = (this.context ??= new AudioContext());
    const analyser = (this.analyser ??= new AnalyserNode(context, { fftSize: TUNER_WINDOW }));
    return { context, analyser };
  }
}
