/** The deck: play, place, speed, loop, pitch, volume. Large, since the other hand holds a guitar. */
import { ChangeDetectionStrategy, Component, computed, effect, inject, output } from '@angular/core';
import { MatButton, MatFabButton, MatIconButton } from '@angular/material/button';
import { MatSliderModule } from '@angular/material/slider';
import { Store } from '@ngrx/store';
import { MAX_SPEED, MIN_SPEED, Player } from '../audio/player';
import { Now } from '../open-song/now';
import { OpenSongStore } from '../open-song/open-song.store';
import { Icon } from '../shared/icon';
import { clock } from '../shared/words';
import { settingsFeature } from '../state/settings/settings.reducer';
import { DeckControl } from './deck-control';

/** From here on the volume wedge turns amber: loops at this level tire the ears. */
const CAUTION_VOLUME = 0.75;
const RING = 2 * Math.PI * 40;

@Component({
  selector: 'wn-deck',
  imports: [Icon, MatButton, MatFabButton, MatIconButton, MatSliderModule],
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
        (click)="player.toggle()"
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
      <div class="display count" data-testid="count">{{ now.count() }}</div>
      <div class="mono">{{ time() }}</div>
    </div>
    <div class="speed">
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
        <div class="display percent" data-testid="speed">{{ percent() }} %</div>
        <div class="mono bpm">{{ bpm() }}</div>
      </div>
      <button mat-stroked-button class="square" aria-label="Faster" (click)="control.changeSpeed(0.05)">
        +
      </button>
    </div>
    <div class="column">
      <button
        mat-stroked-button
        class="wide"
        [class.on]="player.loop()"
        [attr.aria-pressed]="player.loop() !== null"
        (click)="control.toggleLoop()"
      >
        <wn-icon name="loop" /><span class="label"
          >{{ loopWords() }}<small>{{ roundWords() }}</small></span
        ><kbd>L</kbd>
      </button>
      <button
        mat-stroked-button
        class="wide"
        [class.on]="control.corrected()"
        [attr.aria-pressed]="control.corrected()"
        [disabled]="cents() === 0"
        (click)="control.togglePitch()"
      >
        <span class="label">{{ pitchWords() }}</span><kbd>P</kbd>
      </button>
    </div>
    <span class="gap"></span>
    <div class="sound">
      @if (player.status() === 'loading') {
        <span class="quiet" role="status">Reading the sound …</span>
      } @else if (player.status() === 'failed') {
        <span class="trouble">The sound can't be played here</span>
      }
      <div class="volume">
        <svg viewBox="0 0 132 20" preserveAspectRatio="none" aria-hidden="true">
          <path class="level" d="M0 12 132 4v14Z" />
          <path class="caution" d="M99 6 132 4v14l-33-2Z" />
        </svg>
        <mat-slider [min]="0" [max]="100" [step]="1">
          <input
            matSliderThumb
            aria-label="Volume"
            [value]="volume() * 100"
            (valueChange)="control.setVolume($event / 100)"
          />
        </mat-slider>
      </div>
      <span class="hint" [class.trouble]="tooLoud()">{{
        tooLoud() ? 'Loud for long loops: spare your ears' : 'Volume, Q for quiet'
      }}</span>
    </div>
    <button mat-icon-button aria-label="Keys of this screen" (click)="keysWanted.emit()">
      <wn-icon name="keys" />
    </button>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 28px;
      padding: 0 16px;
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
      width: 108px;
    }
    .count {
      font-size: 60px;
      font-weight: 800;
      line-height: 56px;
    }
    .place .mono {
      font-size: 16px;
      color: var(--ink2);
    }
    .speed {
      display: flex;
      align-items: center;
      gap: 8px;
    }
    .square {
      min-width: 40px;
      width: 40px;
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
    .speed-slider:focus-within {
      opacity: 1;
    }
    .percent {
      font-size: 26px;
      margin-top: -4px;
    }
    .bpm {
      font-size: 13px;
      color: var(--ink2);
    }
    .column {
      display: grid;
      gap: 8px;
    }
    .wide {
      width: 190px;
    }
    .wide ::ng-deep .mdc-button__label {
      display: flex;
      align-items: center;
      gap: 8px;
      width: 100%;
    }
    .label {
      flex: 1;
      text-align: left;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
      line-height: 17px;
    }
    .label small {
      display: block;
      font-size: 12px;
      line-height: 13px;
      font-weight: 400;
      color: var(--ink2);
    }
    .label small:empty {
      display: none;
    }
    .on {
      box-shadow: inset 0 -4px 0 var(--ink);
    }
    .gap {
      flex: 1;
    }
    .sound {
      width: 190px;
      display: grid;
      justify-items: end;
    }
    .volume {
      position: relative;
      width: 160px;
      height: 36px;
    }
    .volume svg {
      position: absolute;
      left: 14px;
      top: 8px;
      width: 132px;
      height: 20px;
    }
    .volume mat-slider {
      --mat-slider-active-track-color: transparent;
      --mat-slider-inactive-track-color: transparent;
      --mat-slider-handle-color: var(--ink);
      --mat-slider-handle-shape: 3px;
      --mat-slider-handle-width: 10px;
      --mat-slider-handle-height: 20px;
      position: absolute;
      left: 6px;
      top: -6px;
      width: 132px;
      min-width: 132px;
    }
    .level {
      fill: var(--groove2);
    }
    .caution {
      fill: var(--doubt-fill);
    }
    .hint {
      font-size: 13px;
      color: var(--ink3);
    }
    .trouble {
      color: var(--doubt);
    }
    @media (prefers-reduced-motion: reduce) {
      .meter .pointer {
        transition: none;
      }
    }
  `,
})
export class Deck {
  readonly keysWanted = output();

  protected readonly player = inject(Player);
  protected readonly now = inject(Now);
  protected readonly control = inject(DeckControl);
  private readonly song = inject(OpenSongStore);
  protected readonly volume = inject(Store).selectSignal(settingsFeature.selectVolume);

  protected readonly time = computed(() => clock(this.player.nowS()));
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
  protected readonly cents = computed(() => Math.round(this.song.document()?.referenceOffsetCents ?? 0));
  protected readonly pitchWords = computed(() => {
    const cents = this.cents();
    if (cents === 0) return 'Pitch as recorded';
    return `Pitch ${cents > 0 ? '−' : '+'}${Math.abs(cents)} ct`;
  });
  protected readonly loopWords = computed(() => {
    const loop = this.player.loop();
    if (!loop) return 'Loop off';
    const passes = this.now.allPasses();
    const first = passes.find((p) => Math.abs(p.startS - loop.startS) < 0.01);
    const last = passes.find((p) => Math.abs(p.endS - loop.endS) < 0.01);
    if (first && first.sectionId === last?.sectionId) {
      return first.index === last.index
        ? `Pass ${first.index + 1}`
        : `Pass ${first.index + 1}–${last.index + 1}`;
    }
    return `${clock(loop.startS)}–${clock(loop.endS)}`;
  });
  protected readonly roundWords = computed(() =>
    this.player.loop() && this.player.playing() ? `round ${this.player.rounds() + 1}` : '',
  );
  protected readonly ring = RING;
  protected readonly tooLoud = computed(() => this.volume() > CAUTION_VOLUME);
  /** The needle's place in the loop, or in the song. */
  protected readonly ringOffset = computed(() => {
    const loop = this.player.loop() ?? { startS: 0, endS: this.player.durationS() };
    const share =
      loop.endS > loop.startS ? (this.player.nowS() - loop.startS) / (loop.endS - loop.startS) : 0;
    return RING * (1 - Math.min(1, Math.max(0, share)));
  });

  constructor() {
    // A new measurement of the recording's pitch reaches a playback that is corrected by it.
    effect(() => {
      this.cents();
      this.control.applyPitch();
    });
  }
}

/** -50° at the slowest, 50° at the fastest. */
function angleOf(speed: number): number {
  return -50 + (100 * (speed - MIN_SPEED)) / (MAX_SPEED - MIN_SPEED);
}
