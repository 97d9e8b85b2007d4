/**
 * The road map: a row per riff, a block per section on the time of the strip above, a notch per pass; arcs join where a riff
 * comes back, dashed where it has moved.
 */
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { movedBy } from '../../shared/words';
import { ARC_HEIGHT, drawMap, type MapBlock } from './map-geometry';

/** 'Verse 1, B +2 ×4', as a screen reader says it. */
function spokenBlock({ name, letter, transpose, played }: MapBlock): string {
  const what = [letter, movedBy(transpose), played].filter((w) => letter !== '' && w !== '').join(' ');
  return what === '' ? `${name}, no riff` : `${name}, riff ${what}`;
}

/** Width of the drawing, stretched to the width there is. */
const UNITS = 1000;

@Component({
  selector: 'wn-road-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[style.--block.px]': 'map().blockHeight' },
  template: `
    <svg
      [attr.viewBox]="'0 0 ${UNITS} ' + map().height"
      [attr.height]="map().height"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      @for (arc of arcs(); track $index) {
        <path class="arc" [class.moved]="arc.isMoved" [class.pale]="arc.isPale" [attr.d]="arc.d" />
      }
      <line class="ground" x1="0" x2="${UNITS}" y1="${ARC_HEIGHT}" y2="${ARC_HEIGHT}" />
      @for (row of map().rows; track row.letter) {
        <line class="rail" x1="0" x2="${UNITS}" [attr.y1]="row.y" [attr.y2]="row.y" />
      }
      @for (block of drawn(); track block.id) {
        <path class="block" [class.moved]="block.transpose !== 0" [attr.d]="block.d" />
      }
    </svg>
    @for (row of map().rows; track row.letter) {
      <span class="display letter" [style.top.px]="row.y">{{ row.letter }}</span>
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
        <span class="label" [class.beside-doubt]="block.isDoubtful">{{ block.label }}</span>
        @if (block.checkedShare !== null) {
          <span class="checked" aria-hidden="true"
            ><span [style.width.%]="100 * block.checkedShare"></span
          ></span>
        }
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
      // In the margin: the needle at 0:00 must not cross it.
      left: -14px;
      font-size: min(26px, var(--block));
      line-height: 1;
      font-weight: 800;
      transform: translateY(-50%);
      pointer-events: none;
    }
    .touch {
      position: absolute;
      display: flex;
      align-items: end;
      height: var(--block);
      padding: 0 0 1px 6px;
      border: 0;
      background: none;
      color: var(--sleeve);
      text-align: left;
      font: 600 min(15px, var(--block)) / 1.1 var(--display);
      white-space: nowrap;
      overflow: hidden;
      cursor: pointer;
    }
    .label {
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .label.beside-doubt {
      margin-right: 18px;
    }
    .touch.moved {
      color: var(--ink);
    }
    .touch.chosen {
      box-shadow: 0 4px 0 -1px var(--needle);
    }
    .checked {
      position: absolute;
      left: 0;
      right: 0;
      bottom: 0;
      height: 3px;
      background: var(--line2);
    }
    .checked span {
      display: block;
      height: 100%;
      background: var(--ok);
    }
    .touch i {
      position: absolute;
      right: 6px;
      top: calc(50% - 6px);
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

  protected readonly map = computed(() => drawMap(this.blocks(), this.durationS(), UNITS));
  private readonly chosenLetter = computed(() => this.blocks().find((b) => b.isChosen)?.letter ?? null);
  protected readonly arcs = computed(() => {
    const chosen = this.chosenLetter();
    return this.map().arcs.map((arc) => ({ ...arc, isPale: chosen !== null && chosen !== arc.letter }));
  });
  protected readonly drawn = computed(() =>
    this.map().blocks.map((block) => ({
      ...block,
      left: (100 * block.fromX) / UNITS,
      width: (100 * (block.toX - block.fromX)) / UNITS,
      spoken: spokenBlock(block),
    })),
  );
}
