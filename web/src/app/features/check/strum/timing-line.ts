/** When the strum is struck: early to late on one line, the other passes as dots, what the band always does shaded. */
import { quantile } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { beatPeriodAt } from '@wild-needle/core/riff';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { capital } from '../../../shared/words';
import { Judging } from '../judging/judging';
import { CheckAnswers } from '../walk/check-answers';
import { CheckWalk } from '../walk/check-walk';
import { lateWords, ringWords } from '../walk/question-words';

const WIDTH = 340;
/** Half of the line, until something lies farther out. */
const REACH_MS = 50;
/** Passes that make a habit of their own. */
const LEAST_PASSES = 4;
const MIDDLE_Y = 26;

@Component({
  selector: 'wn-timing-line',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <b>Timing</b>
    <p class="words">
      <span class="display late">{{ late() }}</span>
      <span>{{ habitWords() }}</span>
    </p>
    <svg [attr.viewBox]="'0 0 ' + WIDTH + ' 56'" role="img" [attr.aria-label]="late() + ' ' + habitWords()">
      @if (shade(); as habit) {
        <rect class="habit" rx="3" y="13" height="26" [attr.x]="habit.x" [attr.width]="habit.width" />
      }
      <path class="line" [attr.d]="'M0 ' + MIDDLE_Y + 'H' + WIDTH + ticks()" />
      <path class="beat" [attr.d]="'M' + WIDTH / 2 + ' 11v30'" />
      @for (dot of dots(); track $index) {
        <circle class="other" r="3" [attr.cx]="dot.x" [attr.cy]="dot.y" />
      }
      @if (here() !== null) {
        <circle class="here" r="7" [attr.cx]="here()" [attr.cy]="MIDDLE_Y" />
      }
      @for (mark of marks(); track mark.x) {
        <text [attr.x]="mark.x" y="9" text-anchor="middle">{{ mark.words }}</text>
      }
      <text x="0" y="54">early</text>
      <text [attr.x]="WIDTH / 2" y="54" text-anchor="middle">on the beat</text>
      <text [attr.x]="WIDTH" y="54" text-anchor="end">late</text>
    </svg>
    <p class="ring">{{ ring() }}</p>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .words {
      display: flex;
      align-items: baseline;
      gap: 10px;
      height: 38px;
      white-space: nowrap;
      color: var(--ink2);
      overflow: hidden;
    }
    .late {
      font-size: 34px;
      font-weight: 600;
      color: var(--ink);
    }
    svg {
      display: block;
      width: 100%;
      overflow: visible;
    }
    .habit {
      fill: var(--shade);
      stroke: var(--line2);
    }
    .line {
      stroke: var(--line2);
    }
    .beat {
      stroke: var(--ink);
      stroke-width: 2.5;
    }
    .other {
      fill: var(--groove2);
    }
    .here {
      fill: var(--groove);
      stroke: var(--sleeve);
      stroke-width: 2;
    }
    text {
      font: 400 12px var(--words);
      fill: var(--ink2);
    }
    .ring {
      margin-top: 6px;
      height: 40px;
      overflow: hidden;
    }
  `,
})
export class TimingLine {
  private readonly walk = inject(CheckWalk);
  private readonly answers = inject(CheckAnswers);
  private readonly judging = inject(Judging);
  private readonly song = inject(OpenSongStore);
  protected readonly WIDTH = WIDTH;
  protected readonly MIDDLE_Y = MIDDLE_Y;

  private readonly offsetMs = computed(() => {
    const offsetS = this.walk.studied()?.offsetS ?? null;
    return offsetS === null ? null : 1000 * offsetS;
  });
  private readonly othersMs = computed(() => {
    const id = this.walk.studied()?.id;
    return this.answers
      .passes()
      .passes.flatMap((q) => (q.id === id || q.offsetS === null ? [] : [1000 * q.offsetS]));
  });
  /** The middle 80 % of the passes; of a strum that comes seldom, of all strums. */
  private readonly habit = computed(() => {
    const others = this.othersMs();
    if (others.length >= LEAST_PASSES)
      return { fromMs: quantile(others, 0.1)!, toMs: quantile(others, 0.9)! };
    const habit = this.judging.judged()?.judgement.habit;
    return habit ? { fromMs: 1000 * habit.fromS, toMs: 1000 * habit.toS } : null;
  });
  private readonly reach = computed(() =>
    Math.max(REACH_MS, ...[this.offsetMs() ?? 0, ...this.othersMs()].map((ms) => 1.1 * Math.abs(ms))),
  );
  private readonly x = computed(() => scaleLinear([-this.reach(), this.reach()], [0, WIDTH]).clamp(true));

  protected readonly late = computed(() => {
    const ms = this.offsetMs();
    if (this.walk.studied()?.strum === null) return 'Not written';
    return ms === null ? 'Not heard' : capital(lateWords(ms / 1000));
  });
  protected readonly habitWords = computed(() => {
    const [ms, habit] = [this.offsetMs(), this.habit()];
    if (ms === null || !habit) return '';
    const [from, to] = [habit.fromMs, habit.toMs].map((at) => String(Math.round(at)).replace('-', '−'));
    const isIn = ms >= habit.fromMs - 1 && ms <= habit.toMs + 1;
    return `${isIn ? 'in' : 'outside'} the band’s habit, ${from} to ${to}`;
  });
  protected readonly shade = computed(() => {
    const [habit, x] = [this.habit(), this.x()];
    return habit && { x: x(habit.fromMs), width: Math.max(4, x(habit.toMs) - x(habit.fromMs)) };
  });
  protected readonly here = computed(() => {
    const ms = this.offsetMs();
    return ms === null ? null : this.x()(ms);
  });
  /** Beside each other where they fall together. */
  protected readonly dots = computed(() =>
    this.othersMs().map((ms, i) => ({ x: this.x()(ms), y: MIDDLE_Y + (i % 2 === 0 ? -6 : 6) })),
  );
  protected readonly ticks = computed(() =>
    this.x()
      .ticks(8)
      .map((ms) => `M${this.x()(ms).toFixed(1)} 22v8`)
      .join(''),
  );
  protected readonly marks = computed(() => {
    const ms = this.x()
      .ticks(8)
      .filter((t) => t > 0 && t < 0.9 * this.reach())
      .at(-1);
    if (ms === undefined) return [];
    return [-ms, ms].map((at) => ({ x: this.x()(at), words: `${Math.abs(at)} ms` }));
  });
  protected readonly ring = computed(() => {
    const [question, grid] = [this.walk.studied(), this.song.document()?.grid];
    if (!question || question.verdict === 'unchecked') return '';
    return ringWords(question, grid ? beatPeriodAt(grid, question.timeS) : null);
  });
}
