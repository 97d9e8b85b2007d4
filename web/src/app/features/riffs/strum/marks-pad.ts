/** The marks of the chosen strum as switches, each with its key. */
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { MarkCommand, Strum } from '@wild-needle/core/riff';

interface MarkSwitch {
  readonly command: MarkCommand;
  readonly key: string;
  /** What the switch says in each state: '' as when it is off. */
  readonly label: (strum: Strum | null) => string;
  readonly isOn: (strum: Strum) => boolean;
}

const plain = (label: string) => (): string => label;

const BENDS: Readonly<Record<number, string>> = {
  50: 'Bend ¼',
  100: 'Bend ½',
  200: 'Bend 1',
  300: 'Bend 1½',
};

const SWITCHES: readonly MarkSwitch[] = [
  { command: 'mute', key: 'M', label: plain('Mute'), isOn: (s) => s.palmMute },
  { command: 'dead', key: 'X', label: plain('Dead'), isOn: (s) => s.dead },
  { command: 'ring', key: 'R', label: plain('Ring'), isOn: (s) => s.marks.length === 'ring' },
  { command: 'short', key: 'T', label: plain('Short'), isOn: (s) => s.marks.length === 'short' },
  { command: 'slide', key: 'S', label: plain('Slide'), isOn: (s) => s.marks.join === 'slide' },
  { command: 'hammer', key: 'H', label: plain('Hammer'), isOn: (s) => s.marks.join === 'hammer' },
  {
    command: 'harmonic',
    key: 'O',
    label: (s) => (s?.marks.harmonic === 'pinch' ? 'Pinch' : 'Harm.'),
    isOn: (s) => s.marks.harmonic !== null,
  },
  {
    command: 'bar',
    key: 'B',
    label: (s) => (s?.marks.whammyBar === 'dive' ? 'Dive' : 'Bar dip'),
    isOn: (s) => s.marks.whammyBar !== null,
  },
  {
    command: 'bend',
    key: 'U',
    label: (s) => BENDS[s?.marks.bendCents ?? 0] ?? 'Bend',
    isOn: (s) => s.marks.bendCents > 0,
  },
  { command: 'vibrato', key: 'Z', label: plain('Vibrato'), isOn: (s) => s.marks.vibrato },
  { command: 'accent', key: "'", label: plain('Accent'), isOn: (s) => s.marks.accent },
  {
    command: 'stroke',
    key: 'D',
    label: (s) => (s?.marks.stroke === 'up' ? 'Up' : s?.marks.stroke === 'down' ? 'Down' : 'Stroke'),
    isOn: (s) => s.marks.stroke !== null,
  },
  {
    command: 'slide-end',
    key: '⇧S',
    label: (s) =>
      s?.marks.slideIn
        ? s.marks.slideIn === 'below'
          ? 'In up'
          : 'In down'
        : s?.marks.slideOut
          ? `Out ${s.marks.slideOut}`
          : 'In, out',
    isOn: (s) => s.marks.slideIn !== null || s.marks.slideOut !== null,
  },
  { command: 'tie', key: '\\', label: plain('Tie'), isOn: (s) => s.marks.join === 'tie' },
  { command: 'rest', key: '/', label: plain('Rest'), isOn: (s) => s.rest },
];

@Component({
  selector: 'wn-marks-pad',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'group', 'aria-label': 'Marks' },
  template: `
    @for (mark of switches(); track mark.command) {
      <button
        type="button"
        [class.on]="mark.on"
        [attr.aria-pressed]="mark.on"
        [disabled]="!strum()"
        (click)="pressed.emit(mark.command)"
      >
        <span>{{ mark.label }}</span>
        <kbd>{{ mark.key }}</kbd>
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(5, 1fr);
      gap: 4px;
    }
    button {
      display: flex;
      flex-direction: column;
      align-items: center;
      justify-content: center;
      height: 37px;
      padding: 0;
      border: 1px solid var(--edge);
      border-radius: 8px;
      background: none;
      font: 500 13px/15px var(--words);
      cursor: pointer;
    }
    .on {
      background: var(--ink);
      color: var(--sleeve);
      border-color: var(--ink);
    }
    button:disabled {
      color: var(--ink3);
      cursor: default;
    }
    kbd {
      border: 0;
      padding: 0;
      font-size: 11px;
      line-height: 12px;
      // An opacity would give each of them a layer of its own.
      color: color-mix(in srgb, currentColor 80%, transparent);
    }
  `,
})
export class MarksPad {
  readonly strum = input.required<Strum | null>();
  readonly pressed = output<MarkCommand>();

  protected readonly switches = computed(() => {
    const strum = this.strum();
    return SWITCHES.map(({ command, key, label, isOn }) => ({
      command,
      key,
      label: label(strum),
      on: strum !== null && isOn(strum),
    }));
  });
}
