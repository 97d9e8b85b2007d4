/** One of the times the riff is played: the recording's sound and the chords heard in it, on the shared ruler. */
import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { ChordName } from '../../shared/chord-name';

export interface HeardMark {
  readonly x: number;
  /** Up to the next strum. */
  readonly roomPx: number;
  readonly name: string;
  readonly doubtful: boolean;
  readonly muted: boolean;
}

export interface PassView {
  readonly id: string;
  readonly number: number;
  readonly barsText: string;
  readonly sounding: boolean;
  readonly looped: boolean;
  readonly moved: string;
  readonly marks: readonly HeardMark[];
  readonly path: string;
  readonly rowPx: number;
  /** Height of the groove, at the foot of the row. */
  readonly groovePx: number;
}

/** From this height on there is room for names that are read with a guitar in the hands. */
const ROOMY_PX = 44;

@Component({
  selector: 'wn-pass-row',
  imports: [ChordName],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class.sounding]': 'pass().sounding',
    '[class.roomy]': 'pass().rowPx >= ROOMY_PX',
    '[style.height.px]': 'pass().rowPx',
  },
  template: `
    <svg class="groove" [attr.width]="widthPx()" [attr.height]="pass().groovePx" aria-hidden="true">
      <path [attr.d]="pass().path" />
      @for (mark of pass().marks; track $index) {
        <line [attr.x1]="mark.x" [attr.x2]="mark.x" y1="0" [attr.y2]="pass().groovePx" />
      }
    </svg>
    @for (mark of pass().marks; track $index) {
      <wn-chord-name
        [class.display]="pass().sounding"
        [class.muted]="mark.muted"
        [class.doubtful]="mark.doubtful"
        [style.left.px]="mark.x + 3"
        [style.max-width.px]="mark.roomPx"
        [name]="mark.name + (mark.doubtful && mark.name !== '×' ? '?' : '')"
      />
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      overflow: hidden;
    }
    .groove {
      position: absolute;
      left: 0;
      bottom: 2px;
    }
    path {
      fill: var(--groove);
    }
    line {
      stroke: var(--groove2);
    }
    wn-chord-name {
      position: absolute;
      top: 1px;
      font-size: 14px;
      line-height: 17px;
      font-weight: 500;
      overflow: hidden;
    }
    :host(.roomy) wn-chord-name {
      font-size: 18px;
      line-height: 22px;
    }
    :host(.sounding) wn-chord-name {
      font-size: 24px;
      line-height: 30px;
    }
    .muted {
      color: var(--ink3);
      font-weight: 400;
    }
    .doubtful {
      color: var(--doubt);
    }
  `,
})
export class PassRow {
  protected readonly ROOMY_PX = ROOMY_PX;
  readonly pass = input.required<PassView>();
  readonly widthPx = input.required<number>();
}
