/** Undo and redo, as every screen with a history has them. */
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { Icon } from './icon';

@Component({
  selector: 'wn-history-buttons',
  imports: [Icon, MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button mat-stroked-button [disabled]="!canUndo()" aria-label="Undo" (click)="undone.emit()">
      <wn-icon name="undo" />
    </button>
    <button mat-stroked-button [disabled]="!canRedo()" aria-label="Redo" (click)="redone.emit()">
      <wn-icon name="redo" />
    </button>
  `,
  styles: `
    :host {
      display: flex;
      flex: none;
      gap: 6px;
    }
    button {
      min-width: 44px;
      padding: 0 8px;
    }
  `,
})
export class HistoryButtons {
  readonly canUndo = input.required<boolean>();
  readonly canRedo = input.required<boolean>();
  readonly undone = output();
  readonly redone = output();
}
