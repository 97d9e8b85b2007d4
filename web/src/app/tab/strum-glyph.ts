/** One written strum, drawn: block, digits, tail and every mark that it carries. */
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { StrumBlock } from './row-layout';
import { MARK_VIEW_ROWS, type MarkView } from './mark-views';
import { bracketPath, crossPath, diamondPath, strokePath, tailPath } from './strum-shapes';

function drawn(part: (view: MarkView) => string | undefined): string[] {
  return MARK_VIEW_ROWS.map((view) => part(view) ?? '').filter((drawing) => drawing !== '');
}

@Component({
  // Inside an SVG only its own elements are drawn: the component is an attribute of a group.
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: 'g[wnStrum]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class.mute]': 'block().palmMute',
    '[class.sounding]': 'sounding()',
    '[class.guess]': 'block().isGuess',
  },
  template: `
    @if (block(); as b) {
      @if (b.dead || b.rest) {
        <svg:rect class="hit" [attr.x]="b.x" [attr.y]="b.top" width="20" [attr.height]="b.height" />
      }
      @if (b.rest) {
        <svg:path class="rest" [attr.d]="'M' + (b.x + 2) + ' ' + (b.top + b.height / 2) + 'h13'" />
      } @else if (b.dead) {
        @for (y of b.crosses; track y) {
          <svg:path class="cross" [attr.d]="cross(b, y)" />
        }
      } @else if (b.blank) {
        <svg:rect
          class="blank"
          rx="9"
          [attr.x]="b.x"
          [attr.y]="b.top"
          [attr.width]="b.width"
          [attr.height]="b.height"
        />
      } @else {
        @if (!b.palmMute && (b.tailX > b.x + b.width + 6 || b.marks.length === 'short')) {
          <svg:path class="tail" [attr.d]="tail()" />
        }
        <svg:rect
          class="block"
          rx="9"
          [class.tied]="b.marks.join === 'tie'"
          [attr.x]="b.x"
          [attr.y]="b.top"
          [attr.width]="b.width"
          [attr.height]="b.height"
        />
        @for (digit of b.digits; track digit.string) {
          @if (b.marks.harmonic === 'natural') {
            <svg:path class="cut" [attr.d]="diamond(b.x + b.width / 2, digit.y, 13)" />
          } @else if (b.palmMute) {
            <svg:rect
              class="pill"
              rx="7"
              [attr.x]="b.x + b.pillInset"
              [attr.y]="digit.y - 11"
              [attr.width]="b.width - 2 * b.pillInset"
              height="22"
            />
          }
          <svg:text
            class="digit"
            [class.on-cut]="b.marks.harmonic === 'natural' || b.marks.join === 'tie'"
            [class.written]="digit.string === writtenString()"
            [attr.x]="b.x + b.width / 2"
            [attr.y]="digit.y + 0.36 * b.digitSizePx"
            [style.font-size.px]="b.digitSizePx"
            (click)="stringChosen.emit({ string: digit.string, event: $event })"
          >
            {{ digit.text }}
          </svg:text>
        }
      }
      @for (line of lines(); track $index) {
        <svg:path class="line" [attr.d]="line" />
      }
      @for (sign of signs(); track $index) {
        <svg:text class="sign" [attr.x]="b.x + b.width + 19" [attr.y]="b.top + 8">
          {{ sign }}
        </svg:text>
      }
      @if (b.stroke; as direction) {
        @if (strokesShown()) {
          <svg:path class="stroke" [class.up]="direction === 'up'" [attr.d]="stroke(direction)" />
        }
      }
      @if (b.isDoubtful) {
        <svg:path class="doubtful" [attr.d]="diamond(b.x + 3, b.top + b.height - 3, 6.5)" />
      }
      @if (b.hasNote) {
        <svg:circle class="note" [attr.cx]="b.x + b.width + 3" [attr.cy]="b.top + 3" r="4" />
      }
      @if (b.isMissing) {
        <svg:circle class="missing" [attr.cx]="b.x + b.width / 2" [attr.cy]="b.top + b.height" r="6" />
      }
      @if (selected() && !sounding()) {
        <svg:path class="bracket" [attr.d]="bracket()" />
      }
    }
  `,
  styles: `
    :host {
      cursor: pointer;
    }
    .hit {
      fill: transparent;
    }
    .block {
      fill: var(--ink);
    }
    .block.tied,
    .blank {
      fill: var(--sleeve);
      stroke: var(--ink);
      stroke-width: 2;
    }
    .blank {
      stroke-dasharray: 4 3;
    }
    .tail {
      fill: var(--tail);
      stroke: var(--line2);
    }
    .digit {
      fill: var(--paper);
      font: 800 25px var(--display);
      text-anchor: middle;
    }
    .digit.on-cut {
      fill: var(--ink);
    }
    .cut {
      fill: var(--sleeve);
    }
    .digit.written {
      text-decoration: underline;
      text-decoration-thickness: 3px;
    }
    :host(.mute) .block {
      fill: url(#hatch);
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    .pill {
      fill: var(--sleeve);
    }
    :host(.mute) .digit {
      fill: var(--ink);
    }
    :host(.guess) .block {
      stroke: var(--doubt-fill);
      stroke-width: 2.5;
      stroke-dasharray: 5 3;
    }
    .cross,
    .rest {
      stroke: var(--ink2);
      stroke-width: 2.5;
      fill: none;
    }
    .rest {
      stroke-width: 6;
    }
    .line {
      stroke: var(--ink);
      stroke-width: 2;
      fill: none;
      stroke-linecap: round;
    }
    .sign {
      font: 600 12px var(--words);
      fill: var(--ink);
    }
    .stroke {
      fill: var(--ink2);
      stroke: var(--ink2);
      stroke-width: 1.4;
    }
    .stroke.up {
      fill: none;
    }
    .missing {
      fill: var(--sleeve);
      stroke: var(--doubt);
      stroke-width: 2.5;
      stroke-dasharray: 4 2;
    }
    .doubtful {
      fill: var(--sleeve);
      stroke: var(--doubt);
      stroke-width: 2;
    }
    .note {
      fill: var(--groove2);
    }
    :host(.sounding) .block,
    :host(.sounding.mute) .block {
      fill: var(--needle);
      stroke: var(--needle);
    }
    :host(.sounding) .pill {
      fill: var(--needle);
    }
    :host(.sounding) .digit {
      fill: var(--on-needle);
    }
    :host(.sounding) .digit.on-cut {
      fill: var(--ink);
    }
    :host(.sounding) .tail {
      fill: var(--needle-tint);
      stroke: var(--needle);
    }
    :host(.sounding) .cross,
    :host(.sounding) .rest {
      stroke: var(--needle);
    }
    .bracket {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2.5;
    }
  `,
})
export class StrumGlyph {
  readonly block = input.required<StrumBlock>();
  readonly sounding = input.required<boolean>();
  readonly selected = input.required<boolean>();
  readonly writtenString = input.required<number | null>();
  readonly strokesShown = input.required<boolean>();
  readonly stringChosen = output<{ readonly string: number; readonly event: MouseEvent }>();

  protected readonly tail = computed(() => tailPath(this.block()));
  /** Of all its marks. */
  protected readonly lines = computed(() => drawn((view) => view.line?.(this.block())));
  protected readonly signs = computed(() => drawn((view) => view.sign?.(this.block())));
  protected readonly bracket = computed(() => bracketPath(this.block()));
  protected readonly cross = crossPath;
  protected readonly diamond = diamondPath;

  protected stroke(direction: 'down' | 'up'): string {
    return strokePath(this.block(), direction);
  }
}
