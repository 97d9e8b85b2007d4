/** Volume as a wedge that turns amber where loops tire the ears. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatSliderModule } from '@angular/material/slider';
import { Store } from '@ngrx/store';
import { EarRest } from '../../transport/ear-rest';
import { Player } from '../../transport/player';
import { settingsFeature } from '../../state/settings/settings.reducer';
import { DeckControl } from '../../transport/deck-control';

/** From here on the wedge turns amber. */
const CAUTION_VOLUME = 0.75;

@Component({
  selector: 'wn-volume-wedge',
  imports: [MatSliderModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="volume">
      <svg viewBox="0 0 132 20" preserveAspectRatio="none" aria-hidden="true">
        <path class="level" d="M0 12 132 4v14Z" />
        <path class="caution" d="M99 6 132 4v14l-33-2Z" />
      </svg>
      <mat-slider class="on-wedge" [min]="0" [max]="100" [step]="1">
        <input
          matSliderThumb
          aria-label="Volume"
          [value]="volume() * 100"
          (valueChange)="control.setVolume($event / 100)"
        />
      </mat-slider>
    </div>
    <span class="hint" role="status" [class.trouble]="isCaution()">{{ hint() }}</span>
  `,
  styles: `
    :host {
      width: 112px;
      display: grid;
      justify-items: end;
    }
    .volume {
      position: relative;
      width: 112px;
      height: 24px;
    }
    .volume svg {
      position: absolute;
      left: 8px;
      top: 2px;
      width: 100px;
      height: 20px;
    }
    .volume mat-slider {
      width: 100px;
      min-width: 100px;
    }
    .level {
      fill: var(--groove2);
    }
    .caution {
      fill: var(--doubt-fill);
    }
    .hint {
      font-size: 13px;
      line-height: 16px;
      color: var(--ink3);
    }
    .trouble {
      color: var(--doubt);
    }
  `,
})
export class VolumeWedge {
  protected readonly player = inject(Player);
  protected readonly control = inject(DeckControl);
  protected readonly volume = inject(Store).selectSignal(settingsFeature.selectVolume);
  private readonly rest = inject(EarRest);
  private readonly tooLoud = computed(() => this.volume() > CAUTION_VOLUME);
  private readonly restDue = computed(() => this.rest.minutesLeft() === 0);
  protected readonly isCaution = computed(
    () => this.tooLoud() || this.restDue() || this.player.status() === 'failed',
  );
  protected readonly hint = computed(() => {
    if (this.player.status() === 'loading') return 'Reading the sound …';
    if (this.player.status() === 'failed') return "The sound can't be played";
    if (this.restDue()) return 'Rest your ears a while';
    if (this.tooLoud()) return 'Loud: spare your ears';
    return this.player.playing() ? `Rest ears in ${this.rest.minutesLeft()} min` : 'Q for quiet';
  });
}
