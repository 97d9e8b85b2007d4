/** The keys of the open step and of the deck: lies beside the music, not over it. */
import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatIconButton } from '@angular/material/button';
import { Icon } from '../shared/icon';
import { ScreenKeys } from '../shared/screen-keys';
import { DECK_KEYS } from '../transport/deck-keys';

@Component({
  selector: 'wn-key-card',
  imports: [Icon, MatIconButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <aside aria-label="Keys of this screen">
      <header>
        <h2 class="display">Keys</h2>
        <button mat-icon-button aria-label="Close" (click)="closed.emit()"><wn-icon name="close" /></button>
      </header>
      <dl>
        @for (row of rows(); track row.caps) {
          <div>
            <dt class="mono">{{ row.caps }}</dt>
            <dd>{{ row.does }}</dd>
          </div>
        }
      </dl>
      <p>
        <a href="/guide.txt" target="_blank" rel="noopener"
          >The guide: from a record to a sheet in twelve steps</a
        >
      </p>
      <p class="quiet">Warm up before wide stretches, rest when it hurts.</p>
    </aside>
  `,
  styles: `
    // No box of its own: it would take a row from the screen that it lies beside.
    :host {
      display: contents;
    }
    aside {
      position: absolute;
      right: 0;
      top: 0;
      bottom: 0;
      width: 344px;
      z-index: 3;
      overflow: auto;
      padding: 12px 24px;
      background: var(--sleeve);
      border-left: 1px solid var(--line2);
    }
    header {
      display: flex;
      justify-content: space-between;
      align-items: center;
    }
    h2 {
      font-size: 24px;
    }
    dl {
      margin: 8px 0;
    }
    dl div {
      display: grid;
      grid-template-columns: 96px 1fr;
      gap: 12px;
      padding: 3px 0;
      border-bottom: 1px solid var(--line);
    }
    dt {
      font-size: 13px;
    }
    dd {
      margin: 0;
    }
    a {
      color: inherit;
    }
  `,
})
export class KeyCard {
  readonly closed = output();
  private readonly screen = inject(ScreenKeys);
  /** Of the step that is open, then of the deck. */
  protected readonly rows = computed(() => [
    ...Object.values(this.screen.shown()),
    ...Object.values(DECK_KEYS),
  ]);
}
