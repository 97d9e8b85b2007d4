/** How the stair goes: from where to where, how high a step is, and what leads a step up or back. */
import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { Store } from '@ngrx/store';
import { DEFAULT_STAIR, type StairSettings } from '@wild-needle/core/practice';
import { settingsActions } from '../../../state/settings/settings.actions';
import { settingsFeature } from '../../../state/settings/settings.reducer';

interface Field {
  readonly key: keyof StairSettings;
  readonly label: string;
  readonly least: number;
  readonly most: number;
  readonly step: number;
}

@Component({
  selector: 'wn-stair-form',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 class="display">The stair</h2>
    @for (field of fields(); track field.key) {
      <label>
        <span>{{ field.label }}</span>
        <input
          type="number"
          [min]="field.least"
          [max]="field.most"
          [step]="field.step"
          [value]="stair()[field.key]"
          (change)="change(field, $any($event.target).valueAsNumber, $any($event.target))"
        />
      </label>
    }
    <p>
      <button mat-stroked-button (click)="reset()">As it was</button>
      <button mat-flat-button (click)="closed.emit()">Done</button>
    </p>
  `,
  styles: `
    h2 {
      font-size: 26px;
      font-weight: 600;
    }
    label {
      display: flex;
      align-items: center;
      justify-content: space-between;
      height: 30px;
      font-size: 14px;
    }
    input {
      width: 64px;
      height: 26px;
      padding: 0 6px;
      border: 1px solid var(--edge);
      border-radius: 6px;
      background: var(--sleeve);
      color: var(--ink);
      text-align: right;
    }
    p {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      margin-top: 8px;
    }
    button {
      height: 34px;
    }
  `,
})
export class StairForm {
  private readonly store = inject(Store);
  protected readonly stair = this.store.selectSignal(settingsFeature.selectStair);
  readonly closed = output();

  protected readonly fields = computed((): readonly Field[] => {
    const { fromPercent, toPercent } = this.stair();
    return [
      { key: 'fromPercent', label: 'From, per cent', least: 25, most: toPercent - 1, step: 5 },
      { key: 'byPercent', label: 'A step, per cent', least: 1, most: 25, step: 1 },
      { key: 'toPercent', label: 'To, per cent', least: fromPercent + 1, most: 150, step: 5 },
      { key: 'cleanRounds', label: 'Clean rounds for a step up', least: 1, most: 10, step: 1 },
      { key: 'slipsBack', label: 'Slips in a row for a step back', least: 0, most: 10, step: 1 },
    ];
  });

  protected change({ key, least, most }: Field, value: number, input: HTMLInputElement): void {
    const now = this.stair()[key];
    const kept = Number.isFinite(value) ? Math.round(Math.min(most, Math.max(least, value))) : now;
    input.value = String(kept);
    if (kept !== now) this.put({ ...this.stair(), [key]: kept });
  }

  protected reset(): void {
    this.put(DEFAULT_STAIR);
  }

  private put(stair: StairSettings): void {
    this.store.dispatch(settingsActions.stairChanged({ stair }));
  }
}
