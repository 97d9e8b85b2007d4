/** What measuring again suggests for the shown riff, one strum after the other: taken, or left as it is written. */
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { HearAnew } from './hear-anew';
import { RIFF_KEYS } from '../keys/riff-keys';

@Component({
  selector: 'wn-heard-anew-strip',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'group', 'aria-label': 'Measured again' },
  template: `
    @if (anew.asked(); as asked) {
      <button class="words" title="Choose this strum" (click)="anew.show()">
        <b>{{ asked.words }}</b>
        <span class="quiet">{{ asked.measured }}</span>
      </button>
      <button mat-flat-button (click)="anew.take()">
        Take it <kbd>{{ keys.takeAnew.caps }}</kbd>
      </button>
      <button mat-stroked-button (click)="anew.leave()">
        Leave it <kbd>{{ keys.leaveAnew.caps }}</kbd>
      </button>
      @if (asked.count > 1) {
        <button mat-stroked-button (click)="anew.takeAll()">Take all {{ asked.count }}</button>
      }
    } @else {
      <span class="words quiet">Measured again, to take or to leave:</span>
      @for (riff of anew.elsewhere(); track riff.id) {
        <button mat-stroked-button (click)="song.selectRiff(riff.id)">
          {{ riff.count }} in riff {{ riff.letter }}
        </button>
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 8px;
      height: 44px;
      padding: 0 8px 0 0;
      border-block: 1px solid var(--line2);
      white-space: nowrap;
    }
    .words {
      flex: 1;
      min-width: 0;
      height: 32px;
      padding: 0 12px;
      border: 0;
      background: none;
      color: inherit;
      font: inherit;
      text-align: left;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    button.words {
      cursor: pointer;
    }
    .mdc-button {
      height: 34px;
      padding: 0 12px;
    }
    .words .quiet {
      margin-left: 12px;
    }
  `,
})
export class HeardAnewStrip {
  protected readonly song = inject(OpenSongStore);
  protected readonly anew = inject(HearAnew);
  protected readonly keys = RIFF_KEYS;
}
