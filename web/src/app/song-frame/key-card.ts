/** The keys of the Riffs screen and the deck: lies beside the music, not over it. */
import { ChangeDetectionStrategy, Component, output } from '@angular/core';
import { MatIconButton } from '@angular/material/button';
import { Icon } from '../shared/icon';

const KEYS: readonly (readonly [keys: string, does: string])[] = [
  ['Space', 'Play, stop'],
  ['Home', 'To the start of the loop'],
  ['L', 'Loop on, off'],
  ['[ ]', 'Loop start, end at the needle'],
  ['( )', 'Loop a beat back, on'],
  ['{ }', 'Loop a beat shorter, longer'],
  ['A', 'Recording, my tab, one in each ear'],
  ['E', 'Ears: both, left, right, centre, sides, place'],
  ['F', 'Focus: full, bass, body, edge, fewer drums'],
  ['W', 'Full speed, slow'],
  ['#', 'Foot pedals'],
  ['N', 'Click on the beats'],
  ['< >', 'Click softer, louder'],
  ['Shift drag', 'Loop a stretch of the strip; with Alt off the beats'],
  ['K', 'Count a bar in'],
  ['− =', 'Slower, faster by 5 %'],
  ['P', 'Pitch corrected to A = 440'],
  ['Q', 'Quiet'],
  ['← →', 'Strum before, after'],
  ['↑ ↓', 'Pass before, after'],
  ['0–9', 'Fret on the chosen string'],
  ['Tab', 'Next string, while the tab has the focus'],
  ['⌫', 'Take the string out'],
  [', .', 'Other way to play it'],
  ['M', 'Palm mute'],
  ['X', 'Dead stroke'],
  ['C', 'Checked by ear'],
  ['G', 'Hear the loop or the song again'],
  ['Ctrl Z, Ctrl Y', 'Undo, redo'],
  ['?', 'This card'],
];

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
        @for (row of keys; track row[0]) {
          <div>
            <dt class="mono">{{ row[0] }}</dt>
            <dd>{{ row[1] }}</dd>
          </div>
        }
      </dl>
      <p class="quiet">Warm up before wide stretches, rest when it hurts.</p>
    </aside>
  `,
  styles: `
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
      display: flex;
      gap: 12px;
      padding: 3px 0;
      border-bottom: 1px solid var(--line);
    }
    dt {
      width: 110px;
      font-size: 13px;
    }
    dd {
      margin: 0;
    }
  `,
})
export class KeyCard {
  readonly closed = output();
  protected readonly keys = KEYS;
}
