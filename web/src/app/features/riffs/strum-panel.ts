/** The chosen strum, large: its chord, where it stands, how sure it is, other ways to play it, and its marks. */
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatListModule } from '@angular/material/list';
import {
  findVoicings,
  soundingNotes,
  type StringFret,
  type Tuning,
  type Voicing,
} from '@wild-needle/core/guitar';
import { barStartsTicks, countSyllable, ticksPerBeat, type Riff, type Strum } from '@wild-needle/core/riff';
import { pitchClassOf, spellPitchClass, type Key } from '@wild-needle/core/theory';
import { ChordName } from '../../shared/chord-name';
import { chordNameOf } from './row-layout';

/** Ways shown; more do not fit and are seldom wanted. */
const WAYS = 4;

function wordsFor({ frets, position }: Voicing): string {
  if (position === null) return 'Open';
  const open = frets.filter((f) => f.fret === 0).length;
  const stopped = frets.filter((f) => f.fret > 0).map((f) => f.fret);
  if (open > 0) return `Fret ${position}, ${open} open`;
  if (stopped.length > 1 && stopped.every((f) => f === stopped[0])) return `One finger, fret ${position}`;
  return `Fret ${position}`;
}

@Component({
  selector: 'wn-strum-panel',
  imports: [ChordName, MatButtonToggleModule, MatListModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (strum(); as s) {
      <div class="top">
        <span class="display name" [class.sounding]="sounding()">
          @if (s.dead) {
            <span>×</span>
          } @else {
            <wn-chord-name [name]="name()" />
          }
        </span>
        <div>
          <h3>{{ place() }}</h3>
          <p class="quiet">{{ s.dead ? 'dead stroke' : s.palmMute ? 'palm mute' : 'ringing' }}</p>
        </div>
      </div>
      <mat-button-toggle-group
        class="trust"
        aria-label="How sure"
        hideSingleSelectionIndicator
        [value]="s.trust"
        (change)="checked.emit()"
      >
        <mat-button-toggle value="guessed" disabled>Guessed</mat-button-toggle>
        <mat-button-toggle value="heard" [disabled]="s.trust !== 'heard'">Heard</mat-button-toggle>
        <mat-button-toggle value="checked">Checked <kbd>C</kbd></mat-button-toggle>
      </mat-button-toggle-group>
      @if (notes().length > 0) {
        <p class="notes">
          <span class="quiet">Sounds</span>
          @for (note of notes(); track note) {
            <wn-chord-name class="display" [name]="note" />
          }
        </p>
        <div class="ways-head">
          <span class="quiet">Ways to play it</span><span><kbd>,</kbd> <kbd>.</kbd></span>
        </div>
        <mat-selection-list [multiple]="false" hideSingleSelectionIndicator aria-label="Ways to play it">
          @for (way of ways(); track way.frets) {
            <mat-list-option [selected]="way.chosen" [value]="way" (click)="played.emit(way.voicing.frets)">
              <span class="way">
                <span class="mono frets">{{ way.frets }}</span>
                <span>{{ way.words }}</span>
              </span>
            </mat-list-option>
          }
        </mat-selection-list>
      }
    } @else {
      <p class="quiet none">No strum is chosen.</p>
    }
    <span class="gap"></span>
    <mat-button-toggle-group
      class="marks"
      multiple
      aria-label="Marks"
      hideMultipleSelectionIndicator
      [value]="marks()"
    >
      <mat-button-toggle value="mute" [disabled]="!strum()" (change)="muteToggled.emit()"
        >Mute <kbd>M</kbd></mat-button-toggle
      >
      <mat-button-toggle value="dead" [disabled]="!strum()" (change)="deadToggled.emit()"
        >Dead <kbd>X</kbd></mat-button-toggle
      >
    </mat-button-toggle-group>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      min-height: 0;
      height: 100%;
      overflow: auto;
      padding: 8px 20px 12px;
      background: var(--sleeve);
      border-left: 1px solid var(--line2);
    }
    .top {
      display: flex;
      gap: 20px;
      align-items: center;
      min-height: 96px;
    }
    .name {
      font-size: 84px;
      font-weight: 800;
      line-height: 92px;
      letter-spacing: -0.01em;
    }
    .name.sounding {
      color: var(--needle);
    }
    h3 {
      font-size: 15px;
      font-weight: 600;
    }
    .trust {
      align-self: start;
    }
    .notes {
      display: flex;
      align-items: baseline;
      gap: 14px;
      margin: 14px 0 10px;
      font-size: 24px;
    }
    .notes .quiet {
      font-size: 14px;
    }
    .ways-head {
      display: flex;
      justify-content: space-between;
      padding-bottom: 4px;
      border-bottom: 1px solid var(--line);
    }
    mat-selection-list {
      --mat-list-list-item-one-line-container-height: 44px;
      --mat-list-list-item-label-text-color: var(--ink);
      --mat-list-list-item-label-text-size: 14px;
      --mat-list-list-item-label-text-tracking: 0;
      padding: 0;
    }
    mat-list-option {
      border-bottom: 1px solid var(--line);
    }
    mat-list-option[aria-selected='true'] {
      box-shadow: inset 4px 0 0 var(--ink);
      font-weight: 600;
    }
    .way {
      display: flex;
      gap: 14px;
      align-items: baseline;
    }
    .frets {
      font-size: 17px;
      min-width: 118px;
      white-space: pre;
    }
    .gap {
      flex: 1;
      min-height: 12px;
    }
    .marks {
      flex: none;
      align-self: stretch;
      --mat-button-toggle-height: 52px;
      --mat-button-toggle-background-color: var(--sleeve);
      --mat-button-toggle-selected-state-background-color: var(--ink);
      --mat-button-toggle-selected-state-text-color: var(--sleeve);
    }
    .marks mat-button-toggle {
      flex: 1;
    }
    .none {
      padding-top: 24px;
    }
    kbd {
      font: 500 11px/18px var(--mono);
      border: 1px solid var(--line2);
      border-radius: 4px;
      padding: 0 5px;
      margin-left: 4px;
      opacity: 0.85;
    }
  `,
})
export class StrumPanel {
  readonly riff = input.required<Riff | null>();
  readonly strum = input.required<Strum | null>();
  readonly tuning = input.required<Tuning>();
  readonly key = input.required<Key | null>();
  readonly sounding = input.required<boolean>();
  readonly checked = output();
  readonly muteToggled = output();
  readonly deadToggled = output();
  readonly played = output<readonly StringFret[]>();

  protected readonly name = computed(() => {
    const strum = this.strum();
    return strum ? chordNameOf(strum, this.tuning(), this.key()) : '';
  });
  private readonly midi = computed(() => {
    const strum = this.strum();
    return strum && !strum.dead ? soundingNotes(this.tuning(), strum.frets) : [];
  });
  /** Sounding notes with their octave in scientific pitch notation: G2 D3. */
  protected readonly notes = computed(() =>
    this.midi().map((m) => spellPitchClass(pitchClassOf(m), this.key()) + String(Math.floor(m / 12) - 1)),
  );
  protected readonly place = computed(() => {
    const [riff, strum] = [this.riff(), this.strum()];
    if (!riff || !strum) return '';
    const starts = barStartsTicks(riff);
    const bar = starts.findLastIndex((start) => start <= strum.startTicks);
    const syllable = countSyllable(strum.startTicks - starts[bar], riff.bars[bar].unit);
    const beat = Math.floor((strum.startTicks - starts[bar]) / ticksPerBeat(riff.bars[bar].unit)) + 1;
    return `Bar ${bar + 1}, beat ${beat}${syllable === String(beat) ? '' : ` ${syllable}`}`;
  });
  protected readonly marks = computed(() => {
    const strum = this.strum();
    return [...(strum?.palmMute ? ['mute'] : []), ...(strum?.dead ? ['dead'] : [])];
  });
  protected readonly ways = computed(() => {
    const [tuning, strum] = [this.tuning(), this.strum()];
    const strings = tuning.stringsMidi.length;
    const written = strum?.frets.map((f) => `${f.string}:${f.fret}`).join() ?? '';
    const all = findVoicings(this.midi(), tuning);
    const current = all.find((v) => v.frets.map((f) => `${f.string}:${f.fret}`).join() === written);
    const shown = all.slice(0, WAYS);
    if (current && !shown.includes(current)) shown[WAYS - 1] = current;
    return shown.map((voicing) => {
      const cells = new Array<string>(strings).fill('·');
      for (const { string, fret } of voicing.frets) cells[strings - string] = String(fret);
      return { voicing, chosen: voicing === current, frets: cells.join(' '), words: wordsFor(voicing) };
    });
  });

  /** The way `step` places after the written one. */
  neighbour(step: 1 | -1): readonly StringFret[] | null {
    const ways = this.ways();
    if (ways.length === 0) return null;
    const at = ways.findIndex((w) => w.chosen);
    return ways[(Math.max(0, at) + step + ways.length) % ways.length].voicing.frets;
  }
}
