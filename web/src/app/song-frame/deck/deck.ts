/** The deck: play, place, speed, loop, pitch, volume. Large, since the other hand holds a guitar. */
import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatFabButton, MatIconButton } from '@angular/material/button';
import { clock } from '@wild-needle/core/units';
import { Player } from '../../transport/player';
import { Now } from '../../transport/now';
import { Icon } from '../../shared/icon';

import { DeckControl } from '../../transport/deck-control';
import { ClickSwitches } from './click-switches';
import { DeckSource } from './deck-source';
import { DeckEars } from './deck-ears';
import { LoopAndPitch } from './loop-and-pitch';
import { SpeedMeter } from './speed-meter';
import { VolumeWedge } from './volume-wedge';

const RING = 2 * Math.PI * 40;

@Component({
  selector: 'wn-deck',
  imports: [
    ClickSwitches,
    DeckEars,
    DeckSource,
    Icon,
    LoopAndPitch,
    MatFabButton,
    MatIconButton,
    SpeedMeter,
    VolumeWedge,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="play">
      <svg class="ring" viewBox="0 0 84 84" aria-hidden="true">
        <circle class="rest" cx="42" cy="42" r="40" />
        <circle
          class="done"
          cx="42"
          cy="42"
          r="40"
          [attr.stroke-dasharray]="ring"
          [attr.stroke-dashoffset]="ringOffset()"
          transform="rotate(-90 42 42)"
        />
      </svg>
      <button
        mat-fab
        class="play-button"
        [disabled]="player.status() !== 'ready'"
        [attr.aria-label]="player.playing() ? 'Stop' : 'Play'"
        (click)="control.togglePlay()"
      >
        <svg viewBox="0 0 24 24" width="34" height="34" aria-hidden="true">
          @if (player.playing()) {
            <path d="M5 3h5v18H5zM14 3h5v18h-5z" />
          } @else {
            <path d="M6 3l15 9-15 9z" />
          }
        </svg>
      </button>
    </div>
    <div class="place">
      @if (player.counted(); as beat) {
        <div class="display count counted" role="status">{{ beat }}</div>
      } @else {
        <div
          class="display count"
          [class.four]="countSize() === 'four'"
          [class.five]="countSize() === 'five'"
          data-testid="count"
        >
          {{ now.count() }}
        </div>
      }
      <div class="mono">{{ time() }}</div>
    </div>
    <wn-speed-meter />
    <wn-loop-and-pitch />
    <wn-deck-ears />
    <div class="last">
      <wn-deck-source />
      <div class="row"><wn-click-switches /><wn-volume-wedge /></div>
    </div>
    <button mat-icon-button aria-label="Keys of this screen" (click)="keysWanted.emit()">
      <wn-icon name="keys" />
    </button>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 10px;
      min-height: 112px;
      padding: 0 8px 0 16px;
      background: var(--sleeve);
      border-top: 1px solid var(--line2);
    }
    .play {
      position: relative;
      width: 84px;
      height: 84px;
      flex: none;
    }
    .ring {
      position: absolute;
      inset: 0;
      fill: none;
      stroke-width: 3.5;
    }
    .rest {
      stroke: var(--line2);
    }
    .done {
      stroke: var(--needle);
    }
    .play-button {
      --mat-fab-container-shape: 50%;
      --mat-fab-container-color: var(--ink);
      --mat-fab-foreground-color: var(--sleeve);
      position: absolute;
      inset: 8px;
      width: 68px;
      height: 68px;
    }
    .play-button path {
      fill: currentColor;
    }
    .place {
      width: 94px;
    }
    .count {
      font-size: 60px;
      font-weight: 800;
      line-height: 56px;
    }
    .count.four {
      font-size: 55px;
    }
    .count.five {
      font-size: 45px;
    }
    .count.counted {
      color: var(--needle);
    }
    .place .mono {
      font-size: 16px;
      color: var(--ink2);
    }
    .last {
      margin-left: auto;
      display: grid;
      gap: 8px;
      justify-items: end;
    }
    .row {
      display: flex;
      align-items: center;
      gap: 6px;
    }
    // Where the page needs the room: one row.
    :host(.folded) {
      min-height: 64px;

      .play {
        width: 56px;
        height: 56px;
      }
      .play-button {
        inset: 5px;
        width: 46px;
        height: 46px;

        svg {
          width: 22px;
          height: 22px;
        }
      }
      .place {
        display: flex;
        align-items: baseline;
        gap: 8px;
        width: 116px;
      }
      .count {
        font-size: 34px;
        line-height: 40px;
      }
      .last {
        display: flex;
        align-items: center;
      }
      wn-click-switches {
        display: none;
      }
    }
    // Nothing falls off a narrow screen: the deck takes a second row.
    @media (max-width: 1240px) {
      :host {
        flex-wrap: wrap;
        row-gap: 4px;
        padding-block: 4px;
      }
      .last {
        display: flex;
        align-items: center;
      }
    }
  `,
})
export class Deck {
  readonly keysWanted = output();

  protected readonly player = inject(Player);
  protected readonly now = inject(Now);
  protected readonly control = inject(DeckControl);

  /** Long places fit: up to three signs are 60 px high. */
  protected readonly countSize = computed(() => {
    const { length } = this.now.count();
    return length > 4 ? 'five' : length > 3 ? 'four' : '';
  });
  protected readonly time = computed(() => clock(this.player.nowS()));
  protected readonly ring = RING;
  /** The needle's place in the loop, or in the song. */
  protected readonly ringOffset = computed(() => {
    const loop = this.player.loop() ?? { startS: 0, endS: this.player.durationS() };
    const share =
      loop.endS > loop.startS ? (this.player.nowS() - loop.startS) / (loop.endS - loop.startS) : 0;
    return RING * (1 - Math.min(1, Math.max(0, share)));
  });
}
