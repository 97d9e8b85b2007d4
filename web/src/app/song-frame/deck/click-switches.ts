/** The click on the recording's beats, and a bar counted before playback starts. */
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { Player } from '../../transport/player';
import { OpenSongStore } from '../../open-song/open-song.store';
import { DeckControl } from '../../transport/deck-control';
import { DECK_KEYS } from '../../transport/deck-keys';

@Component({
  selector: 'wn-click-switches',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      mat-stroked-button
      [class.on]="player.clicking()"
      [attr.aria-pressed]="player.clicking()"
      [disabled]="!song.document()?.grid?.beatsS?.length"
      (click)="control.toggleClick()"
    >
      Click <kbd>{{ keys.click.caps }}</kbd>
      <i class="level" [style.width.%]="100 * control.clickLevel()"></i>
    </button>
    <button
      mat-stroked-button
      [class.on]="control.countIn()"
      [attr.aria-pressed]="control.countIn()"
      (click)="control.toggleCountIn()"
    >
      Count <kbd>{{ keys.countIn.caps }}</kbd>
    </button>
  `,
  styles: `
    :host {
      display: flex;
      gap: 6px;
    }
    button {
      padding: 0 8px;
      min-width: 0;
      white-space: nowrap;
    }
    .level {
      position: absolute;
      left: 0;
      bottom: -9px;
      height: 2px;
      background: var(--groove2);
    }
    .on {
      box-shadow: inset 0 -4px 0 var(--ink);
    }
  `,
})
export class ClickSwitches {
  protected readonly keys = DECK_KEYS;
  protected readonly player = inject(Player);
  protected readonly control = inject(DeckControl);
  protected readonly song = inject(OpenSongStore);
}
