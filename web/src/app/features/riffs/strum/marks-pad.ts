/** The marks of the chosen strum as switches, each with its key. */
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MARKS, type MarkCommand, type Strum } from '@wild-needle/core/riff';
import { MARK_COMMANDS, MARK_VIEWS, type MarkView } from '../../../tab/mark-views';

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
        <kbd>{{ mark.cap }}</kbd>
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(4, 1fr);
      gap: 4px;
    }
    button {
      display: flex;
      align-items: center;
      justify-content: center;
      gap: 5px;
      height: 28px;
      padding: 0;
      border: 1px solid var(--edge);
      border-radius: 8px;
      background: none;
      // 'Slide in/out' takes two lines.
      font: 500 13px/12px var(--words);
      letter-spacing: -0.01em;
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
      line-height: 16px;
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
    return MARK_COMMANDS.map((command) => {
      const { cap, label }: MarkView = MARK_VIEWS[command];
      return { command, cap, label: label(strum), on: strum !== null && isMarked(strum, command) };
    });
  });
}

/** It has words to be said of it. */
function isMarked(strum: Strum, command: MarkCommand): boolean {
  return MARKS[command].words(strum) !== '';
}
