/** Speed: a dial, a hidden slider under it for any value, and two large keys. */
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injector,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatSliderModule } from '@angular/material/slider';
import { MAX_SPEED, MIN_SPEED, Player } from '../../transport/player';
import { Now } from '../../transport/now';
import { DeckControl } from '../../transport/deck-control';

@Component({
  selector: 'wn-speed-meter',
  imports: [MatButton, MatSliderModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button mat-stroked-button class="square" aria-label="Slower" (click)="control.changeSpeed(-0.05)">
      −
    </button>
    <div class="meter">
      <svg viewBox="0 0 84 44" aria-hidden="true">
        @for (tick of ticks; track tick.speed) {
          <line
            x1="42"
            y1="4"
            x2="42"
            [attr.y2]="tick.long ? 11 : 8"
            [attr.transform]="'rotate(' + tick.angle + ' 42 44)'"
          />
        }
        <line
          class="pointer"
          x1="42"
          y1="7"
          x2="42"
          y2="40"
          [style.transform]="'rotate(' + pointer() + 'deg)'"
        />
      </svg>
      <mat-slider class="speed-slider" [min]="25" [max]="150" [step]="1">
        <input
          matSliderThumb
          aria-label="Speed in per cent"
          [value]="percent()"
          (valueChange)="player.setSpeed($event / 100)"
        />
      </mat-slider>
      @if (isTyping()) {
        <input
          #typed
          class="display percent typed"
          type="number"
          min="25"
          max="150"
          aria-label="Speed in per cent, typed"
          [value]="percent()"
          (change)="player.setSpeed(+typed.value / 100)"
          (keydown.enter)="typed.blur()"
          (keydown.escape)="typed.blur()"
          (blur)="isTyping.set(false)"
        />
      } @else {
        <button class="display percent" data-testid="speed" title="Type a speed" (click)="type()">
          {{ percent() }} %
        </button>
      }
      <div class="mono bpm">{{ bpm() }}</div>
    </div>
    <button mat-stroked-button class="square" aria-label="Faster" (click)="control.changeSpeed(0.05)">
      +
    </button>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 6px;
    }
    .square {
      min-width: 34px;
      width: 34px;
      height: 60px;
      padding: 0;
      font-size: 22px;
    }
    .meter {
      position: relative;
      width: 92px;
      text-align: center;
    }
    .meter svg {
      width: 84px;
      height: 40px;
    }
    .meter line {
      stroke: var(--line2);
      stroke-width: 1.5;
    }
    .meter .pointer {
      stroke: var(--ink);
      stroke-width: 2.5;
      transform-origin: 42px 44px;
      transition: transform 240ms cubic-bezier(0.3, 1.1, 0.5, 1);
    }
    .speed-slider {
      position: absolute;
      inset: 0;
      width: 92px;
      min-width: 92px;
      margin: 0;
      opacity: 0;
    }
    :host-context(wn-deck.folded) {
      .square {
        height: 40px;
      }
      .meter {
        width: 72px;
      }
      .meter svg,
      .speed-slider {
        display: none;
      }
      .percent {
        width: 72px;
        height: 26px;
        font-size: 22px;
        line-height: 26px;
      }
    }
    .speed-slider:focus-within {
      opacity: 1;
    }
    .percent {
      position: relative;
      width: 92px;
      height: 32px;
      margin-top: -4px;
      padding: 0;
      border: 0;
      background: none;
      color: inherit;
      font-size: 26px;
      line-height: 32px;
      text-align: center;
      cursor: text;
    }
    .typed {
      border-bottom: 2px solid var(--ink);
      appearance: textfield;
    }
    .bpm {
      font-size: 13px;
      color: var(--ink2);
    }
    @media (prefers-reduced-motion: reduce) {
      .meter .pointer {
        transition: none;
      }
    }
  `,
})
export class SpeedMeter {
  protected readonly player = inject(Player);
  protected readonly control = inject(DeckControl);
  private readonly now = inject(Now);
  private readonly injector = inject(Injector);

  protected readonly isTyping = signal(false);
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('typed');

  protected type(): void {
    this.isTyping.set(true);
    afterNextRender(() => this.field()?.nativeElement.select(), { injector: this.injector });
  }

  protected readonly percent = computed(() => Math.round(this.player.speed() * 100));
  protected readonly bpm = computed(() => {
    const bpm = this.now.heardBpm();
    return bpm === null ? '' : `${bpm} bpm`;
  });
  protected readonly pointer = computed(() => angleOf(this.player.speed()));
  protected readonly ticks = Array.from({ length: 26 }, (_, i) => {
    const speed = MIN_SPEED + (i * (MAX_SPEED - MIN_SPEED)) / 25;
    return { speed, angle: angleOf(speed), long: Math.abs(speed * 4 - Math.round(speed * 4)) < 0.01 };
  });
}

/** -50° at the slowest, 50° at the fastest. */
function angleOf(speed: number): number {
  return -50 + (100 * (speed - MIN_SPEED)) / (MAX_SPEED - MIN_SPEED);
}
