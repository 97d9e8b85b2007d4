/** One row of tab on paper: strings, strums, bar lines and repeats, names above, palm mutes and counts below. */
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { ChordName } from '../../shared/chord-name';
import type { StrumBlock } from '../../tab/row-layout';
import { StrumGlyph } from '../../tab/strum-glyph';
import { INSET_PX, STAVE_SCALE, STROKES_PX, type Shown, type StaveView } from './sheet-view';

/** Palm mutes that stand nearer than this are under one line. */
const ONE_LINE_PX = 90;
/** Of a name on paper. */
const NAME_PX = 19;

@Component({
  selector: 'wn-stave',
  imports: [ChordName, StrumGlyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (above().length > 0) {
      <div class="above">
        @for (sign of above(); track $index) {
          <span
            [class.bracket]="sign.isBracket"
            [class.begins]="sign.begins"
            [class.ends]="sign.ends"
            [style.left.px]="sign.x"
            [style.width.px]="sign.width"
            >{{ sign.label }}</span
          >
        }
      </div>
    }
    @if (shown().names) {
      <div class="names">
        @for (block of layout().blocks; track block.id) {
          @if (block.name !== '') {
            <wn-chord-name
              class="display"
              mute
              [style.left.px]="INSET + SCALE * block.x"
              [style.font-size.px]="nameSize(block.nameSizePx)"
              [name]="block.name"
            />
          }
        }
      </div>
    }
    <svg role="img" [attr.aria-label]="spoken()" [attr.width]="widthPx()" [attr.height]="heightPx()">
      <defs>
        <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" class="hatch-ground" />
          <line x1="0" y1="0" x2="0" y2="6" class="hatch-line" />
        </pattern>
      </defs>
      <g [attr.transform]="'scale(' + SCALE + ')'">
        @for (line of layout().lines; track line.string) {
          <path
            class="string"
            [class.folded]="!line.open"
            [attr.d]="'M0 ' + line.y + 'H' + widthPx() / SCALE"
          />
        }
        <path class="bars" [attr.d]="barLines()" />
        <path class="thick" [attr.d]="thickLines()" />
        @for (dot of dots(); track $index) {
          <circle r="4" [attr.cx]="dot.x" [attr.cy]="dot.y" />
        }
        <g [attr.transform]="'translate(' + INSET / SCALE + ' 0)'">
          @for (block of layout().blocks; track block.id) {
            <g
              wnStrum
              [block]="block"
              [sounding]="false"
              [selected]="false"
              [writtenString]="null"
              [strokesShown]="shown().strokes"
            />
            @if (stave().bracketed.has(block.id)) {
              <path class="in-brackets" [attr.d]="bracketsAround(block)" />
            }
          }
        </g>
      </g>
    </svg>
    @if (shown().mutes && muteSpans().length > 0) {
      <div class="mutes">
        @for (span of muteSpans(); track span.x) {
          <span [style.left.px]="INSET + span.x" [style.width.px]="span.width"><b>PM</b><i></i></span>
        }
      </div>
    }
    @if (shown().counts) {
      <div class="counts">
        @for (count of layout().counts; track count.x) {
          <span [class.beat]="count.onBeat" [style.left.px]="INSET + SCALE * count.x + 2">{{
            count.text
          }}</span>
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
    }
    .above {
      position: relative;
      height: 20px;
    }
    .above span {
      position: absolute;
      top: 2px;
      height: 14px;
      padding-left: 5px;
      overflow: hidden;
      white-space: nowrap;
      font: 600 13px/16px var(--words);
    }
    .above .bracket {
      border-top: 1.5px solid var(--ink);
    }
    .above .begins {
      border-left: 1.5px solid var(--ink);
    }
    .above .ends {
      border-right: 1.5px solid var(--ink);
    }
    .names,
    .mutes,
    .counts {
      position: relative;
      height: 18px;
    }
    .names {
      height: 20px;
    }
    .names wn-chord-name,
    .counts span,
    .mutes span {
      position: absolute;
      bottom: 0;
      white-space: nowrap;
    }
    .names wn-chord-name {
      font-weight: 600;
    }
    svg {
      display: block;
      overflow: visible;
    }
    // Read from a stand: as large as the counts.
    :host ::ng-deep .sign {
      font-size: 20px;
    }
    .hatch-ground {
      fill: #fffefa;
    }
    .hatch-line {
      stroke: var(--ink);
      stroke-width: 5;
    }
    .string {
      stroke: var(--ink);
      stroke-width: 1.3;
    }
    .string.folded {
      stroke: var(--line2);
    }
    .bars {
      stroke: var(--ink);
      stroke-width: 1.6;
    }
    .in-brackets {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2;
    }
    .thick {
      stroke: var(--ink);
      stroke-width: 6;
    }
    circle {
      fill: var(--ink);
    }
    .mutes span {
      display: flex;
      align-items: center;
      gap: 4px;
      font: 600 12px/18px var(--words);
    }
    .mutes i {
      flex: 1;
      height: 5px;
      border-top: 1px solid var(--ink);
      border-right: 1px solid var(--ink);
      margin-top: 5px;
    }
    .counts span {
      font: 400 13px/18px var(--words);
      color: var(--ink3);
    }
    .counts .beat {
      color: var(--ink);
      font-weight: 600;
    }
  `,
})
export class Stave {
  readonly stave = input.required<StaveView>();
  readonly widthPx = input.required<number>();
  readonly shown = input.required<Shown>();
  protected readonly SCALE = STAVE_SCALE;
  protected readonly INSET = INSET_PX;

  protected readonly layout = computed(() => this.stave().layout);
  protected readonly heightPx = computed(
    () => STAVE_SCALE * (this.layout().height - (this.shown().strokes ? 0 : STROKES_PX)),
  );
  private readonly edges = computed(() => {
    const ys = this.layout().lines.map((l) => l.y);
    return { top: Math.min(...ys), foot: Math.max(...ys), right: this.widthPx() / STAVE_SCALE };
  });
  private readonly repeats = computed(() => {
    const { isRepeated, system, repeatEndBar } = this.stave();
    const end = system.fromBar + system.bars;
    const endsHere = repeatEndBar > system.fromBar && repeatEndBar <= end;
    return {
      atStart: isRepeated && system.isFirst,
      /** Where the repeat ends in this row; null where it does not. */
      endX: isRepeated && endsHere ? this.barX(repeatEndBar) : null,
    };
  });
  /** Endings in brackets, and names of parts. */
  protected readonly above = computed(() => {
    const { brackets, groups, system } = this.stave();
    const end = system.fromBar + system.bars;
    const signOf = (fromBar: number, toBar: number, label: string, isBracket: boolean) => {
      const x = STAVE_SCALE * this.barX(Math.max(fromBar, system.fromBar));
      return {
        label: fromBar >= system.fromBar ? label : '',
        isBracket,
        begins: isBracket && fromBar >= system.fromBar,
        ends: isBracket && toBar <= end,
        x: x + 2,
        width: STAVE_SCALE * this.barX(Math.min(toBar, end)) - x - 4,
      };
    };
    return [
      ...brackets.map((b) => signOf(b.fromBar, b.toBar, b.label, true)),
      ...groups.map((g) => signOf(g.startBar, g.startBar + g.bars, g.name, false)),
    ];
  });
  protected readonly barLines = computed(() => {
    const { top, foot, right } = this.edges();
    const { atStart, endX } = this.repeats();
    const inside = this.layout()
      .barLines.slice(1)
      .map((x) => x + INSET_PX / STAVE_SCALE);
    const xs = [0, ...inside, right, ...(atStart ? [9] : []), ...(endX !== null ? [endX - 9] : [])];
    return xs.map((x) => `M${x} ${top}V${foot}`).join('');
  });
  protected readonly thickLines = computed(() => {
    const { top, foot } = this.edges();
    const { atStart, endX } = this.repeats();
    return [...(atStart ? [2] : []), ...(endX !== null ? [endX - 2] : [])]
      .map((x) => `M${x} ${top}V${foot}`)
      .join('');
  });
  /** Two in the middle of the strings. */
  protected readonly dots = computed(() => {
    const { top, foot } = this.edges();
    const { atStart, endX } = this.repeats();
    const ys = [-0.14, 0.14].map((by) => (top + foot) / 2 + by * (foot - top));
    const xs = [...(atStart ? [20] : []), ...(endX !== null ? [endX - 20] : [])];
    return xs.flatMap((x) => ys.map((y) => ({ x, y })));
  });
  /** From the first palm-muted strum to the end of the last of a run. */
  protected readonly muteSpans = computed(() => {
    const spans: { x: number; end: number }[] = [];
    let isOpen = false;
    for (const { palmMute, x, width } of this.layout().blocks) {
      const last = spans.at(-1);
      if (!palmMute) isOpen = false;
      else if (isOpen && last && x - last.end < ONE_LINE_PX) last.end = x + width;
      else {
        spans.push({ x, end: x + width });
        isOpen = true;
      }
    }
    return spans.map(({ x, end }) => ({ x: STAVE_SCALE * x, width: Math.max(16, STAVE_SCALE * (end - x)) }));
  });
  protected readonly spoken = computed(() => {
    const { system, layout } = this.stave();
    const bars =
      system.bars === 1
        ? `Bar ${system.fromBar + 1}`
        : `Bars ${system.fromBar + 1} to ${system.fromBar + system.bars}`;
    return `${bars}: ${layout.blocks.map((b) => b.spoken).join('; ')}`;
  });

  /** Where a bar of the riff begins, in the stave's own measure; behind the last one, its end. */
  private barX(bar: number): number {
    const { system, layout } = this.stave();
    if (bar >= system.fromBar + system.bars) return this.edges().right;
    const at = bar - system.fromBar;
    return at <= 0 ? 0 : layout.barLines[at] + INSET_PX / STAVE_SCALE;
  }

  protected bracketsAround({ x, top, width, height }: StrumBlock): string {
    const side = (at: number, bow: number): string =>
      `M${at} ${top - 2}q${bow} ${height / 2 + 2} 0 ${height + 4}`;
    return side(x - 3, -9) + side(x + width + 3, 9);
  }

  protected nameSize(nameSizePx: number): number {
    return Math.min(NAME_PX, STAVE_SCALE * nameSizePx);
  }
}
