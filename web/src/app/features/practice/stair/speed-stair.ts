/** The speed stair: its steps, the one that is stood on, and how many clean rounds it has. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { scaleLinear } from 'd3-scale';
import { stepsOf } from '@wild-needle/core/practice';
import { PracticeRun } from '../run/practice-run';

const WIDTH_PX = 248;
const HEIGHT_PX = 160;
const LOWEST_PX = 30;
const HIGHEST_PX = 138;
/** Narrower steps are numbered where there is room. */
const LABEL_PX = 24;

@Component({
  selector: 'wn-speed-stair',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="speed" role="status">
      <span class="display">{{ run.stair().percent }} %</span>
      <span class="mono">{{ run.beatsPerMinute() ?? '–' }} bpm</span>
    </p>
    <svg
      role="slider"
      tabindex="0"
      aria-label="Step of the speed stair"
      [attr.aria-valuemin]="run.settings().fromPercent"
      [attr.aria-valuemax]="run.settings().toPercent"
      [attr.aria-valuenow]="run.stair().percent"
      [attr.aria-valuetext]="spoken()"
      width="248"
      height="162"
      (keydown.arrowUp)="stepByKey($event, 1)"
      (keydown.arrowDown)="stepByKey($event, -1)"
    >
      @for (step of steps(); track step.percent) {
        <g [class]="step.state" (click)="run.stand(step.percent)">
          <rect class="target" [attr.x]="step.x" y="0" [attr.width]="step.width" height="160" />
          <rect
            class="step"
            rx="2"
            [attr.x]="step.x + 0.5"
            [attr.y]="HEIGHT - step.height"
            [attr.width]="step.width - 1"
            [attr.height]="step.height"
          />
          @if (step.hasLabel) {
            <text [attr.x]="step.x + step.width / 2" y="153">{{ step.percent }}</text>
          }
        </g>
      }
    </svg>
    <p class="discs">
      @for (isFull of discs(); track $index) {
        <svg width="22" height="22" aria-hidden="true">
          <circle cx="11" cy="11" r="9.5" [class.full]="isFull" />
        </svg>
      }
      <b>{{ run.stair().clean }} of {{ run.settings().cleanRounds }} clean</b>
      <span class="gap"></span>
      <span class="quiet">{{ next() }}</span>
    </p>
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      width: 248px;
      height: 196px;
    }
    .speed {
      position: absolute;
      left: 0;
      top: 0;
      pointer-events: none;
    }
    .speed .display {
      display: block;
      font-size: 54px;
      font-weight: 800;
      line-height: 50px;
    }
    .speed .mono {
      font-size: 16px;
      color: var(--ink2);
    }
    svg {
      display: block;
    }
    .target {
      fill: transparent;
      cursor: pointer;
    }
    .step {
      pointer-events: none;
      fill: var(--ink);
    }
    text {
      font: 500 13px var(--words);
      text-anchor: middle;
      fill: var(--sleeve);
      pointer-events: none;
    }
    .now .step {
      fill: var(--needle);
    }
    .now text {
      font-weight: 600;
      fill: var(--on-needle);
    }
    .come .step {
      fill: var(--shade);
      stroke: var(--edge);
    }
    .come text {
      fill: var(--ink2);
    }
    .discs {
      display: flex;
      align-items: center;
      gap: 6px;
      height: 32px;
      white-space: nowrap;
    }
    .discs b {
      margin-left: 2px;
      font-size: 15px;
    }
    .gap {
      flex: 1;
    }
    circle {
      fill: none;
      stroke: var(--edge);
      stroke-width: 2;
    }
    circle.full {
      fill: var(--ink);
      stroke: var(--ink);
    }
  `,
})
export class SpeedStair {
  protected readonly run = inject(PracticeRun);
  protected readonly HEIGHT = HEIGHT_PX;

  protected readonly steps = computed(() => {
    const percents = stepsOf(this.run.settings());
    const now = this.run.stair().percent;
    const width = WIDTH_PX / percents.length;
    const heightOf = scaleLinear([0, percents.length - 1], [LOWEST_PX, HIGHEST_PX]);
    return percents.map((percent, i) => ({
      ...{ percent, width, x: i * width, height: heightOf(i) },
      state: percent === now ? 'now' : percent < now ? 'up' : 'come',
      hasLabel: width >= LABEL_PX || i % Math.ceil(LABEL_PX / width) === 0,
    }));
  });
  protected readonly discs = computed(() => {
    const { clean } = this.run.stair();
    return Array.from({ length: this.run.settings().cleanRounds }, (_, i) => i < clean);
  });
  protected readonly next = computed(() => {
    const [{ percent }, settings] = [this.run.stair(), this.run.settings()];
    const after = stepsOf(settings).find((step) => step > percent);
    return after === undefined ? 'full speed' : `then ${after} %`;
  });
  protected readonly spoken = computed(() => {
    const { percent, clean } = this.run.stair();
    return `Step ${percent} per cent, ${clean} of ${this.run.settings().cleanRounds} clean`;
  });

  protected stepByKey(event: Event, by: 1 | -1): void {
    event.preventDefault();
    event.stopPropagation();
    this.run.step(by);
  }
}
