/**
 * One of the times the riff is played: the recording's sound, the chords heard in it and whether they agree with what is
 * written, on the shared ruler. Where it differs, a question with two answers lies over the place.
 */
import type { Verdict } from '@wild-needle/core/draft';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';

import { ChordName } from '../../../shared/chord-name';
import { TOLD } from '../../../shared/difference-words';
import { VERDICTS, verdictPath } from '../../../shared/verdict-paths';
import { RIFF_KEYS } from '../keys/riff-keys';

export interface HeardMark {
  readonly x: number;
  readonly name: string;
  /** There is room for the name before the next strum. */
  readonly isNamed: boolean;
  readonly spoken: string;
  readonly verdict: Verdict;
  readonly muted: boolean;
}

export interface PassView {
  readonly id: string;
  readonly number: number;
  readonly barsText: string;
  readonly sounding: boolean;
  readonly looped: boolean;
  readonly moved: string;
  /** In order of place. */
  readonly marks: () => readonly HeardMark[];
  /** Where and how the pass differs, while that is open. */
  readonly question: {
    readonly words: string;
    /** Each difference for itself. */
    readonly all: readonly string[];
    readonly x: number;
    readonly width: number;
  } | null;
  /** What it plays in place of a part of the riff. */
  readonly variation: { readonly name: string; readonly x: number } | null;
  readonly path: () => string;
  readonly rowPx: number;
  /** Where the groove is, at the foot of the row. */
  readonly grooveTopPx: number;
  readonly groovePx: number;
}

/** From this height on there is room for names that are read with a guitar in the hands. */
const ROOMY_PX = 44;
/** Pixels of a letter in a name: in the sounding row, in a roomy one, in others. */
const LETTER_PX = { sounding: 12, roomy: 11, plain: 8.5 } as const;
/** The verdict before the name. */
const VERDICT_PX = 17;

/** A name that would run into the next strum is left out. */
export function hasRoom(name: string, roomPx: number, rowPx: number, sounding: boolean): boolean {
  const letter = sounding ? LETTER_PX.sounding : rowPx >= ROOMY_PX ? LETTER_PX.roomy : LETTER_PX.plain;
  return name !== '' && VERDICT_PX + letter * name.length <= roomPx;
}

