/** The plan: what is due today, within the minutes that there are, and the rest of the song. */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
} from '@angular/core';
import type { PlannedItem } from '@wild-needle/core/practice';
import { scrollIntoSight } from '../../../shared/scroll-into-sight';
import { movedBy } from '../../../shared/words';
import { bpmOf, itemName, lastPlayedWords, spokenItem } from '../practice-words';
import { DifficultyWedge } from './difficulty-wedge';

@Component({
  selector: 'wn-plan-list',
  imports: [DifficultyWedge],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="rows"
      role="listbox"
      aria-label="Plan"
      tabindex="0"
      [attr.aria-activedescendant]="rowId(chosen())"
    >
      @for (group of groups(); track group.title) {
        <div role="group" [attr.aria-label]="group.title">
          <h3 aria-hidden="true">{{ group.title }}</h3>
          @for (item of group.items; track item.id) {
            <button
              type="button"
              role="option"
              tabindex="-1"
              class="row"
              [id]="rowId(item.id)"
              [attr.aria-selected]="item.id === chosen()"
              [attr.aria-label]="spoken(item)"
              (click)="chose.emit(item)"
            >
              <span class="name display">
                @if (item.letter !== '') {
                  <b
                    >{{ item.letter }}<small>{{ moved(item) }}</small></b
                  >
                }
                <span class="words">{{ name(item) }}</span>
                <wn-difficulty-wedge [difficulty]="item.difficulty" />
              </span>
              <span class="bar"><i [style.width.%]="item.bestPercent ?? 0"></i></span>
              <span class="facts">
                <span
                  ><b>{{ best(item) || '–' }}</b> of {{ wanted(item) }} bpm</span
                >
                <span>{{ item.minutes > 0 ? item.minutes + ' min' : when(item) }}</span>
              </span>
            </button>
          }
        </div>
      }
    </div>
    <p class="causes" aria-hidden="true">
      <i class="tempo"></i>tempo <i class="shifts"></i>shifts <i class="stretch"></i>stretch
      <i class="crossings"></i>strings
    </p>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      min-height: 0;
    }
    .rows {
      position: relative;
      flex: 1;
      min-height: 0;
      overflow-y: auto;
    }
    h3 {
      padding: 7px 16px 4px;
      border-bottom: 1px solid var(--line2);
      color: var(--ink2);
      font: 600 13px/16px var(--words);
    }
    .row {
      display: block;
      width: 100%;
      height: 59px;
      padding: 7px 16px 0;
      border: 0;
      border-bottom: 1px solid var(--line);
      background: none;
      color: var(--ink);
      text-align: left;
      cursor: pointer;
    }
    .row[aria-selected='true'] {
      background: var(--ink);
      color: var(--sleeve);
      --wedge-1: var(--sleeve);
      --wedge-2: var(--line2);
      --wedge-3: var(--ink3);
      --wedge-4: var(--groove2);

      .facts,
      .facts b {
        color: var(--sleeve);
      }
      .bar {
        background: var(--ink3);
      }
      .bar i {
        background: var(--sleeve);
      }
    }
    .name {
      display: flex;
      align-items: center;
      gap: 8px;
      height: 22px;
      font-size: 20px;
      font-weight: 700;
    }
    .name b {
      min-width: 15px;
      font-size: 24px;
      font-weight: 800;
    }
    .name small {
      margin-left: 2px;
      font-size: 15px;
      font-weight: 500;
    }
    .words {
      flex: 1;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .bar {
      display: block;
      height: 4px;
      margin: 4px 0 3px;
      background: var(--line);
    }
    .bar i {
      display: block;
      max-width: 100%;
      height: 100%;
      background: var(--ink);
    }
    .facts {
      display: flex;
      justify-content: space-between;
      color: var(--ink2);
      font-size: 13px;
      line-height: 16px;
    }
    .facts b {
      color: var(--ink);
    }
    .causes {
      display: flex;
      align-items: center;
      gap: 4px;
      flex: none;
      padding: 6px 10px;
      border-top: 1px solid var(--line);
      color: var(--ink2);
      font-size: 12px;
    }
    .causes i {
      width: 12px;
      height: 10px;
      clip-path: polygon(0 100%, 100% 15%, 100% 100%);
      background: var(--ink);
    }
    .causes i:not(:first-child) {
      margin-left: 4px;
    }
    .causes .shifts {
      background: var(--ink3);
    }
    .causes .stretch {
      background: var(--line2);
    }
    .causes .crossings {
      background: var(--groove2);
    }
  `,
})
export class PlanList {
  readonly items = input.required<readonly PlannedItem[]>();
  readonly chosen = input.required<string | null>();
  /** Local day, see `dayNumber`. */
  readonly today = input.required<number>();
  readonly chose = output<PlannedItem>();

  protected readonly groups = computed(() => {
    const due = this.items().filter((item) => item.minutes > 0);
    const rest = this.items().filter((item) => item.minutes === 0);
    return [
      { title: 'Due today', items: due },
      { title: 'Not today', items: rest },
    ].filter(({ items }) => items.length > 0);
  });

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    effect(() => {
      this.chosen();
      const list = host.querySelector<HTMLElement>('.rows');
      const row = host.querySelector<HTMLElement>('[aria-selected=true]');
      if (list && row) scrollIntoSight(list, row);
    });
  }

  protected rowId(id: string | null): string | null {
    return id === null ? null : `practice-${id}`;
  }

  protected spoken(item: PlannedItem): string {
    return spokenItem(item, item.minutes > 0, this.today());
  }

  protected moved(item: PlannedItem): string {
    return movedBy(item.transpose);
  }

  protected best(item: PlannedItem): number {
    return bpmOf(item, item.bestPercent);
  }

  protected wanted(item: PlannedItem): number {
    return bpmOf(item, 100);
  }

  protected when(item: PlannedItem): string {
    return lastPlayedWords(item.lastDay, this.today());
  }

  protected readonly name = itemName;
}
