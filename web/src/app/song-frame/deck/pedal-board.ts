/** Foot pedals: what each does, learned by pressing it, and a board on screen for those who have none at hand. */
import { ChangeDetectionStrategy, Component, DestroyRef, inject, output } from '@angular/core';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatSliderModule } from '@angular/material/slider';
import { PEDAL_COMMANDS, Pedals, type PedalCommand } from '../../transport/pedals';
import { Icon } from '../../shared/icon';

const WORDS: Readonly<Record<PedalCommand, string>> = {
  play: 'Play, stop',
  slow: 'Full speed, slow',
  start: 'To the start of the loop',
  loop: 'Loop on, off',
  back: 'Loop a beat back',
  on: 'Loop a beat on',
  source: 'Recording, my tab, each ear',
  speed: 'Speed (expression pedal)',
  clean: 'Practice: clean',
  slip: 'Practice: slip',
  instruments: 'Instruments, full sound',
  drums: 'Instruments: drums silent',
  bass: 'Instruments: bass silent',
  voice: 'Instruments: voice silent',
  guitars: 'Instruments: guitars silent',
};
const DEVICE_WORDS = {
  none: 'No MIDI pedal is plugged in. The board below sends the same.',
  refused: 'The browser keeps MIDI to itself. The board below sends the same.',
  connected: 'A MIDI device is connected.',
} as const;

/** General purpose controllers 5 to 8, and expression (MIDI 1.0 Detailed Specification, table III). */
const SWITCHES = [80, 81, 82, 83];
const EXPRESSION = 11;
const CONTROL_CHANGE = 0xb0;

@Component({
  selector: 'wn-pedal-board',
  imports: [Icon, MatButton, MatIconButton, MatSliderModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <aside aria-label="Foot pedals">
      <header>
        <h2 class="display">Foot pedals</h2>
        <button mat-icon-button aria-label="Close" (click)="closed.emit()"><wn-icon name="close" /></button>
      </header>
      <p class="quiet">{{ deviceWords[pedals.device()] }}</p>
      <ul>
        @for (command of commands; track command) {
          <li>
            <span>{{ words[command] }}</span>
            <span class="mono">{{ pedals.assigned()[command] || '–' }}</span>
            <button
              mat-stroked-button
              [class.on]="pedals.learning() === command"
              [attr.aria-label]="'Learn the pedal for: ' + words[command]"
              (click)="pedals.learn(command)"
            >
              {{ pedals.learning() === command ? 'Press the pedal now' : 'Learn' }}
            </button>
            <button
              mat-icon-button
              [disabled]="!pedals.assigned()[command]"
              [attr.aria-label]="'Take the pedal back from: ' + words[command]"
              (click)="pedals.forget(command)"
            >
              <wn-icon name="close" [size]="16" />
            </button>
          </li>
        }
      </ul>
      <div class="board" role="group" aria-label="Simulated board">
        @for (controller of switches; track controller; let i = $index) {
          <button
            mat-stroked-button
            class="switch"
            [attr.aria-label]="'Switch ' + (i + 1)"
            (click)="press(controller)"
          >
            {{ i + 1 }}
          </button>
        }
        <mat-slider [min]="0" [max]="127">
          <input
            matSliderThumb
            aria-label="Expression pedal"
            [value]="0"
            (valueChange)="send(expression, $event)"
          />
        </mat-slider>
      </div>
    </aside>
  `,
  styles: `
    // No box of its own: it would take a row from the screen that it lies beside.
    :host {
      display: contents;
    }
    aside {
      position: absolute;
      right: 0;
      top: 0;
      bottom: 0;
      z-index: 4;
      width: min(100%, 344px);
      padding: 12px 20px;
      overflow: auto;
      background: var(--sleeve);
      border-left: 1px solid var(--line2);
    }
    header {
      display: flex;
      justify-content: space-between;
    }
    h2 {
      font-size: 26px;
    }
    ul {
      margin: 8px 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 1fr 84px 150px 40px;
      align-items: center;
      gap: 8px;
      padding: 3px 0;
      border-bottom: 1px solid var(--line);
    }
    .on {
      background: var(--ink);
      color: var(--sleeve);
    }
    .board {
      display: flex;
      align-items: center;
      gap: 10px;
      padding: 12px 0;
    }
    .switch {
      width: 56px;
      height: 56px;
      min-width: 0;
      border-radius: 28px;
      font-size: 20px;
    }
    mat-slider {
      flex: 1;
      min-width: 80px;
    }
  `,
})
export class PedalBoard {
  readonly closed = output();
  protected readonly pedals = inject(Pedals);
  protected readonly commands = PEDAL_COMMANDS;
  protected readonly words = WORDS;
  protected readonly deviceWords = DEVICE_WORDS;
  protected readonly switches = SWITCHES;
  protected readonly expression = EXPRESSION;

  constructor() {
    void this.pedals.connect();
    // A board that is closed waits for nothing.
    inject(DestroyRef).onDestroy(() => this.pedals.disarm());
  }

  protected press(controller: number): void {
    this.send(controller, 127);
    this.send(controller, 0);
  }

  protected send(controller: number, value: number): void {
    this.pedals.receive(Uint8Array.of(CONTROL_CHANGE, controller, value));
  }
}
