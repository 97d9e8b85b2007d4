/**
 * Foot switches and expression pedals that speak MIDI. Which pedal does what is learned by pressing it; without a device
 * the board on screen sends the same bytes. Meaning of the bytes: MIDI 1.0 Detailed Specification (MIDI Manufacturers
 * Association 1996), table I and page 10.
 */
import { inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { settingsActions } from '../state/settings/settings.actions';
import { settingsFeature } from '../state/settings/settings.reducer';

export const PEDAL_COMMANDS = [
  ...(['play', 'slow', 'start', 'loop', 'back', 'on', 'source', 'speed'] as const),
  ...(['clean', 'slip'] as const),
  ...(['instruments', 'drums', 'bass', 'voice', 'guitars'] as const),
] as const;
export type PedalCommand = (typeof PEDAL_COMMANDS)[number];

/** A pedal by what it sends, as 'control 64'; the channel does not matter. */
export type PedalName = string;

export interface PedalMessage {
  readonly pedal: PedalName;
  /** 0 to 1. */
  readonly value: number;
}

const NOTE_ON = 0x90;
const CONTROL_CHANGE = 0xb0;
const PROGRAM_CHANGE = 0xc0;

/** Null for what no pedal sends: note-offs, clocks, system messages. */
export function readPedal(bytes: Uint8Array): PedalMessage | null {
  const kind = bytes[0] & 0xf0;
  if (kind === CONTROL_CHANGE && bytes.length >= 3) {
    return { pedal: `control ${bytes[1]}`, value: bytes[2] / 127 };
  }
  // A note-on of velocity 0 is a note-off.
  if (kind === NOTE_ON && bytes.length >= 3 && bytes[2] > 0) return { pedal: `note ${bytes[1]}`, value: 1 };
  if (kind === PROGRAM_CHANGE && bytes.length >= 2) return { pedal: `program ${bytes[1]}`, value: 1 };
  return null;
}

/** A switch counts as pressed from here on: half of its way. */
const PRESSED = 0.5;

@Injectable({ providedIn: 'root' })
export class Pedals {
  private readonly store = inject(Store);
  /** Which pedal does what. */
  readonly assigned = this.store.selectSignal(settingsFeature.selectPedals);
  private readonly learningSignal = signal<PedalCommand | null>(null);
  /** The command that waits for its pedal to be pressed. */
  readonly learning = this.learningSignal.asReadonly();
  private readonly deviceSignal = signal<'none' | 'refused' | 'connected'>('none');
  readonly device = this.deviceSignal.asReadonly();
  private readonly last = new Map<PedalName, number>();
  private handler: (command: PedalCommand, value: number) => void = () => undefined;

  /** Where commands go; the last caller has them. */
  setHandler(handler: (command: PedalCommand, value: number) => void): void {
    this.handler = handler;
  }

  /** Asks the browser for MIDI devices; those plugged in later are heard too. */
  async connect(): Promise<void> {
    try {
      const access = await navigator.requestMIDIAccess();
      const listen = (): void => {
        this.deviceSignal.set(access.inputs.size > 0 ? 'connected' : 'none');
        access.inputs.forEach((input) => {
          input.onmidimessage = ({ data }) => {
            if (data) this.receive(data);
          };
        });
      };
      access.onstatechange = listen;
      listen();
    } catch {
      this.deviceSignal.set('refused');
    }
  }

  /** The next pedal that is pressed does this; asking twice takes it back. */
  learn(command: PedalCommand): void {
    this.learningSignal.update((now) => (now === command ? null : command));
  }

  /** Nothing waits for a pedal any more. */
  disarm(): void {
    this.learningSignal.set(null);
  }

  /** Takes the pedal back from a command. */
  forget(command: PedalCommand): void {
    this.store.dispatch(settingsActions.pedalAssigned({ command, pedal: null }));
  }

  receive(bytes: Uint8Array): void {
    const message = readPedal(bytes);
    if (!message) return;
    const { pedal, value } = message;
    const before = this.last.get(pedal) ?? 0;
    // Notes and programs have no way back up: each is a press.
    const isPress = value >= PRESSED && (before < PRESSED || !pedal.startsWith('control'));
    this.last.set(pedal, value);
    const learning = this.learningSignal();
    if (learning && isPress) {
      this.learningSignal.set(null);
      this.store.dispatch(settingsActions.pedalAssigned({ command: learning, pedal }));
      return;
    }
    for (const command of PEDAL_COMMANDS) {
      if (this.assigned()[command] !== pedal) continue;
      if (command === 'speed' || isPress) this.handler(command, value);
    }
  }
}
