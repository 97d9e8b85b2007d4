/** A chord as a box of strings and frets, the thickest string at the left. */
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { ChordBox } from '@wild-needle/core/sheet';
import { ChordName } from '../../shared/chord-name';

const STRING_PX = 9;
const FRET_PX = 11;
const LEFT = 14;
const TOP = 12;

@Component({
  selector: 'wn-chord-box',
  imports: [ChordName],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <wn-chord-name class="display" mute [name]="box().name" />
    <svg role="img" [attr.aria-label]="spoken()" [attr.width]="width()" [attr.height]="height()">
      <path class="lines" [attr.d]="lines()" />
      @if (box().fromFret === 1) {
        <path class="nut" [attr.d]="'M' + LEFT + ' ' + TOP + 'h' + (width() - LEFT - 4)" />
      } @else {
        <text class="fret" [attr.x]="LEFT - 5" [attr.y]="TOP + 10">{{ box().fromFret }}</text>
      }
      @for (dot of dots(); track dot.x) {
        <circle r="4.2" [attr.cx]="dot.x" [attr.cy]="dot.y" />
        @if (dot.finger) {
          <text class="finger" [attr.x]="dot.x" [attr.y]="height() - 1">{{ dot.finger }}</text>
        }
      }
      @for (x of open(); track x) {
        <circle class="open" r="2.6" [attr.cx]="x" [attr.cy]="TOP - 6" />
      }
      @for (x of quiet(); track x) {
        <path class="quiet" [attr.d]="'M' + (x - 2.4) + ' ' + (TOP - 8.4) + 'l4.8 4.8m0 -4.8l-4.8 4.8'" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: grid;
      justify-items: center;
      gap: 2px;
    }
    wn-chord-name {
      font-size: 17px;
      font-weight: 600;
    }
    .lines {
      stroke: var(--ink2);
      stroke-width: 0.8;
    }
    .nut {
      stroke: var(--ink);
      stroke-width: 3;
    }
    circle {
      fill: var(--ink);
    }
    .open {
      fill: none;
      stroke: var(--ink);
    }
    .quiet {
      stroke: var(--ink2);
      fill: none;
    }
    text {
      font: 500 11px var(--mono);
      fill: var(--ink);
    }
    // Two digits stand beside the dot on the lowest string, not under it.
    svg {
      overflow: visible;
    }
    .fret {
      text-anchor: end;
    }
    .finger {
      font-size: 9px;
      text-anchor: middle;
    }
  `,
})
export class Box {
  readonly box = input.required<ChordBox>();
  protected readonly LEFT = LEFT;
  protected readonly TOP = TOP;
  protected readonly width = computed(() => LEFT + STRING_PX * (this.box().strings - 1) + 4);
  protected readonly height = computed(() => TOP + FRET_PX * this.box().frets + 12);

  private x(string: number): number {
    return LEFT + STRING_PX * (this.box().strings - string);
  }
  protected readonly lines = computed(() => {
    const { strings, frets } = this.box();
    const [width, height] = [STRING_PX * (strings - 1), FRET_PX * frets];
    const down = Array.from({ length: strings }, (_, i) => `M${LEFT + STRING_PX * i} ${TOP}v${height}`);
    const across = Array.from({ length: frets + 1 }, (_, i) => `M${LEFT} ${TOP + FRET_PX * i}h${width}`);
    return [...down, ...across].join('');
  });
  protected readonly dots = computed(() => {
    const { dots, fromFret } = this.box();
    return dots.map(({ string, fret, finger }) => ({
      x: this.x(string),
      y: TOP + FRET_PX * (fret - fromFret + 0.5),
      finger,
    }));
  });
  protected readonly open = computed(() => this.box().open.map((s) => this.x(s)));
  protected readonly quiet = computed(() => this.box().quiet.map((s) => this.x(s)));
  protected readonly spoken = computed(() => {
    const { name, dots, open } = this.box();
    const places = [
      ...dots.map((d) => `string ${d.string} fret ${d.fret}`),
      ...open.map((string) => `string ${string} open`),
    ];
    return `${name}: ${places.join(', ')}`;
  });
}
