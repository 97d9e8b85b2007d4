/** Right by ear: by week, and by kind of chord. */
import { scaleLinear } from 'd3-scale';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatProgressBar } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import { EAR_KINDS, type Guess } from '@wild-needle/contract';
import { guessesFeature } from '../../../state/guesses/guesses.reducer';
import { EAR_KIND_WORDS, scoreOf } from './chord-kinds';

export const WEEKS = 6;
const DAY_MS = 24 * 3600 * 1000;
const BARS = { width: 28, step: 36, height: 56, top: 16 };

/** Guesses of the last weeks, the present one last: how many, and how many of them right. A week begins seven days before the next. */
export function byWeek(
  guesses: readonly Guess[],
  now: Date,
): { readonly right: number; readonly of: number }[] {
  const weeks = Array.from({ length: WEEKS }, () => ({ right: 0, of: 0 }));
  for (const { at, guessed, heard } of guesses) {
    const ago = Math.floor((now.getTime() - new Date(at).getTime()) / (7 * DAY_MS));
    const week = weeks[WEEKS - 1 - ago];
    if (!week) continue;
    week.of++;
    week.right += scoreOf(guessed, heard);
  }
  return weeks;
}

@Component({
  selector: 'wn-ear-tally',
  imports: [MatProgressBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 class="display">Right by ear</h3>
    @if (total().of === 0) {
      <p class="quiet">Your first guess begins the count: by week, and by kind of chord.</p>
    } @else {
      <p class="quiet">Six weeks, in per cent</p>
      <svg role="img" [attr.aria-label]="spoken()" width="212" [attr.height]="BARS.top + BARS.height + 16">
        @for (bar of bars(); track bar.x) {
          <rect
            [class.now]="bar.isNow"
            [attr.x]="bar.x"
            [attr.y]="bar.y"
            [attr.width]="BARS.width"
            [attr.height]="bar.height"
          />
          <text [class.now]="bar.isNow" [attr.x]="bar.x + BARS.width / 2" [attr.y]="bar.y - 3">
            {{ bar.words }}
          </text>
        }
        <path class="floor" [attr.d]="'M0 ' + (BARS.top + BARS.height) + 'H208'" />
        <text class="week" x="208" [attr.y]="BARS.top + BARS.height + 14">this week</text>
      </svg>
      <table>
        @for (row of kinds(); track row.kind) {
          <tr>
            <th scope="row">{{ row.words }}</th>
            <td class="bar">
              <mat-progress-bar mode="determinate" [value]="row.percent" [attr.aria-label]="row.words" />
            </td>
            <td class="count">{{ row.right }} of {{ row.of }}</td>
          </tr>
        }
      </table>
      <p>
        <b>{{ total().right }} of {{ total().of }}</b> in six weeks
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding-left: 20px;
      border-left: 1px solid var(--line2);
      font-size: 13px;
      line-height: 18px;
    }
    h3 {
      font-size: 26px;
      font-weight: 600;
    }
    svg {
      display: block;
      margin-top: 4px;
    }
    rect {
      fill: var(--shade);
      stroke: var(--line2);
    }
    rect.now {
      fill: var(--ok);
      stroke: none;
    }
    .floor {
      stroke: var(--line2);
    }
    text {
      font: 400 12px var(--words);
      fill: var(--ink2);
      text-anchor: middle;
    }
    text.now {
      font-weight: 700;
      fill: var(--ink);
    }
    text.week {
      text-anchor: end;
    }
    table {
      width: 100%;
      margin-top: 6px;
      border-spacing: 0;
    }
    th {
      padding: 0;
      height: 22px;
      text-align: left;
      font-weight: 400;
      white-space: nowrap;
    }
    td {
      padding: 0;
    }
    .bar {
      width: 62px;
    }
    .count {
      text-align: right;
      white-space: nowrap;
    }
    mat-progress-bar {
      --mat-progress-bar-active-indicator-color: var(--ok);
    }
  `,
})
export class EarTally {
  private readonly guesses = inject(Store).selectSignal(guessesFeature.selectGuesses);
  protected readonly BARS = BARS;

  private readonly weeks = computed(() => byWeek(this.guesses(), new Date()));
  protected readonly total = computed(() =>
    this.weeks().reduce((sum, w) => ({ right: sum.right + w.right, of: sum.of + w.of }), { right: 0, of: 0 }),
  );
  protected readonly bars = computed(() => {
    const y = scaleLinear([0, 1], [0, BARS.height]);
    return this.weeks().map(({ right, of }, i) => {
      const height = of === 0 ? 0 : Math.max(1, y(right / of));
      return {
        x: BARS.step * i,
        y: BARS.top + BARS.height - height,
        height,
        words: of === 0 ? '–' : String(Math.round((100 * right) / of)),
        isNow: i === WEEKS - 1,
      };
    });
  });
  protected readonly kinds = computed(() => {
    const from = Date.now() - 7 * WEEKS * DAY_MS;
    const recent = this.guesses().filter((g) => new Date(g.at).getTime() >= from);
    return EAR_KINDS.flatMap((kind) => {
      const own = recent.filter((g) => g.heard.kind === kind);
      const right = own.reduce((sum, g) => sum + scoreOf(g.guessed, g.heard), 0);
      return own.length === 0
        ? []
        : [{ kind, words: EAR_KIND_WORDS[kind], right, of: own.length, percent: (100 * right) / own.length }];
    });
  });
  protected readonly spoken = computed(
    () =>
      `Right by ear in six weeks: ${this.bars()
        .map((b) => b.words)
        .join(', ')} per cent`,
  );
}
