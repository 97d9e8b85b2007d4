/** Where the recording that sounds has other parts than the one that the tab is written to: what it leaves out lies pale, what it adds is a gap in the groove. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { HeardIn } from '../../open-song/heard-in';
import { StripView } from './strip-view';

/** Half of the gap, pixels: wide enough to be seen, too narrow to hide a bar. */
const GAP_PX = 5;

@Component({
  selector: 'wn-other-parts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (part of leftOut(); track part.startS) {
      <div class="left-out" [style.left.%]="part.left" [style.width.%]="part.width">
        <span>left out</span>
      </div>
    }
    @for (part of added(); track part.startS) {
      <div class="added" [style.left.px]="part.x">
        <svg [attr.width]="2 * GAP_PX" height="43" aria-hidden="true">
          <path
            [attr.d]="
              'M0 0L' + GAP_PX + ' 21.5L0 43H' + 2 * GAP_PX + 'L' + GAP_PX + ' 21.5L' + 2 * GAP_PX + ' 0Z'
            "
          />
        </svg>
        <span>+{{ part.seconds }} s</span>
      </div>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    div {
      position: absolute;
      top: 0;
      height: 43px;
      overflow: hidden;
      pointer-events: none;
    }
    .left-out {
      border: 1px dashed var(--ink2);
      border-block: 0;
      background: color-mix(in srgb, var(--sleeve) 78%, transparent);
    }
    span {
      padding: 0 4px;
      background: var(--sleeve);
      font: 500 12px/16px var(--words);
      white-space: nowrap;
    }
    .added {
      display: flex;
      align-items: start;
      margin-left: -${GAP_PX}px;
      color: var(--ink);
    }
    .added path {
      fill: var(--ink);
    }
  `,
})
export class OtherParts {
  private readonly heardIn = inject(HeardIn);
  private readonly view = inject(StripView);
  protected readonly GAP_PX = GAP_PX;
  private readonly parts = computed(() => this.heardIn.other()?.map.onlyIn ?? []);

  protected readonly leftOut = computed(() =>
    this.parts()
      .filter(({ recording }) => recording === 'reference')
      .map(({ startS, endS }) => {
        const left = this.view.percentOf(startS);
        return { startS, left, width: this.view.percentOf(endS) - left };
      }),
  );
  protected readonly added = computed(() => {
    const map = this.heardIn.other()?.map;
    return this.parts().flatMap(({ recording, startS, endS }) =>
      map && recording === 'other'
        ? [{ startS, x: this.view.xOf(map.toReference(startS)), seconds: Math.round(endS - startS) }]
        : [],
    );
  });
}
