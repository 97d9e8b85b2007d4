/** The whole song as one strip of ticks, one for each strum of each pass: what is borne out, what is doubted, what is left. */
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { isOpen, type Question } from '../walk/questions';

const WIDTH = 260;
const HEIGHT = 26;
/** Ticks that ask stand out. */
const PLAIN = { top: 7, height: 10 };
const ASKING = { top: 3, height: 18 };

type Kind = 'agrees' | 'doubtful' | 'clashes' | 'unchecked';

function kindOf(question: Question): Kind {
  if (question.settled === 'doubtful') return 'doubtful';
  if (!isOpen(question)) return question.verdict === 'unchecked' ? 'unchecked' : 'agrees';
  return question.verdict === 'doubtful' ? 'doubtful' : 'clashes';
}

@Component({
  selector: 'wn-progress-ticks',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      role="progressbar"
      aria-label="Strums checked"
      aria-valuemin="0"
      [attr.aria-valuemax]="questions().length"
      [attr.aria-valuenow]="checked()"
      [attr.aria-valuetext]="checked() + ' of ' + questions().length"
      [attr.viewBox]="'0 0 ' + WIDTH + ' ' + HEIGHT"
      (click)="choose($event)"
    >
      @for (ticks of paths(); track ticks.kind) {
        <path [class]="ticks.kind" [attr.d]="ticks.d" />
      }
      @if (needle() !== null) {
        <path class="here" [attr.d]="'M' + needle() + ' 21l4 5h-8Z'" />
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 260px;
      height: 26px;
      cursor: pointer;
    }
    path {
      stroke-width: 1.6;
    }
    .unchecked {
      stroke: var(--line2);
    }
    .agrees {
      stroke: var(--ok);
    }
    .doubtful {
      stroke: var(--doubt-fill);
      stroke-width: 2;
    }
    .clashes {
      stroke: var(--clash);
      stroke-width: 2;
    }
    .here {
      fill: var(--ink);
    }
  `,
})
export class ProgressTicks {
  /** In order of time. */
  readonly questions = input.required<readonly Question[]>();
  readonly chosen = input.required<Question | null>();
  readonly chose = output<Question>();
  protected readonly WIDTH = WIDTH;
  protected readonly HEIGHT = HEIGHT;

  protected readonly checked = computed(() => this.questions().filter((q) => kindOf(q) === 'agrees').length);
  protected readonly paths = computed(() => {
    const questions = this.questions();
    const d = { unchecked: '', agrees: '', doubtful: '', clashes: '' };
    questions.forEach((question, i) => {
      const kind = kindOf(question);
      const { top, height } = kind === 'agrees' || kind === 'unchecked' ? PLAIN : ASKING;
      d[kind] += `M${this.x(i).toFixed(1)} ${top}v${height}`;
    });
    return (Object.keys(d) as Kind[]).map((kind) => ({ kind, d: d[kind] }));
  });
  protected readonly needle = computed(() => {
    const at = this.questions().findIndex((q) => q.id === this.chosen()?.id);
    return at < 0 ? null : this.x(at);
  });

  protected choose(event: MouseEvent): void {
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const share = (event.clientX - box.left) / box.width;
    const at = Math.min(this.questions().length - 1, Math.floor(share * this.questions().length));
    const question = this.questions().at(at);
    if (question) this.chose.emit(question);
  }

  private x(index: number): number {
    return ((index + 0.5) / this.questions().length) * WIDTH;
  }
}
