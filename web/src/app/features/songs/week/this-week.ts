/** How long hands were on songs this week, day by day; taken away as a table, song by song and step by step. */
import { ChangeDetectionStrategy, Component, computed, DOCUMENT, inject, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { scaleLinear } from 'd3-scale';
import { firstValueFrom } from 'rxjs';
import type { Worked } from '@wild-needle/contract';
import { Api } from '../../../api/api';
import { saveFile } from '../../../shared/save-file';
import { STEP_WORDS, hoursAndMinutes } from '../row/shelf-words';

const LETTERS = ['M', 'T', 'W', 'T', 'F', 'S', 'S'];
const HEIGHT_PX = 46;
/** A bar is drawn as if the longest day had at least so much: a first minute is no tower. */
const LEAST_S = 30 * 60;

/** The Monday of the week that a day is in. */
export function mondayOf(day: Date): Date {
  const back = (day.getDay() + 6) % 7;
  return new Date(day.getFullYear(), day.getMonth(), day.getDate() - back);
}

const isoDay = (d: Date): string =>
  `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`;

@Component({
  selector: 'wn-this-week',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="This week">
      <div>
        <h2 class="display">This week</h2>
        <b class="display sum">{{ sum() }}</b>
      </div>
      <svg role="img" width="128" height="64" [attr.aria-label]="spoken()">
        @for (bar of bars(); track bar.x) {
          <rect
            width="14"
            [class.today]="bar.isToday"
            [attr.x]="bar.x"
            [attr.y]="HEIGHT - bar.height"
            [attr.height]="bar.height"
          />
          <text text-anchor="middle" y="60" [class.today]="bar.isToday" [attr.x]="bar.x + 7">
            {{ bar.letter }}
          </text>
        }
      </svg>
      <button mat-stroked-button title="All time worked as a table" (click)="takeAway()">CSV</button>
    </section>
  `,
  styles: `
    section {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 128px auto;
      align-items: end;
      gap: 8px;
    }
    h2,
    .sum {
      white-space: nowrap;
    }
    h2 {
      font-size: 22px;
    }
    .sum {
      font-size: 26px;
    }
    rect {
      fill: var(--ink3);
    }
    .today {
      fill: var(--ink);
      font-weight: 700;
    }
    text {
      font-size: 11px;
      fill: var(--ink2);
    }
    button {
      min-width: 0;
      height: 32px;
      padding: 0 6px;
      font-size: 12px;
    }
  `,
})
export class ThisWeek {
  private readonly api = inject(Api);
  private readonly page = inject(DOCUMENT);
  protected readonly HEIGHT = HEIGHT_PX;
  private readonly worked = signal<readonly Worked[]>([]);
  private readonly days = computed(() => {
    const today = new Date();
    const monday = mondayOf(today);
    return LETTERS.map((letter, n) => {
      const day = isoDay(new Date(monday.getFullYear(), monday.getMonth(), monday.getDate() + n));
      const seconds = this.worked()
        .filter((w) => w.day === day)
        .reduce((sum, w) => sum + w.seconds, 0);
      return { letter, day, seconds, isToday: day === isoDay(today) };
    });
  });
  protected readonly sum = computed(() =>
    hoursAndMinutes(this.days().reduce((sum, { seconds }) => sum + seconds, 0)),
  );
  protected readonly bars = computed(() => {
    const most = Math.max(LEAST_S, ...this.days().map(({ seconds }) => seconds));
    const height = scaleLinear([0, most], [1, HEIGHT_PX]);
    return this.days().map((day, n) => ({ ...day, x: 18 * n, height: height(day.seconds) }));
  });
  protected readonly spoken = computed(() => {
    const worked = this.days()
      .filter(({ seconds }) => seconds > 0)
      .map(({ day, seconds }) => `${day}: ${hoursAndMinutes(seconds)}`)
      .join(', ');
    return worked === '' ? 'Nothing was worked on yet this week' : worked;
  });

  constructor() {
    void this.load();
  }

  private async load(): Promise<void> {
    try {
      this.worked.set(await firstValueFrom(this.api.workedSince(mondayOf(new Date()))));
    } catch {
      // The shelf says that the server does not answer.
    }
  }

  protected async takeAway(): Promise<void> {
    const { writeTimesCsv } = await import('@wild-needle/core/practice/log-table');
    const all = await firstValueFrom(this.api.workedSince(new Date(0)));
    const rows = all.map(({ day, title, step, seconds }) => ({
      day,
      song: title,
      step: STEP_WORDS[step],
      seconds,
    }));
    saveFile(this.page, 'time worked', 'csv', 'text/csv', writeTimesCsv(rows));
  }
}
