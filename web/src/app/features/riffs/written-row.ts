/** The riff written once: strings, strum blocks on their onsets, names above. A grid for the keyboard. */
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { spellPitchClass, pitchClassOf, type Key } from '@wild-needle/core/theory';
import type { Tuning } from '@wild-needle/core/guitar';
import { ChordName } from '../../shared/chord-name';
import { tailPath, type RowLayout } from './row-layout';

@Component({
  selector: 'wn-written-row',
  imports: [ChordName],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="names">
      @for (block of layout().blocks; track block.id) {
        @if (block.name !== '') {
          <wn-chord-name
            class="display"
            [class.small]="block.palmMute"
            [class.sounding]="block.id === soundingId()"
            [style.left.px]="block.x"
            [name]="block.name"
          />
        }
      }
    </div>
    <div class="labels" aria-hidden="true">
      @for (line of lineLabels(); track line.string) {
        <span
          [class.folded]="!line.open"
          [class.chosen]="line.string === chosenString()"
          [style.top.px]="line.y - 10"
        >
          <wn-chord-name [name]="line.name" />
        </span>
      }
    </div>
    <div
      class="grid"
      role="grid"
      tabindex="0"
      aria-label="Written riff"
      [attr.aria-activedescendant]="selectedId() ? 'strum-' + selectedId() : null"
      [style.height.px]="layout().height"
    >
      <svg role="row" [attr.width]="widthPx()" [attr.height]="layout().height">
        <defs>
          <pattern
            id="hatch"
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="6" height="6" class="hatch-ground" />
            <line x1="0" y1="0" x2="0" y2="6" class="hatch-line" />
          </pattern>
        </defs>
        @for (x of layout().barLines; track x) {
          <line class="bar" [attr.x1]="x" [attr.x2]="x" y1="0" [attr.y2]="layout().height" />
        }
        @for (line of layout().lines; track line.string) {
          <line
            class="string"
            [class.folded]="!line.open"
            [class.chosen]="line.string === chosenString()"
            x1="0"
            [attr.x2]="widthPx()"
            [attr.y1]="line.y"
            [attr.y2]="line.y"
          />
        }
        @for (block of layout().blocks; track block.id) {
          <g
            role="gridcell"
            class="strum"
            [id]="'strum-' + block.id"
            [attr.aria-label]="block.spoken"
            [attr.aria-selected]="block.id === selectedId()"
            [class.mute]="block.palmMute"
            [class.dead]="block.dead"
            [class.sounding]="block.id === soundingId()"
            (click)="chosen.emit({ strumId: block.id, string: null })"
          >
            @if (block.dead) {
              <rect
                class="hit"
                [attr.x]="block.x"
                [attr.y]="block.top"
                width="20"
                [attr.height]="block.height"
              />
              @for (y of block.crosses; track y) {
                <path [attr.d]="cross(block.x + 8, y)" />
              }
            } @else {
              @if (!block.palmMute && block.tailX > block.x + block.width + 6) {
                <path class="tail" [attr.d]="tail(block)" />
              }
              <rect
                class="block"
                rx="9"
                [attr.x]="block.x"
                [attr.y]="block.top"
                [attr.width]="block.width"
                [attr.height]="block.height"
              />
              @for (digit of block.digits; track digit.string) {
                @if (block.palmMute) {
                  <rect
                    class="pill"
                    rx="7"
                    [attr.x]="block.x + 3"
                    [attr.y]="digit.y - 11"
                    [attr.width]="block.width - 6"
                    height="22"
                  />
                }
                <text
                  class="digit"
                  [class.written]="block.id === selectedId() && digit.string === chosenString()"
                  [class.narrow]="digit.text.length > 1 || block.width < 24"
                  [attr.x]="block.x + block.width / 2"
                  [attr.y]="digit.y + 9"
                  (click)="chosen.emit({ strumId: block.id, string: digit.string }); $event.stopPropagation()"
                >
                  {{ digit.text }}
                </text>
              }
            }
            @if (block.id === selectedId() && block.id !== soundingId()) {
              <path class="bracket" [attr.d]="bracket(block)" />
            }
          </g>
        }
      </svg>
      @if (layout().blocks.length === 0) {
        <p class="empty">Play the loop, then type a fret</p>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      position: relative;
    }
    .names {
      position: relative;
      height: 44px;
    }
    .names wn-chord-name {
      position: absolute;
      bottom: 2px;
      font-size: 34px;
      transition: color 300ms;
    }
    .names .small {
      font-size: 22px;
      font-weight: 500;
      color: var(--ink2);
      bottom: 4px;
    }
    .names .sounding {
      color: var(--needle);
      transition: none;
    }
    .labels span {
      position: absolute;
      left: -44px;
      width: 32px;
      margin-top: 44px;
      text-align: right;
      font: 700 19px/20px var(--display);
    }
    .labels .folded {
      font: 400 11px/20px var(--mono);
      color: var(--ink3);
    }
    .labels .chosen {
      text-decoration: underline 3px;
      text-underline-offset: 3px;
    }
    .grid {
      position: relative;
    }
    svg {
      display: block;
      overflow: visible;
    }
    .bar {
      stroke: var(--line2);
      stroke-width: 1.5;
    }
    .string {
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    .string.folded {
      stroke: var(--line2);
      stroke-width: 1;
    }
    .string.chosen {
      stroke-width: 2.5;
    }
    .strum {
      cursor: pointer;
    }
    .hit {
      fill: transparent;
    }
    .block {
      fill: var(--ink);
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
    .digit.narrow {
      font-size: 20px;
    }
    .digit.written {
      text-decoration: underline;
      text-decoration-thickness: 3px;
    }
    .mute .block {
      fill: url(#hatch);
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    .mute .pill {
      fill: var(--sleeve);
    }
    .mute .digit {
      fill: var(--ink);
    }
    .hatch-ground {
      fill: var(--sleeve);
    }
    .hatch-line {
      stroke: var(--ink);
      stroke-width: 5;
    }
    .dead path {
      stroke: var(--ink2);
      stroke-width: 2.5;
      fill: none;
    }
    .sounding .block {
      fill: var(--needle);
    }
    .sounding .digit {
      fill: var(--on-needle);
    }
    .sounding.mute .block {
      fill: var(--needle);
      stroke: var(--needle);
    }
    .sounding.mute .pill {
      fill: var(--needle);
    }
    .sounding .tail {
      fill: var(--needle-tint);
      stroke: var(--needle);
    }
    .sounding.dead path {
      stroke: var(--needle);
    }
    .bracket {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2.5;
    }
    .empty {
      position: absolute;
      inset: 30% 0 auto;
      text-align: center;
      color: var(--ink3);
      pointer-events: none;
    }
  `,
})
export class WrittenRow {
  readonly layout = input.required<RowLayout>();
  readonly tuning = input.required<Tuning>();
  readonly key = input.required<Key | null>();
  readonly widthPx = input.required<number>();
  readonly selectedId = input.required<string | null>();
  readonly soundingId = input.required<string | null>();
  readonly chosenString = input.required<number | null>();
  readonly chosen = output<{ strumId: string; string: number | null }>();

  protected readonly lineLabels = computed(() => {
    const midi = [...this.tuning().stringsMidi].reverse();
    const capo = this.tuning().capo;
    return (
      this.layout()
        .lines.map((line) => ({
          ...line,
          name: spellPitchClass(pitchClassOf(midi[line.string - 1] + capo), this.key()),
        }))
        // Folded strings stand too close for a name each.
        .filter((line) => line.open)
    );
  });
  protected readonly tail = tailPath;

  protected cross(x: number, y: number): string {
    return `M${x - 6} ${y - 6} l12 12 M${x + 6} ${y - 6} l-12 12`;
  }

  protected bracket({ x, width, top, height }: RowLayout['blocks'][number]): string {
    const [l, r, t, b] = [x - 6, x + width + 6, top - 5, top + height + 5];
    return `M${l + 7} ${t}H${l}V${b}H${l + 7} M${r - 7} ${t}H${r}V${b}H${r - 7}`;
  }
}
