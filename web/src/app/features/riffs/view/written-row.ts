/** The riff written once: strings, strum blocks on their onsets, names above. A grid for the keyboard. */
import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, input, output, viewChild } from '@angular/core';
import { spellPitchClass, pitchClassOf, type Key } from '@wild-needle/core/theory';
import type { Tuning } from '@wild-needle/core/guitar';
import { ChordName } from '../../../shared/chord-name';
import type { RowLayout } from '../../../tab/row-layout';
import { StrumGlyph } from '../../../tab/strum-glyph';

@Component({
  selector: 'wn-written-row',
  imports: [ChordName, StrumGlyph],
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
            [style.font-size.px]="block.nameSizePx"
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
      #grid
      class="grid"
      role="grid"
      tabindex="0"
      aria-label="Written riff"
      [attr.aria-activedescendant]="selectedId() ? 'strum-' + selectedId() : null"
      [style.height.px]="layout().height"
    >
      <svg role="row" [attr.width]="widthPx()" [attr.height]="layout().height" (click)="choosePlace($event)">
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
        @if (varied(); as bars) {
          <rect
            class="varied"
            y="0"
            [attr.x]="bars.x"
            [attr.width]="bars.width"
            [attr.height]="layout().height"
          />
        }
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
        @if (placeX() !== null) {
          <path class="place" [attr.d]="place()" />
        }
        @for (block of layout().blocks; track block.id) {
          <g
            wnStrum
            role="gridcell"
            [id]="'strum-' + block.id"
            [attr.aria-label]="block.spoken"
            [attr.aria-selected]="selectedIds().has(block.id)"
            [block]="block"
            [sounding]="block.id === soundingId()"
            [selected]="selectedIds().has(block.id)"
            [writtenString]="block.id === selectedId() ? chosenString() : null"
            [strokesShown]="strokesShown()"
            (click)="choose(block.id, null, $event)"
            (stringChosen)="choose(block.id, $event.string, $event.event)"
          />
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
      transition: color 300ms;
    }
    .names .small {
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
    .varied {
      fill: var(--shade);
      stroke: var(--ink);
      stroke-dasharray: 6 4;
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
    .hatch-ground {
      fill: var(--sleeve);
    }
    .hatch-line {
      stroke: var(--ink);
      stroke-width: 5;
    }
    .place {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2;
      stroke-dasharray: 4 3;
    }
    .empty {
      position: absolute;
      left: 50%;
      top: 30%;
      translate: -50%;
      padding: 0 12px;
      background: var(--sleeve);
      color: var(--ink2);
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
  readonly selectedIds = input.required<ReadonlySet<string>>();
  readonly soundingId = input.required<string | null>();
  readonly chosenString = input.required<number | null>();
  /** Where the next strum is written; null while one is chosen. */
  readonly placeX = input.required<number | null>();
  readonly strokesShown = input.required<boolean>();
  /** The bars that a shown variation stands for. */
  readonly varied = input<{ readonly x: number; readonly width: number } | null>(null);
  readonly chosen = output<{ strumId: string; string: number | null; extend: boolean; picked: boolean }>();
  /** Pixels from the left of the lane, and the string nearest to the click. */
  readonly placed = output<{ x: number; string: number }>();

  private readonly grid = viewChild.required<ElementRef<HTMLElement>>('grid');

  focus(): void {
    this.grid().nativeElement.focus({ preventScroll: true });
  }

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

  protected readonly place = computed(() => {
    const [x, { lines }] = [this.placeX() ?? 0, this.layout()];
    const open = lines.filter((l) => l.open);
    const [top, bottom] = [(open[0]?.y ?? 18) - 15, (open.at(-1)?.y ?? 18) + 15];
    return `M${x + 8} ${top}H${x}V${bottom}H${x + 8}M${x + 20} ${top}H${x + 28}V${bottom}H${x + 20}`;
  });

  protected choose(strumId: string, string: number | null, event: MouseEvent): void {
    event.stopPropagation();
    this.chosen.emit({ strumId, string, extend: event.shiftKey, picked: event.ctrlKey || event.metaKey });
  }

  /** A click beside all strums chooses the place there. */
  protected choosePlace(event: MouseEvent): void {
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const y = event.clientY - box.top;
    const nearest = this.layout().lines.reduce((best, line) =>
      Math.abs(line.y - y) < Math.abs(best.y - y) ? line : best,
    );
    this.placed.emit({ x: event.clientX - box.left, string: nearest.string });
  }
}
