/** The log at a glance: minutes a day as bars, the best clean tempo of the chosen part as a line. Nothing in it compares with others. */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { scaleBand, scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { byWeek, type PlannedItem, type PractisedDay } from '@wild-needle/core/practice';
import { observeSize } from '../../../shared/observe-size';
import { HandsRest } from '../run/hands-rest';
import { bpmOf, dayWords } from '../practice-words';

const FORTNIGHT = 14;
const FLOOR_PX = 48;
const TOP_PX = 6;
/** For the words at the right. */
const RIGHT_PX = 76;
/** Bars are drawn as if a day had at least so many minutes: a first minute is no tower. */
const LEAST_MINUTES = 30;

@Component({
  selector: 'wn-practice-log',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="today">
      <span class="display">{{ minutes() }} min today</span>
      <p role="status">{{ hands.words() || hint() }}</p>
    </div>
    <div #chart class="chart">
      @if (isEmpty()) {
        <p class="quiet">Your first fortnight begins today.</p>
      } @else {
        <svg role="img" [attr.aria-label]="spoken()" [attr.width]="widthPx()" height="65">
          @for (bar of bars(); track bar.day) {
            <rect [attr.x]="bar.x" [attr.y]="bar.y" [attr.width]="bar.width" [attr.height]="bar.height" />
          }
          <path class="floor" [attr.d]="'M0 48.5H' + (widthPx() - RIGHT)" />
          <path class="wanted" [attr.d]="'M0 ' + wantedY() + 'H' + (widthPx() - RIGHT)" />
          <path class="best" [attr.d]="path()" />
          @for (point of points(); track point.x) {
            <circle r="2.5" [attr.cx]="point.x" [attr.cy]="point.y" />
          }
          <text x="0" y="61">{{ firstDay() }}</text>
          <text [attr.x]="widthPx() - RIGHT" y="61" text-anchor="end">today</text>
          <text [attr.x]="widthPx() - RIGHT + 8" [attr.y]="wantedY() + 5">{{ wanted() }} wanted</text>
          @if (best() > 0) {
            <text class="clean" [attr.x]="widthPx() - RIGHT + 8" [attr.y]="bestY()">{{ best() }} clean</text>
          }
        </svg>
      }
    </div>
    <button
      mat-stroked-button
      class="small"
      [attr.aria-pressed]="showsWeeks()"
      title="Week by week, over three months"
      (click)="showsWeeks.set(!showsWeeks())"
    >
      {{ showsWeeks() ? 'Days' : 'Weeks' }}
    </button>
    <button mat-stroked-button class="small" (click)="takeAway()()" title="The whole log as a table">
      CSV
    </button>
  `,
  styles: `
    :host {
      display: flex;
      align-items: flex-start;
      gap: 12px;
      flex: none;
      height: 66px;
      padding: 4px 16px 0;
      border-top: 1px solid var(--line2);
    }
    .today {
      flex: none;
      width: 186px;
    }
    .today .display {
      font-size: 23px;
      font-weight: 600;
      line-height: 26px;
    }
    .today p {
      font-size: 13px;
      line-height: 15px;
      color: var(--ink2);
    }
    .chart {
      flex: 1;
      min-width: 0;
    }
    svg {
      display: block;
      overflow: visible;
    }
    rect {
      fill: var(--tail);
      stroke: var(--line2);
    }
    .floor {
      stroke: var(--line2);
    }
    .wanted {
      stroke: var(--edge);
      stroke-dasharray: 2 3;
    }
    .best {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2;
    }
    circle {
      fill: var(--ink);
    }
    text {
      font: 400 12px var(--words);
      fill: var(--ink2);
    }
    .clean {
      font: 700 18px var(--display);
      fill: var(--ink);
    }
    .small {
      flex: none;
      height: 30px;
      padding: 0 8px;
      font-size: 13px;
    }
  `,
})
export class PracticeLog {
  readonly days = input.required<readonly PractisedDay[]>();
  readonly item = input.required<PlannedItem | null>();
  readonly today = input.required<number>();
  /** Said where the hands need nothing. */
  readonly hint = input('');
  readonly takeAway = input.required<() => void>();
  protected readonly hands = inject(HandsRest);
  private readonly chart = viewChild<ElementRef<HTMLElement>>('chart');
  protected readonly widthPx = signal(520);
  protected readonly RIGHT = RIGHT_PX;

  constructor() {
    observeSize(this.chart, ({ width }) => this.widthPx.set(Math.round(width)));
  }

  protected readonly minutes = computed(() => Math.round(this.days().at(-1)?.minutes ?? 0));
  /** The last fortnight, or all weeks that are kept in sight. */
  protected readonly showsWeeks = signal(false);
  private readonly shown = computed(() =>
    this.showsWeeks() ? byWeek(this.days()) : this.days().slice(-FORTNIGHT),
  );
  protected readonly isEmpty = computed(() => this.days().every((d) => d.minutes === 0));
  private readonly xOf = computed(() =>
    scaleBand(
      this.shown().map((d) => d.day),
      [0, this.widthPx() - RIGHT_PX],
    ).paddingInner(0.45),
  );
  protected readonly bars = computed(() => {
    const most = Math.max(LEAST_MINUTES, ...this.shown().map((d) => d.minutes));
    const heightOf = scaleLinear([0, most], [0, FLOOR_PX - TOP_PX]);
    const x = this.xOf();
    return this.shown()
      .filter((d) => d.minutes > 0)
      .map(({ day, minutes }) => {
        const height = Math.max(1, heightOf(minutes));
        return { day, x: x(day) ?? 0, width: x.bandwidth(), y: FLOOR_PX - height, height };
      });
  });
  private readonly yOf = computed(() => {
    const wanted = this.wanted();
    return scaleLinear([wanted / 2, wanted], [FLOOR_PX, TOP_PX + 2]).clamp(true);
  });
  protected readonly points = computed(() => {
    const [item, x, y] = [this.item(), this.xOf(), this.yOf()];
    return this.shown().flatMap(({ day, bestPercent }) =>
      item && bestPercent !== null
        ? [{ x: (x(day) ?? 0) + x.bandwidth() / 2, y: y(bpmOf(item, bestPercent)) }]
        : [],
    );
  });
  protected readonly path = computed(
    () =>
      line<{ readonly x: number; readonly y: number }>(
        (p) => p.x,
        (p) => p.y,
      )(this.points()) ?? '',
  );
  protected readonly wanted = computed(() => {
    const item = this.item();
    return item ? bpmOf(item, 100) : 0;
  });
  protected readonly wantedY = computed(() => this.yOf()(this.wanted()));
  protected readonly best = computed(() => {
    const item = this.item();
    return item ? bpmOf(item, item.bestPercent) : 0;
  });
  /** Under the line of what is wanted, where the two would meet. */
  protected readonly bestY = computed(() => Math.max(this.wantedY() + 24, this.yOf()(this.best()) + 6));
  protected readonly firstDay = computed(() => dayWords(this.shown()[0]?.day ?? 0, this.today()));
  protected readonly spoken = computed(() => {
    const [item, played] = [this.item(), this.shown().flatMap((d) => d.bestPercent ?? [])];
    const [first, last] = [played.at(0), played.at(-1)];
    const tempo =
      item && first !== undefined && last !== undefined
        ? `Best clean tempo from ${bpmOf(item, first)} to ${bpmOf(item, last)} in a fortnight, `
        : '';
    return `${tempo}${this.minutes()} minutes today`;
  });
}
