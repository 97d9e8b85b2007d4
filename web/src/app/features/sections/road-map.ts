/**
 * The road map: a row per riff, a block per section on the time of the strip above, a notch per pass; arcs join where a riff
 * comes back, dashed where it has moved.
 */
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { movedBy } from '../../shared/words';

export interface MapBlock {
  readonly id: string;
  readonly letter: string;
  readonly startS: number;
  readonly endS: number;
  readonly transpose: number;
  readonly passes: number;
  readonly isChosen: boolean;
  readonly isDoubtful: boolean;
}

const ARC_HEIGHT = 84;
const ROW = 33;
const BLOCK = 29;
const NOTCH = 5;

@Component({
  selector: 'wn-road-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      [attr.viewBox]="'0 0 1000 ' + height()"
      [attr.height]="height()"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      @for (arc of arcs(); track $index) {
        <path class="arc" [class.moved]="arc.isMoved" [class.pale]="arc.isPale" [attr.d]="arc.d" />
      }
      <line class="ground" x1="0" x2="1000" y1="${ARC_HEIGHT}" y2="${ARC_HEIGHT}" />
      @for (row of letters(); track row) {
        <line class="rail" x1="0" x2="1000" [attr.y1]="railOf($index)" [attr.y2]="railOf($index)" />
      }
      @for (block of drawn(); track block.id) {
        <path class="block" [class.moved]="block.transpose !== 0" [attr.d]="block.d" />
      }
    </svg>
    @for (row of letters(); track row) {
      <span class="display letter" [style.top.px]="railOf($index) - 15">{{ row }}</span>
    }
    @for (block of drawn(); track block.id) {
      <button
        class="touch"
        [class.chosen]="block.isChosen"
        [class.moved]="block.transpose !== 0"
        [style.left.%]="block.left"
        [style.width.%]="block.width"
        [style.top.px]="block.top"
        [attr.aria-label]="block.spoken"
        [attr.aria-pressed]="block.isChosen"
        (click)="chosen.emit(block.id)"
      >
        {{ block.label }}
        @if (block.isDoubtful) {
          <i aria-hidden="true"></i>
        }
      </button>
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      margin: 0 16px;
    }
    svg {
      display: block;
      width: 100%;
    }
    .arc {
      fill: var(--groove2);
      fill-opacity: 0.3;
      stroke: var(--groove);
      stroke-width: 1.5;
      vector-effect: non-scaling-stroke;
    }
    .arc.moved {
      stroke-dasharray: 4 4;
      fill-opacity: 0.12;
    }
    .arc.pale {
      opacity: 0.25;
    }
    .ground {
      stroke: var(--ink);
      stroke-width: 1.5;
      vector-effect: non-scaling-stroke;
    }
    .rail {
      stroke: var(--line);
      vector-effect: non-scaling-stroke;
    }
    .block {
      fill: var(--ink);
    }
    .block.moved {
      fill: var(--sleeve);
      stroke: var(--ink);
      stroke-width: 2;
      vector-effect: non-scaling-stroke;
    }
    .letter {
      position: absolute;
      left: -4px;
      font-size: 26px;
      font-weight: 800;
      pointer-events: none;
    }
    .touch {
      position: absolute;
      height: ${BLOCK}px;
      padding: 8px 0 0 6px;
      border: 0;
      background: none;
      color: var(--sleeve);
      text-align: left;
      font: 600 15px/18px var(--display);
      white-space: nowrap;
      overflow: hidden;
      cursor: pointer;
    }
    .touch.moved {
      color: var(--ink);
    }
    .touch.chosen {
      box-shadow: 0 4px 0 -1px var(--needle);
    }
    .touch i {
      position: absolute;
      right: 6px;
      top: 9px;
      width: 9px;
      height: 9px;
      border: 2px solid var(--doubt-fill);
      transform: rotate(45deg);
    }
  `,
})
export class RoadMap {
  readonly blocks = input.required<readonly MapBlock[]>();
  readonly durationS = input.required<number>();
  readonly chosen = output<string>();

  protected readonly letters = computed(() => [...new Set(this.blocks().map((b) => b.letter))].sort());
  protected readonly height = computed(() => ARC_HEIGHT + 4 + ROW * Math.max(1, this.letters().length));
  private readonly chosenLetter = computed(() => this.blocks().find((b) => b.isChosen)?.letter ?? null);

  protected readonly drawn = computed(() => {
    const perSecond = 1000 / Math.max(1e-6, this.durationS());
    return this.blocks().map((block) => {
      const top = ARC_HEIGHT + 4 + ROW * this.letters().indexOf(block.letter);
      const [from, to] = [block.startS * perSecond, block.endS * perSecond];
      const pass = (to - from) / block.passes;
      const notches = Array.from({ length: block.passes - 1 }, (_, i) => from + (i + 1) * pass)
        .map(
          (x) => `L${(x - 2).toFixed(1)} ${top}L${x.toFixed(1)} ${top + NOTCH}L${(x + 2).toFixed(1)} ${top}`,
        )
        .join('');
      const moved = movedBy(block.transpose);
      return {
        ...block,
        top,
        left: from / 10,
        width: (to - from) / 10,
        d: `M${from.toFixed(1)} ${top}${notches}L${to.toFixed(1)} ${top}v${BLOCK}H${from.toFixed(1)}z`,
        label: `${moved} ×${block.passes}`.trim(),
        spoken: `Riff ${block.letter} ${moved} played ${block.passes} times`.replace('  ', ' '),
      };
    });
  });

  protected readonly arcs = computed(() => {
    const perSecond = 1000 / Math.max(1e-6, this.durationS());
    const chosenLetter = this.chosenLetter();
    return this.letters().flatMap((letter) => {
      const same = this.blocks().filter((b) => b.letter === letter);
      return same.slice(1).map((to, i) => {
        const from = same[i];
        const [a, b] = [from.startS, from.endS].map((t) => t * perSecond);
        const [c, d] = [to.startS, to.endS].map((t) => t * perSecond);
        // Higher for what lies farther apart, within the room there is.
        const high = (wide: number): number => Math.min(ARC_HEIGHT - 6, 14 + wide / 7);
        return {
          isMoved: from.transpose !== to.transpose,
          isPale: chosenLetter !== null && chosenLetter !== letter,
          d:
            `M${a.toFixed(1)} ${ARC_HEIGHT}` +
            `C${a.toFixed(1)} ${(ARC_HEIGHT - 1.33 * high(d - a)).toFixed(1)} ${d.toFixed(1)} ${(ARC_HEIGHT - 1.33 * high(d - a)).toFixed(1)} ${d.toFixed(1)} ${ARC_HEIGHT}` +
            `H${c.toFixed(1)}` +
            `C${c.toFixed(1)} ${(ARC_HEIGHT - 1.2 * high(c - b)).toFixed(1)} ${b.toFixed(1)} ${(ARC_HEIGHT - 1.2 * high(c - b)).toFixed(1)} ${b.toFixed(1)} ${ARC_HEIGHT}z`,
        };
      });
    });
  });

  protected railOf(row: number): number {
    return ARC_HEIGHT + 4 + ROW * row + BLOCK / 2;
  }
}
