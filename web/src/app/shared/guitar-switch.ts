/** Whose part is shown, in a song with two guitars. */
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import type { GuitarNumber } from '@wild-needle/core/riff';

@Component({
  selector: 'wn-guitar-switch',
  imports: [MatButtonToggleModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-button-toggle-group
      aria-label="Guitar"
      hideSingleSelectionIndicator
      [value]="guitar()"
      (change)="chosen.emit($event.value)"
    >
      <mat-button-toggle [value]="1">Guitar 1</mat-button-toggle>
      <mat-button-toggle [value]="2">Guitar 2 <kbd>\`</kbd></mat-button-toggle>
    </mat-button-toggle-group>
  `,
})
export class GuitarSwitch {
  readonly guitar = input.required<GuitarNumber>();
  readonly chosen = output<GuitarNumber>();
}