@Component({
  selector: 'wn-pass-row',
  imports: [ChordName, MatButton, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class.sounding]': 'pass().sounding',
    '[class.roomy]': 'pass().rowPx >= ROOMY_PX',
    '[style.height.px]': 'pass().rowPx',
  },
  template: `
    <svg class="groove" [attr.width]="widthPx()" [attr.height]="pass().rowPx" aria-hidden="true">
      <path class="sound" [attr.d]="path()" />
      <path class="onsets" [attr.d]="onsets()" />
      @for (verdict of verdicts(); track verdict.kind) {
        <path [class]="'verdict-' + verdict.kind" [attr.d]="verdict.d" />
      }
    </svg>
    @for (mark of marks(); track $index) {
      <span class="mark" role="img" [style.left.px]="mark.x + NAME_X" [attr.aria-label]="mark.spoken">
        @if (mark.isNamed) {
          <wn-chord-name
            [class.display]="pass().sounding"
            [class.muted]="mark.muted"
            [name]="mark.name"
            mute
          />
        }
      </span>
    }
    @if (pass().variation; as variation) {
      <span class="variation" [style.left.px]="variation.x">{{ variation.name }}</span>
    }
    @if (pass().question; as question) {
      <div
        class="question"
        role="group"
        [attr.aria-label]="'Pass ' + pass().number + ': ' + question.words"
        [style.left.px]="question.x"
        [style.width.px]="question.width"
        (click)="$event.stopPropagation()"
      >
        <span class="words" [title]="question.words">{{ question.words }}</span>
        <span class="answers">
          <button mat-flat-button (click)="kept.emit()">
            Keep as variation <kbd>{{ keys.keepVariation.caps }}</kbd>
          </button>
          <button mat-stroked-button (click)="same.emit()">
            As written, misheard <kbd>{{ keys.sameRiff.caps }}</kbd>
          </button>
          @if (question.all.length > TOLD) {
            <button mat-stroked-button [matMenuTriggerFor]="all">All {{ question.all.length }}</button>
            <mat-menu #all="matMenu" class="doubt-list">
              @for (difference of question.all; track $index) {
                <p class="difference">{{ difference }}</p>
              }
            </mat-menu>
          }
        </span>
      </div>
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      contain: layout style;
    }
    .groove {
      position: absolute;
      left: 0;
      top: 0;
      overflow: visible;
    }
    .sound {
      fill: var(--groove);
    }
    .onsets {
      stroke: var(--groove2);
    }
    .mark {
      position: absolute;
      top: 1px;
      font-size: 14px;
      line-height: 17px;
      font-weight: 500;
      white-space: nowrap;
    }
    :host(.roomy) .mark {
      font-size: 18px;
      line-height: 22px;
    }
    :host(.sounding) .mark {
      font-size: 24px;
      line-height: 30px;
    }
    wn-chord-name.muted {
      color: var(--ink3);
      font-weight: 400;
    }
    .variation {
      position: absolute;
      bottom: 3px;
      padding: 0 8px;
      border-left: 3px solid var(--ink);
      background: var(--sleeve);
      font: 600 13px/18px var(--words);
    }
    .question {
      position: absolute;
      inset-block: 2px;
      display: flex;
      flex-direction: column;
      justify-content: center;
      gap: 3px;
      padding: 0 10px;
      background: var(--doubt-tint);
      border: 1.5px dashed var(--doubt);
      border-radius: 8px;
      cursor: default;
    }
    .words {
      font: 600 14px/18px var(--words);
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .answers {
      display: flex;
      gap: 8px;
    }
    .difference {
      margin: 0;
      padding: 4px 16px;
    }
    .question button {
      flex: none;
      height: 32px;
      padding: 0 10px;
    }
    .question kbd {
      margin-left: 4px;
      color: color-mix(in srgb, currentColor 85%, transparent);
    }
  `,
})
export class PassRow {
  protected readonly keys = RIFF_KEYS;
  protected readonly ROOMY_PX = ROOMY_PX;
  /** More differences than this are not all in the sentence. */
  protected readonly TOLD = TOLD;
  readonly pass = input.required<PassView>();
  readonly widthPx = input.required<number>();
  protected readonly NAME_X = VERDICT_PX;
  private readonly inSight = signal(false);
  protected readonly marks = computed(() => (this.inSight() ? this.pass().marks() : []));
  protected readonly path = computed(() => (this.inSight() ? this.pass().path() : ''));
  protected readonly onsets = computed(() => {
    const { grooveTopPx, groovePx } = this.pass();
    return this.marks()
      .filter((m) => m.verdict !== 'missing')
      .map((m) => `M${m.x.toFixed(1)} ${grooveTopPx}v${groovePx}`)
      .join('');
  });
  /** One path for all of a kind: hundreds of them stand on the screen. */
  protected readonly verdicts = computed(() => {
    const { rowPx, sounding } = this.pass();
    const marks = this.marks();
    const middle = sounding ? 16 : rowPx >= ROOMY_PX ? 12 : 9.5;
    return VERDICTS.map((kind) => ({
      kind,
      d: marks
        .filter((m) => m.verdict === kind)
        .map((m) => verdictPath(kind, m.x + VERDICT_PX / 2, middle))
        .join(''),
    })).filter((v) => v.d !== '');
  });
  readonly kept = output();
  readonly same = output();

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    // A little ahead, so that scrolling meets drawn rows. Of several changes within a frame the last one holds.
    const observer = new IntersectionObserver((entries) => this.inSight.set(entries.at(-1)!.isIntersecting), {
      rootMargin: '80px',
    });
    observer.observe(host);
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }
}
