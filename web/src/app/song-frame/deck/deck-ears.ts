/** Which ears and which part of the sound: two rows of words, and how far the song has been brought there. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { EARS, FOCUSES, type Ears, type Focus } from '../../recording/hearing';
import { InstrumentsStore } from '../../open-song/instruments.store';
import { Player } from '../../transport/player';
import { DeckControl } from '../../transport/deck-control';
import { DECK_KEYS } from '../../transport/deck-keys';

const EAR_WORDS: Readonly<Record<Ears, string>> = {
  both: 'Both',
  left: 'Left',
  right: 'Right',
  centre: 'Centre',
  sides: 'Sides',
  place: 'One spot',
};
const FOCUS_WORDS: Readonly<Record<Focus, string>> = {
  full: 'Full',
  bass: 'Bass',
  body: 'Mids',
  edge: 'Highs',
  drums: 'Fewer drums',
};

@Component({
  selector: 'wn-deck-ears',
  imports: [MatButton, MatButtonToggleModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button mat-stroked-button class="compact" [disabled]="isOff()" (click)="control.nextEars()">
      {{ earWords[player.hearing().ears] }}{{ player.hearing().ears === 'both' ? ' ears' : '' }}
      <kbd>{{ keys.ears.caps }}</kbd>
    </button>
    <button mat-stroked-button class="compact" [disabled]="isOff()" (click)="control.nextFocus()">
      {{ focusWords[player.hearing().focus] }} <kbd>{{ keys.focus.caps }}</kbd>
    </button>
    <span class="quiet"
      >Ears <kbd>{{ keys.ears.caps }}</kbd></span
    >
    <mat-button-toggle-group
      class="ears"
      aria-label="Ears"
      hideSingleSelectionIndicator
      [disabled]="isOff()"
      [value]="player.hearing().ears"
      (change)="player.setHearing({ ...player.hearing(), ears: $event.value })"
    >
      @for (ears of earsOffered; track ears) {
        <mat-button-toggle [value]="ears">{{ earWords[ears] }}</mat-button-toggle>
      }
    </mat-button-toggle-group>
    <span class="quiet"
      >Focus <kbd>{{ keys.focus.caps }}</kbd></span
    >
    <mat-button-toggle-group
      aria-label="Focus"
      hideSingleSelectionIndicator
      [disabled]="isOff()"
      [value]="player.hearing().focus"
      (change)="player.setHearing({ ...player.hearing(), focus: $event.value })"
    >
      @for (focus of focusesOffered; track focus) {
        <mat-button-toggle [value]="focus">{{ focusWords[focus] }}</mat-button-toggle>
      }
    </mat-button-toggle-group>
    <button
      mat-stroked-button
      class="parts"
      [class.on]="instruments.isShown()"
      [attr.aria-pressed]="instruments.isShown()"
      [disabled]="isOff() || instruments.recordingId() === null"
      (click)="control.showInstruments(!instruments.isShown())"
    >
      Parts
    </button>
    <div
      class="done"
      role="progressbar"
      aria-label="Song brought to these ears"
      [attr.aria-valuenow]="percent()"
      [class.whole]="percent() === 100"
    >
      <i [style.width.%]="percent()"></i>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: auto auto auto;
      align-items: center;
      gap: 8px 6px;
      position: relative;
      --mat-button-toggle-height: 40px;
      --mat-button-toggle-label-text-size: 13px;
    }
    .compact {
      display: none;
      height: 40px;
      padding: 0 10px;
      white-space: nowrap;
    }
    :host-context(wn-deck.folded) {
      .compact {
        display: inline-flex;
      }
      .quiet,
      .parts,
      mat-button-toggle-group {
        display: none;
      }
      .done {
        width: 100%;
      }
    }
    .quiet {
      text-align: right;
      line-height: 18px;
    }
    .quiet kbd {
      display: block;
      margin: 0 0 0 auto;
      width: fit-content;
    }
    mat-button-toggle-group {
      width: 252px;
    }
    mat-button-toggle-group.ears {
      grid-column: 2 / 4;
      width: 316px;
    }
    .parts {
      height: 40px;
      min-width: 0;
      padding: 0 9px;
      font-size: 13px;
    }
    .parts.on {
      box-shadow: inset 0 -4px 0 var(--ink);
    }
    mat-button-toggle {
      flex: auto;
    }
    ::ng-deep wn-deck-ears .mat-button-toggle-appearance-standard .mat-button-toggle-label-content {
      padding: 0 4px;
    }
    .done {
      position: absolute;
      right: 0;
      bottom: -7px;
      width: 316px;
      height: 3px;
      background: var(--line);
    }
    .done i {
      display: block;
      height: 100%;
      background: var(--ink);
    }
    .done.whole {
      visibility: hidden;
    }
  `,
})
export class DeckEars {
  protected readonly keys = DECK_KEYS;
  protected readonly player = inject(Player);
  protected readonly control = inject(DeckControl);
  protected readonly instruments = inject(InstrumentsStore);
  protected readonly earsOffered = EARS;
  protected readonly focusesOffered = FOCUSES;
  protected readonly earWords = EAR_WORDS;
  protected readonly focusWords = FOCUS_WORDS;
  protected readonly isOff = computed(() => this.player.status() !== 'ready');
  protected readonly percent = computed(() => Math.floor(100 * this.player.hearingShare()));
}
