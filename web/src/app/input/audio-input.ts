/**
 * The guitar on its way in: a microphone or line input of this computer, untouched by what browsers do for speech, handed on in pieces with the
 * time of the player's clock (Media Capture and Streams, Web Audio API; W3C).
 */
import { DestroyRef, inject, Injectable, signal } from '@angular/core';

export interface InputPiece {
  /** On the clock of the context. */
  readonly startS: number;
  readonly sampleRate: number;
  readonly channels: readonly Float32Array[];
}

export interface InputDevice {
  readonly id: string;
  readonly label: string;
}

export type InputStatus = 'off' | 'asking' | 'on' | 'refused' | 'none' | 'lost';

/** Which channel of the device carries the guitar. */
export const INPUT_CHANNELS = ['mix', 'left', 'right'] as const;
export type InputChannel = (typeof INPUT_CHANNELS)[number];

/** One channel out of what a device hands over. */
export function channelOf({ channels }: Pick<InputPiece, 'channels'>, channel: InputChannel): Float32Array {
  const [left, right = left] = channels;
  if (channel === 'left') return left;
  if (channel === 'right') return right;
  return left.map((x, i) => (x + right[i]) / 2);
}

@Injectable({ providedIn: 'root' })
export class AudioInput {
  private stream: MediaStream | null = null;
  private source: MediaStreamAudioSourceNode | null = null;
  private capture: AudioWorkletNode | null = null;
  private readonly prepared = new WeakSet<AudioContext>();
  /** Guards against an input that is allowed only after it was switched off. */
  private startNumber = 0;
  private readonly statusSignal = signal<InputStatus>('off');
  private readonly devicesSignal = signal<readonly InputDevice[]>([]);

  readonly status = this.statusSignal.asReadonly();
  /** Known by name once an input was allowed. */
  readonly devices = this.devicesSignal.asReadonly();
  readonly deviceId = signal<string | null>(null);
  readonly channel = signal<InputChannel>('mix');

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  /** Hands every piece to `onPiece` until it is stopped; false where there is no input. */
  async start(context: AudioContext, onPiece: (piece: InputPiece) => void): Promise<boolean> {
    this.stop();
    const mine = ++this.startNumber;
    this.statusSignal.set('asking');
    try {
      const deviceId = this.deviceId();
      const stream = await navigator.mediaDevices.getUserMedia({
        audio: {
          ...{ echoCancellation: false, noiseSuppression: false, autoGainControl: false },
          ...(deviceId !== null && { deviceId: { exact: deviceId } }),
        },
      });
      await this.prepare(context);
      if (mine !== this.startNumber) {
        stream.getTracks().forEach((track) => track.stop());
        return false;
      }
      this.listen(context, stream, onPiece);
      await this.findDevices();
      return true;
    } catch (error) {
      if (mine !== this.startNumber) return false;
      const isRefused = error instanceof DOMException && error.name === 'NotAllowedError';
      this.statusSignal.set(isRefused ? 'refused' : 'none');
      return false;
    }
  }

  stop(): void {
    this.startNumber++;
    this.source?.disconnect();
    this.capture?.disconnect();
    this.capture?.port.close();
    this.stream?.getTracks().forEach((track) => track.stop());
    [this.stream, this.source, this.capture] = [null, null, null];
    this.statusSignal.set('off');
  }

  private listen(context: AudioContext, stream: MediaStream, onPiece: (piece: InputPiece) => void): void {
    this.stream = stream;
    this.source = context.createMediaStreamSource(stream);
    this.capture = new AudioWorkletNode(context, 'wn-capture', { numberOfOutputs: 0 });
    this.capture.port.onmessage = ({ data }: MessageEvent<InputPiece>) => onPiece(data);
    this.source.connect(this.capture);
    stream.getAudioTracks()[0]?.addEventListener('ended', () => {
      this.stop();
      this.statusSignal.set('lost');
    });
    this.statusSignal.set('on');
  }

  private async prepare(context: AudioContext): Promise<void> {
    if (this.prepared.has(context)) return;
    await context.audioWorklet.addModule(new URL('input/capture.js', document.baseURI).href);
    this.prepared.add(context);
  }

  private async findDevices(): Promise<void> {
    const all = await navigator.mediaDevices.enumerateDevices();
    this.devicesSignal.set(
      all
        .filter((d) => d.kind === 'audioinput' && d.deviceId !== '')
        .map((d, i) => ({ id: d.deviceId, label: d.label === '' ? `Input ${i + 1}` : d.label })),
    );
  }
}
