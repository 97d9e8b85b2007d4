/** What is to be settled as a list: a row each, as wide a wedge as it is doubted. Long lists draw what is in sight. */
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  input,
  output,
  viewChild,
} from '@angular/core';
import type { Key } from '@wild-needle/core/theory';
import { ChordName } from '../../../shared/chord-name';
import { verdictPath } from '../../../shared/verdict-paths';
import { countWords, passWordsOf, reasonWords, spokenQuestion, writtenName } from '../walk/question-words';
import { ASKED_FROM, type Question } from '../walk/questions';

const ROW_PX = 46;
const WEDGE = { width: 40, height: 14 };

@Component({
  selector: 'wn-doubt-list',
  imports: [CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport, ChordName],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <cdk-virtual-scroll-viewport
      role="listbox"
      aria-label="To settle"
      tabindex="0"
      [itemSize]="ROW_PX"
      [minBufferPx]="200"
      [maxBufferPx]="400"
      [attr.aria-activedescendant]="chosen() ? 'doubt-' + chosen()!.id : null"
    >
      <button
        *cdkVirtualFor="let question of questions(); trackBy: byId; let i = index"
        type="button"
        role="option"
        tabindex="-1"
        class="row"
        [id]="'doubt-' + question.id"
        [attr.aria-selected]="question.id === chosen()?.id"
        [attr.aria-setsize]="questions().length"
        [attr.aria-posinset]="i + 1"
        [attr.aria-label]="covered() ? place(question) : spoken(question)"
        [class.later]="question.settled === 'doubtful'"
        (click)="chose.emit(question)"
      >
        @if (covered()) {
          <svg class="ticket" viewBox="0 0 26 18" aria-hidden="true">
            <path d="M1 1H25V6A3.2 3.2 0 0 0 25 12V17H1Z" />
          </svg>
          <span class="words">
            <b>{{ passOf(question) }}</b>
            <span>{{ countOf(question) }}</span>
          </span>
        } @else {
          <svg class="mark" viewBox="0 0 16 16" aria-hidden="true">
            <path [class]="'verdict-' + shape(question)" [attr.d]="mark(question)" />
          </svg>
          <span class="name display">
            @if (name(question) === '') {
              <span>+</span>
            } @else {
              <wn-chord-name mute [name]="name(question)" />
            }
          </span>
          <span class="words">
            <b>{{ reason(question) }}</b>
            <span>{{ passOf(question) }}</span>
          </span>
        }
        <svg class="wedge" [attr.viewBox]="'0 0 ' + WEDGE.width + ' ' + WEDGE.height" aria-hidden="true">
          <path class="floor" [attr.d]="'M0 13.5H' + WEDGE.width" />
          <path class="doubt" [attr.d]="wedge(question)" />
        </svg>
      </button>
    </cdk-virtual-scroll-viewport>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    cdk-virtual-scroll-viewport {
      height: 100%;
    }
    .row {
      display: grid;
      grid-template-columns: 22px 56px minmax(0, 1fr) 40px;
      align-items: center;
      gap: 6px;
      width: 100%;
      height: 46px;
      padding: 0 16px 0 12px;
      border: 0;
      border-bottom: 1px solid var(--line);
      background: none;
      color: var(--ink);
      text-align: left;
      cursor: pointer;
    }
    .row:has(.ticket) {
      grid-template-columns: 30px minmax(0, 1fr) 40px;
    }
    .row[aria-selected='true'] {
      background: var(--ink);
      color: var(--sleeve);
    }
    .mark {
      width: 22px;
      height: 22px;
      padding: 3px;
      border-radius: 5px;
    }
    .row[aria-selected='true'] .mark {
      background: var(--sleeve);
    }
    .name {
      font-size: 24px;
      font-weight: 600;
      white-space: nowrap;
    }
    .words {
      min-width: 0;
      font-size: 13px;
      line-height: 18px;
    }
    .words > * {
      display: block;
      overflow: hidden;
      white-space: nowrap;
      text-overflow: ellipsis;
    }
    .words b {
      font-weight: 600;
    }
    .later {
      color: var(--ink3);
    }
    .ticket {
      width: 26px;
      height: 18px;
      fill: none;
      stroke: currentColor;
      stroke-width: 1.3;
    }
    .wedge {
      width: 40px;
      height: 14px;
    }
    .floor {
      stroke: var(--line2);
    }
    .doubt {
      fill: currentColor;
    }
  `,
})
export class DoubtList {
  readonly questions = input.required<readonly Question[]>();
  readonly chosen = input.required<Question | null>();
  readonly key = input.required<Key | null>();
  /** Ear first: what is written and heard is not told. */
  readonly covered = input.required<boolean>();
  readonly chose = output<Question>();
  protected readonly ROW_PX = ROW_PX;
  protected readonly WEDGE = WEDGE;
  private readonly viewport = viewChild.required(CdkVirtualScrollViewport);
  private readonly at = computed(() => this.questions().findIndex((q) => q.id === this.chosen()?.id));

  constructor() {
    effect(() => {
      const [at, viewport] = [this.at(), this.viewport()];
      if (at < 0) return;
      const { start, end } = {
        start: viewport.measureScrollOffset() / ROW_PX,
        end: (viewport.measureScrollOffset() + viewport.getViewportSize()) / ROW_PX,
      };
      // As little as brings it whole into sight.
      if (at < start) viewport.scrollToOffset(at * ROW_PX);
      else if (at + 1 > end) viewport.scrollToOffset((at + 1) * ROW_PX - viewport.getViewportSize());
    });
  }

  protected readonly byId = (_: number, { id }: Question): string => id;
  protected name(question: Question): string {
    return writtenName(question, this.key());
  }
  protected reason(question: Question): string {
    return reasonWords(question, this.key());
  }
  protected spoken(question: Question): string {
    return spokenQuestion(question, this.key());
  }
  protected place(question: Question): string {
    return `${passWordsOf(question)}, ${countWords(question)}`;
  }
  protected readonly passOf = passWordsOf;
  protected readonly countOf = countWords;

  /** What is said of it; a strum that the ear has settled agrees. */
  protected shape({ verdict, settled }: Question): Question['verdict'] {
    return settled === 'kept' ? 'agrees' : settled === 'doubtful' ? 'doubtful' : verdict;
  }
  protected mark(question: Question): string {
    return verdictPath(this.shape(question), 8, 8);
  }
  protected wedge({ doubt }: Question): string {
    const height = WEDGE.height * Math.min(1, Math.max(0, (doubt - ASKED_FROM / 2) / (1 - ASKED_FROM / 2)));
    return `M0 ${WEDGE.height}L${WEDGE.width} ${(WEDGE.height - height).toFixed(1)}V${WEDGE.height}Z`;
  }
}
