/** What plays: the recording, the written tab, or one in each ear. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { SOURCES, type Source } from '../../recording/hearing';
import { Player } from '../../transport/player';
import { DeckControl } from '../../transport/deck-control';
import { DECK_KEYS } from '../../transport/deck-keys';

const SOURCE_WORDS: Readonly<Record<Source, string>> = {
  recording: 'Recording',
  tab: 'My tab',
  each: 'Each ear',
};

@Component({
  selector: 'wn-deck-source',
  imports: [MatButtonToggleModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-button-toggle-group
      aria-label="Source"
      hideSingleSelectionIndicator
      [disabled]="isOff()"
      [value]="player.hearing().source"
      (change)="control.setSource($event.value)"
    >
      @for (source of offered; track source) {
        <mat-button-toggle [value]="source">{{ words[source] }}</mat-button-toggle>
      }
    </mat-button-toggle-group>
    <kbd>{{ keys.source.caps }}</kbd>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 8px;
      --mat-button-toggle-height: 40px;
      --mat-button-toggle-label-text-size: 13px;
    }
    ::ng-deep wn-deck-source .mat-button-toggle-appearance-standard .mat-button-toggle-label-content {
      padding: 0 7px;
    }
  `,
})
export class DeckSource {
  protected readonly keys = DECK_KEYS;
  protected readonly player = inject(Player);
  protected readonly control = inject(DeckControl);
  protected readonly offered = SOURCES;
  protected readonly words = SOURCE_WORDS;
  protected readonly isOff = computed(() => this.player.status() !== 'ready');
}
