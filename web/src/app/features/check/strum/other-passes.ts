/** The same strum in the other passes of its riff: a row for each section, a sign for each pass. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { verdictPath } from '../../../shared/verdict-paths';
import { CheckAnswers } from '../walk/check-answers';
import { CheckWalk } from '../walk/check-walk';
import type { Question } from '../walk/questions';

/** More sections than this do not fit. */
const MOST_ROWS = 4;
/** Passes of a section that stand beside each other. */
const MOST_PASSES = 6;

@Component({
  selector: 'wn-other-passes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <b>This strum in other passes</b>
    @if (isAlone()) {
      <p class="quiet">{{ aloneWords() }}</p>
    } @else {
      @for (row of rows(); track row.id) {
        <p class="row">
          <span class="name">{{ row.name }}</span>
          <span class="marks">
            @for (mark of row.marks; track mark.question.id) {
              <button
                type="button"
                [class.here]="mark.isHere"
                [attr.aria-label]="row.name + ' pass ' + mark.number + ', ' + mark.kind"
                [attr.aria-current]="mark.isHere"
                (click)="walk.choose(mark.question)"
              >
                @if (mark.isHere) {
                  <span class="mono">{{ mark.number }}</span>
                } @else {
                  <svg viewBox="0 0 16 16" aria-hidden="true">
                    <path [class]="'verdict-' + mark.kind" [attr.d]="mark.d" />
                  </svg>
                }
              </button>
            }
            @if (row.more > 0) {
              <span class="quiet">+{{ row.more }}</span>
            }
          </span>
        </p>
      }
      <p class="sum">
        <b>{{ answers.passes().agreeing }} of {{ answers.passes().compared }}</b> agree with what is written.
      </p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      min-width: 0;
      padding-left: 20px;
      border-left: 1px solid var(--line2);
      line-height: 21px;
    }
    .row {
      display: flex;
      gap: 8px;
      height: 22px;
    }
    .name {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      white-space: nowrap;
      text-overflow: ellipsis;
    }
    .marks {
      display: flex;
      gap: 4px;
    }
    button {
      display: grid;
      place-items: center;
      width: 24px;
      height: 22px;
      padding: 0;
      border: 0;
      background: none;
      cursor: pointer;
    }
    button.here {
      border: 2px solid var(--ink);
      border-radius: 6px;
      font-weight: 600;
      font-size: 12px;
    }
    svg {
      width: 16px;
      height: 16px;
    }
    .sum {
      margin-top: auto;
      font-size: 13px;
      white-space: nowrap;
    }
    @container work (max-height: 490px) {
      .sum {
        display: none;
      }
    }
  `,
})
export class OtherPasses {
  protected readonly walk = inject(CheckWalk);
  protected readonly answers = inject(CheckAnswers);

  protected readonly isAlone = computed(() => this.answers.passes().passes.length <= 1);
  protected readonly aloneWords = computed(() => {
    const question = this.walk.studied();
    if (question?.strum !== null) return 'This riff comes once.';
    return 'Nothing is written at this place in any pass.';
  });
  /** The section that is looked at and those around it. */
  protected readonly rows = computed(() => {
    const chosen = this.walk.studied();
    const bySection = new Map<string, Question[]>();
    for (const q of this.answers.passes().passes) {
      bySection.set(q.section.id, [...(bySection.get(q.section.id) ?? []), q]);
    }
    const rows = [...bySection.values()].map((questions) => {
      const at = Math.max(
        0,
        questions.findIndex((q) => q.id === chosen?.id),
      );
      const from = Math.max(0, Math.min(at - 2, questions.length - MOST_PASSES));
      const shown = questions.slice(from, from + MOST_PASSES);
      const marks = shown.map((question) => {
        const kind = question.settled === 'kept' ? ('agrees' as const) : question.verdict;
        return {
          question,
          kind,
          d: verdictPath(kind, 8, 8),
          number: question.pass.index + 1,
          isHere: question.id === chosen?.id,
        };
      });
      const { section } = questions[0];
      return { id: section.id, name: section.name, marks, more: questions.length - shown.length };
    });
    const here = rows.findIndex((row) => row.id === chosen?.section.id);
    const from = Math.max(0, Math.min(here - 1, rows.length - MOST_ROWS));
    return rows.slice(from, from + MOST_ROWS);
  });
}
