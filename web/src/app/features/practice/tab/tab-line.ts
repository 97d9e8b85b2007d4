/** One line of tab to play from: strings, strums and names, as large as its room allows. */
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Tuning } from '@wild-needle/core/guitar';
import type { Key } from '@wild-needle/core/theory';
import { ChordName } from '../../../shared/chord-name';
import { layoutRow, type RowLayout } from '../../../tab/row-layout';
import { StrumGlyph } from '../../../tab/strum-glyph';
import type { TabLine } from './practice-view';

const NAME_GAP_PX = 4;

export interface LineRoom {
  readonly widthPx: number;
  readonly heightPx: number;
  /** Of the names above; the strings get the rest. */
  readonly namesPx: number;
  readonly mostScale: number;
}

export interface LaidLine {
  /** In its own measure. */
  readonly layout: RowLayout;
  readonly scale: number;
  readonly room: LineRoom;
}

/** As large as the room allows: how high a row is does not depend on how wide it is. */
export function layLine(
  { riff, pass }: TabLine,
  { tuning, key }: { readonly tuning: Tuning; readonly key: Key | null },
  room: LineRoom,
): LaidLine {
  const window = { fromTicks: 0, toTicks: pass.toTicks };
  const laidOut = (widthPx: number): RowLayout =>
    layoutRow(riff, { tuning, key, widthPx, window, openString: null });
  const { height } = laidOut(room.widthPx);
  const scale = Math.min(room.mostScale, (room.heightPx - room.namesPx) / height);
  return { layout: laidOut(room.widthPx / scale), scale, room };
}

@Component({
  selector: 'wn-tab-line',
  imports: [ChordName, StrumGlyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.next]': 'isNext()' },
  template: `
    @for (block of blocks(); track block.id) {
      @if (block.name !== '' && !(isNext() && block.palmMute)) {
        <wn-chord-name
          class="name display"
          mute
          [class.muted]="block.palmMute"
          [class.sounding]="block.id === soundingId()"
          [style.left.px]="block.x * scale()"
          [style.top.px]="0"
          [style.font-size.px]="nameSize(block.nameSizePx)"
          [name]="block.name"
        />
      }
    }
    <svg role="img" [attr.aria-label]="spoken()" [attr.width]="widthPx()" [attr.height]="heightPx()">
      <defs>
        <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" class="hatch-ground" />
          <line x1="0" y1="0" x2="0" y2="6" class="hatch-line" />
        </pattern>
      </defs>
      <g [attr.transform]="'translate(0 ' + topPx() + ') scale(' + scale() + ')'">
        @for (x of bars(); track x) {
          <path class="bar" [attr.d]="'M' + x + ' ' + edges().top + 'V' + edges().foot" />
        }
        @for (line of layout().lines; track line.string) {
          <path
            class="string"
            [class.folded]="!line.open"
            [attr.d]="'M0 ' + line.y + 'H' + widthPx() / scale()"
          />
        }
        @for (block of blocks(); track block.id) {
          <g
            wnStrum
            [block]="block"
            [sounding]="block.id === soundingId()"
            [selected]="false"
            [writtenString]="null"
            [strokesShown]="strokesShown()"
          />
        }
      </g>
    </svg>
  `,
  styles: `
    :host {
      display: block;
      position: relative;
    }
    svg {
      display: block;
      position: absolute;
      left: 0;
      bottom: 0;
      overflow: visible;
    }
    .name {
      position: absolute;
      font-weight: 700;
      line-height: 1.05;
      white-space: nowrap;
    }
    .name.muted {
      font-weight: 500;
      color: var(--ink2);
    }
    .name.sounding {
      color: var(--needle);
    }
    .bar {
      stroke: var(--line2);
    }
    .string {
      stroke: var(--ink);
      stroke-width: 1.4;
    }
    .string.folded {
      stroke: var(--line2);
      stroke-width: 0.8;
    }
    .hatch-ground {
      fill: var(--sleeve);
    }
    .hatch-line {
      stroke: var(--ink);
      stroke-width: 5;
    }
    :host(.next) {
      opacity: 0.75;
    }
  `,
})
export class TabLineView {
  readonly laid = input.required<LaidLine>();
  readonly soundingId = input<string | null>(null);
  readonly strokesShown = input(true);
  readonly isNext = input(false);

  protected readonly scale = computed(() => this.laid().scale);
  protected readonly layout = computed(() => this.laid().layout);
  protected readonly widthPx = computed(() => this.laid().room.widthPx);
  protected readonly heightPx = computed(() => this.laid().room.heightPx);
  protected readonly topPx = computed(() => this.laid().room.namesPx);
  protected readonly blocks = computed(() => this.layout().blocks);
  protected readonly bars = computed(() => [...this.layout().barLines, this.widthPx() / this.scale()]);
  protected readonly edges = computed(() => {
    const ys = this.layout().lines.map((l) => l.y);
    return { top: Math.min(...ys), foot: Math.max(...ys) };
  });
  protected readonly spoken = computed(() => {
    const words = this.blocks().map((b) => b.spoken);
    return `${this.isNext() ? 'Next: ' : ''}${words.join('; ')}`;
  });

  protected nameSize(sizePx: number): number {
    return Math.min(this.topPx() - NAME_GAP_PX, sizePx * this.scale());
  }
}
