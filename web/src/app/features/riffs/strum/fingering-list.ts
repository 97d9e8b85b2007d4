/** Ways to play the chosen strum, ranked: what each asks of the hand, and how well it fits what sounds. */
import type { ElementRef } from '@angular/core';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  viewChild,
  viewChildren,
} from '@angular/core';
import type { StringFret, Fingering } from '@wild-needle/core/guitar';
import { scrollIntoSight } from '../../../shared/scroll-into-sight';
import { RIFF_KEYS } from '../keys/riff-keys';
import { RiffView } from '../view/riff-view';
import { fingeringWords, fretText, handWords } from './fingering-words';
import { StrumStudy } from './strum-study';

@Component({
  selector: 'wn-fingering-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.narrow]': 'isNarrow()' },
  template: `
    <div class="quiet head ways-head">
      <span
        >Ways to play it
        @for (cap of fingeringCaps; track cap) {
          <kbd>{{ cap }}</kbd>
        }
      </span>
      @if (isHeard()) {
        <span>heard</span>
      }
    </div>
    <div
      #wayList
      class="ways"
      role="listbox"
      tabindex="0"
      aria-label="Ways to play it"
      [attr.aria-activedescendant]="shownId()"
      (keydown)="onKey($event)"
    >
      @for (row of fingerings(); track row.frets) {
        @let chosen = row.frets === writtenText();
        @let tried = row.frets === triedText();
        <div
          #wayRow
          role="option"
          [id]="row.id"
          [class.chosen]="chosen"
          [class.tried]="tried"
          [attr.aria-selected]="chosen"
          (click)="choose(row.way)"
          (mouseenter)="study.looked.set(row.way)"
          (mouseleave)="study.looked.set(null)"
        >
          <span class="mono frets">{{ row.frets }}</span>
          <span class="why"
            >{{ row.words }}
            @if (tried) {
              <small><kbd>Enter</kbd> writes it</small>
            } @else if (chosen) {
              <small class="quiet">{{ row.hand }}</small>
            }
          </span>
          <b class="display fits">{{ row.fits }}</b>
        </div>
      }
    </div>
  `,
  styles: `
    // Head and list stand in the column of the panel.
    :host {
      display: contents;
    }
    .head {
      font-size: 13px;
      line-height: 16px;
    }
    .ways-head {
      display: flex;
      justify-content: space-between;
      margin: 2px 0 0;
      padding-bottom: 3px;
      border-bottom: 1px solid var(--line);
    }
    .ways {
      position: relative;
      flex: 1 1 100px;
      min-height: 88px;
      overflow-y: auto;
    }
    .ways [role='option'] {
      display: grid;
      grid-template-columns: auto 1fr auto;
      gap: 10px;
      align-items: center;
      min-height: 36px;
      padding: 2px 4px 2px 8px;
      border-bottom: 1px solid var(--line);
      cursor: pointer;
    }
    :host(.narrow) [role='option'] {
      grid-template-columns: 1fr auto;
      gap: 0 6px;
    }
    :host(.narrow) .why {
      grid-row: 2;
    }
    :host(.narrow) .fits {
      grid-row: 1 / 3;
      grid-column: 2;
    }
    .ways .chosen {
      box-shadow: inset 4px 0 0 var(--ink);
      font-weight: 600;
    }
    .ways .tried {
      outline: 2px dashed var(--ink2);
      outline-offset: -2px;
      border-radius: 8px;
    }
    .ways small kbd {
      margin-left: 0;
    }
    .frets {
      font-size: 15px;
      white-space: pre;
    }
    .why {
      font-size: 13px;
      line-height: 16px;
      min-width: 0;
    }
    .why small {
      display: block;
      font-size: 12px;
      line-height: 14px;
      font-weight: 400;
    }
    .fits {
      font-size: 20px;
    }
    kbd {
      margin-left: 4px;
      color: color-mix(in srgb, currentColor 85%, transparent);
    }
  `,
})
export class FingeringList {
  readonly written = input.required<readonly StringFret[]>();
  /** What sounds was measured: the ways can be held against it. */
  readonly isHeard = input.required<boolean>();
  /** Frets stand over their words. */
  readonly isNarrow = input(false);
  readonly played = output<readonly StringFret[]>();

  protected readonly study = inject(StrumStudy);
  private readonly view = inject(RiffView);
  protected readonly fingeringCaps = RIFF_KEYS.fingering.caps.split(' ');
  private readonly wayList = viewChild<ElementRef<HTMLElement>>('wayList');
  private readonly wayRows = viewChildren<ElementRef<HTMLElement>>('wayRow');

  protected readonly fingerings = computed(() => {
    const key = this.view.key();
    return this.study.fingerings().map((way, i) => ({
      id: `way-${i}`,
      way,
      frets: this.fretText(way.frets),
      words: fingeringWords(way, key),
      hand: handWords(way),
      fits: way.fits === null ? '' : `${Math.round(100 * way.fits)} %`,
    }));
  });
  protected readonly writtenText = computed(() => this.fretText(this.written()));

  protected readonly triedText = computed(() => {
    const tried = this.study.tried();
    return tried && this.fretText(tried.way.frets);
  });
  /** The row that the keys are at: the tried way, else the written one. */
  protected readonly shownId = computed(() => {
    const shown = this.triedText() ?? this.writtenText();
    return this.fingerings().find(({ frets }) => frets === shown)?.id ?? null;
  });

  constructor() {
    // The way that the keys are at is in sight, wherever it ranks.
    afterRenderEffect(() => {
      const at = this.fingerings().findIndex(({ id }) => id === this.shownId());
      const [list, row] = [this.wayList()?.nativeElement, this.wayRows()[at]?.nativeElement];
      if (list && row) scrollIntoSight(list, row);
    });
  }

  /** A row of the strum before is nobody's way. */
  protected choose(way: Fingering): void {
    if (!this.study.isCurrent()) return;
    this.study.drop();
    this.played.emit(way.frets);
  }

  /** Arrows are the list's own while it has the focus; Enter and the others belong to the screen. */
  protected onKey(event: KeyboardEvent): void {
    if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
    event.preventDefault();
    event.stopPropagation();
    this.study.step(event.key === 'ArrowUp' ? -1 : 1);
  }

  private fretText(frets: readonly StringFret[]): string {
    return fretText(frets, this.view.tuning().stringsMidi.length);
  }
}
