/** The keys of the open step and of the deck: lies beside the music, not over it. */
import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { MatIconButton } from '@angular/material/button';
import { Router } from '@angular/router';
import { Icon } from '../shared/icon';

type Keys = readonly (readonly [keys: string, does: string])[];

const DECK: Keys = [
  ['Space', 'Play, stop'],
  ['Home', 'To the start of the loop'],
  ['L', 'Loop on, off'],
  ['[ ]', 'Loop start, end at the needle'],
  ['( )', 'Loop a beat back, on'],
  ['{ }', 'Loop a beat shorter, longer'],
  ['Wheel on the strip', 'Zoom, down to single samples; with Shift scroll'],
  ['Shift drag', 'Loop a stretch of the strip; with Alt off the beats'],
  ['A', 'Recording, my tab, one in each ear'],
  ['E', 'Ears: both, left, right, centre, sides, place'],
  ['F', 'Focus: full, bass, body, edge, fewer drums'],
  ['− =', 'Slower, faster by 5 %'],
  ['W', 'Full speed, slow'],
  ['N', 'Click on the beats'],
  ['< >', 'Click softer, louder'],
  ['K', 'Count a bar in'],
  ['P', 'Pitch corrected to A = 440'],
  ['_ |', 'A semitone lower, higher'],
  ['Q', 'Quiet'],
  [':', 'Foot pedals'],
  ['?', 'This card'],
];

const SCREENS: Readonly<Record<string, Keys>> = {
  riffs: [
    ['← →', 'Strum before, after'],
    ['↑ ↓', 'Pass before, after'],
    ['0–9', 'Fret on the chosen string'],
    ['Tab', 'Next string, while the tab has the focus'],
    ['Shift 1–8', 'Two strings, three, fifth below, flat five, octave, sus2, sus4, one finger'],
    ['Alt 1–9', 'Shapes of your own'],
    ['⌫, Del', 'Take the string, the strum out'],
    ['Enter', 'Strike the chord once more behind it'],
    ['Shift Enter', 'The whole bar once more in the next'],
    ['I, Shift I', 'To the place an eighth on, back'],
    ['J', 'Tap the rhythm with Space'],
    ['Esc', 'Let go of the strum: the neck follows the needle'],
    [', .', 'Other way to play it'],
    ['Shift ← →', 'Choose several; Ctrl A all'],
    ['Ctrl ← →', 'Move by a sixteenth'],
    ['Ctrl ↑ ↓', 'Move along the neck'],
    ['Alt ↑ ↓', 'Move across the strings'],
    ['Alt ← →', 'Sound shorter, longer'],
    ['Ctrl C, V', 'Copy, put in'],
    ['M X /', 'Palm mute, dead stroke, rest'],
    ['R T \\', 'Let ring, short, tie'],
    ['S H', 'Slide, hammer-on or pull-off'],
    ['Shift S', 'Slide in, slide out'],
    ['U Z', 'Bend, vibrato'],
    ["O B '", 'Harmonic, bar, accent'],
    ['D', 'Down, up, as the grid says'],
    ['C', 'Checked by ear'],
    ['F2', 'Note on the strum'],
    ['V Y', 'Keep as variation, same riff'],
    ['G', 'Hear the loop or the song again'],
    [';', 'Chords, strokes, all'],
    ['` ~', 'Other guitar, give it this strum'],
    ['Ctrl Z, Ctrl Y', 'Undo, redo'],
  ],
  sections: [
    ['↑ ↓', 'Section before, after'],
    ['I', 'Split at the needle'],
    ['J', 'Join with the next'],
    ['D H', 'Double, half the tempo'],
    ['O', 'The one a beat later; with Shift earlier'],
    ['B', 'Bar line to the needle'],
    ['X', 'Free time in the bar here, or bars again'],
    ['T', 'Tap along'],
    ['Ctrl Z, Ctrl Y', 'Undo, redo'],
  ],
  tuning: [
    ['1', 'Correct the recording'],
    ['2', 'Retune the guitar'],
    ['G', 'Sound all strings'],
    ['Ctrl Z, Ctrl Y', 'Undo, redo'],
  ],
};

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
  `,
})
export class KeyCard {
  readonly closed = output();
  /** Of the step that is open, then of the deck. */
  protected readonly keys = [...(SCREENS[inject(Router).url.split('/').pop() ?? ''] ?? []), ...DECK];
}
