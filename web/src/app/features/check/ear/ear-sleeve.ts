/** The guess, large, beside the sleeve that what was heard is in. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ChordName } from '../../../shared/chord-name';
import { CHARACTER_WIDTH } from '../../../tab/row-layout';
import { EarFirst } from './ear-first';

/** Beside the sleeve. */
const ROOM_PX = 215;

@Component({
  selector: 'wn-ear-sleeve',
  imports: [ChordName],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div>
      <h3 class="display">What do you hear?</h3>
      <wn-chord-name class="display guess" [style.--size.px]="sizePx()" [name]="ear.name()" />
    </div>
    <div class="sleeve" role="img" aria-label="Covered: what the program heard">
      <h4 class="display">What the program heard is in here</h4>
      <p>It opens when you have said what you hear.</p>
      <p>What is written is covered too, in the tab below.</p>
      <svg viewBox="0 0 24 60" aria-hidden="true"><path d="M24 0A30 30 0 0 0 24 60" /></svg>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 444px);
      gap: 24px;
      align-items: center;
      height: 132px;
    }
    h3 {
      font-size: 28px;
      font-weight: 600;
    }
    .guess {
      display: block;
      font-size: calc(var(--check-scale, 1) * var(--size));
      font-weight: 800;
      line-height: 0.92;
      white-space: nowrap;
    }
    .sleeve {
      position: relative;
      height: 122px;
      padding: 20px 44px 0 24px;
      background: var(--paper);
      border: 2px solid var(--edge);
      border-radius: 12px;
      overflow: hidden;
    }
    h4 {
      margin: 0 0 10px;
      font-size: 24px;
      font-weight: 600;
    }
    p {
      color: var(--ink2);
    }
    svg {
      position: absolute;
      right: -2px;
      top: 30px;
      width: 24px;
      height: 60px;
      fill: var(--sleeve);
      stroke: var(--edge);
      stroke-width: 2;
    }
    @container work (max-height: 490px) {
      :host {
        height: 62px;
      }
      :host > div:first-child {
        display: flex;
        align-items: baseline;
        gap: 16px;
      }
      h3 {
        font-size: 20px;
      }
      .sleeve {
        height: 58px;
        padding: 6px 44px 0 20px;
      }
      h4 {
        margin: 0;
        font-size: 20px;
      }
      .sleeve p:last-of-type {
        display: none;
      }
      svg {
        top: -2px;
      }
    }
  `,
})
export class EarSleeve {
  protected readonly ear = inject(EarFirst);
  protected readonly sizePx = computed(() =>
    Math.min(100, ROOM_PX / (CHARACTER_WIDTH * this.ear.name().length)),
  );
}
