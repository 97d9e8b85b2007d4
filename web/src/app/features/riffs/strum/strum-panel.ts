/** The chosen strum, large: its chord, where it stands, how sure it is, what sounds there, ways to play it, its marks. */
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatMenuModule } from '@angular/material/menu';
import type { StringFret } from '@wild-needle/core/guitar';
import { lostNotes, markWords, strumNotes, TEXT_LIMITS, type MarkCommand } from '@wild-needle/core/riff';
import { nameNotes } from '@wild-needle/core/theory';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { behindPaint } from '../../../shared/behind-paint';
import { ChordName } from '../../../shared/chord-name';
import { VerdictMark } from '../../../shared/verdict-mark';
import { placeWords } from '../../../shared/difference-words';
import { capital } from '../../../shared/words';
import { MarksPad } from './marks-pad';
import { Neck } from './neck';
import type { PanelSize } from '../view/lane';
import { RiffView } from '../view/riff-view';
import { chordNameOf } from '../../../tab/row-layout';
import { FIRST_HEARD_NOTE, SOUNDS, StrumStudy } from './strum-study';

import { FingeringList } from './fingering-list';
import { noteName, noteNames } from '../../../shared/note-name';
import { RIFF_KEYS } from '../keys/riff-keys';

/** Under this probability a written note is not heard. */
const NOT_HEARD = 0.3;
/** Notes that sound without being written are listed from here on. */
const EXTRA = 0.6;

/** From here on the root is sure, and what stands on it is open where that is less sure by so much. */
const SURE_ROOT = 0.75;
const OPEN_KIND = 0.2;

@Component({
  selector: 'wn-strum-panel',
  imports: [
    ChordName,
    FingeringList,
    MarksPad,
    MatButton,
    MatButtonToggleModule,
    MatMenuModule,
    Neck,
    VerdictMark,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (shown().strum; as s) {
      <div class="top">
        <span class="display name" [class.sounding]="sounding()" [class.long]="name().length > 4">
          @if (s.dead) {
            <span>×</span>
          } @else if (s.rest) {
            <span>–</span>
          } @else {
            <wn-chord-name [name]="name() || '?'" />
          }
        </span>
        <div class="facts">
          <h3>{{ place() }}</h3>
          <p class="quiet">{{ words() }}</p>
        </div>
      </div>
      <mat-button-toggle-group
        class="trust"
        aria-label="How sure"
        hideSingleSelectionIndicator
        [value]="s.trust"
        (change)="checked.emit()"
      >
        @if (s.trust === 'doubtful') {
          <mat-button-toggle value="doubtful" disabled>Doubtful</mat-button-toggle>
        } @else if (size() === 'wide' || s.trust === 'guessed') {
          <mat-button-toggle value="guessed" disabled>Guessed</mat-button-toggle>
        }
        @if (size() === 'wide' || s.trust === 'heard' || s.trust === 'checked') {
          <mat-button-toggle value="heard" [disabled]="s.trust !== 'heard'">Heard</mat-button-toggle>
        }
        <mat-button-toggle value="checked"
          >Checked <kbd>{{ keys.check.caps }}</kbd></mat-button-toggle
        >
      </mat-button-toggle-group>
      @if (sureWords(); as sure) {
        <p class="quiet sure">{{ sure }}</p>
      }
      <p class="quiet head">
        {{ size() === 'wide' ? 'Pitches ' + ofWhat() + ' here, on the neck' : 'Pitches here, on the neck' }}
      </p>
      <wn-neck
        [tuning]="view.tuning()"
        [heard]="shown().heard"
        [frets]="s.frets"
        [tried]="study.shownWay()?.frets ?? null"
        [key]="view.key()"
        [lastFret]="size() === 'wide' ? 24 : 12"
        (pressed)="pressed.emit($event)"
      />
      <p class="notes">
        @for (note of notes(); track note.name) {
          <span [title]="note.title">
            <wn-verdict [verdict]="note.verdict" /><wn-chord-name class="display" [name]="note.name" />
          </span>
        }
      </p>
      <wn-fingering-list
        [written]="s.frets"
        [isHeard]="shown().heard !== null"
        [isNarrow]="size() !== 'wide'"
        (played)="played.emit($event)"
      />
      <input
        #note
        class="note"
        type="text"
        [maxLength]="noteLimit"
        placeholder="Note (F2)"
        aria-label="Note on this strum"
        [value]="s.note"
        (change)="noted.emit(note.value)"
        (keydown.enter)="note.blur()"
      />
    } @else {
      <div class="top">
        <p class="quiet">
          {{
            shown().placeTicks === null
              ? 'No strum is chosen.'
              : 'Nothing is written here yet: type a fret, or a shape with Shift 1 to 8.'
          }}
        </p>
      </div>
      <p class="quiet head">
        Pitches {{ ofWhat() }} {{ shown().listenedTo === 'place' ? 'at this place' : 'at the needle' }}
      </p>
      <wn-neck
        [tuning]="view.tuning()"
        [heard]="shown().heard"
        [frets]="[]"
        [tried]="null"
        [key]="view.key()"
        [lastFret]="size() === 'wide' ? 24 : 12"
        (pressed)="pressed.emit($event)"
      />
      <p class="notes">
        @for (note of soundingNotes(); track note) {
          <wn-chord-name class="display" [name]="note" />
        }
      </p>
      <span class="gap"></span>
    }
    @if (size() === 'wide') {
      <wn-marks-pad [strum]="shown().strum" (pressed)="marked.emit($event)" />
    } @else {
      <button mat-stroked-button class="marks" [matMenuTriggerFor]="marks">
        Marks <span class="quiet">{{ markedWords() || 'none' }}</span>
      </button>
      <mat-menu #marks="matMenu" class="marks-menu">
        <wn-marks-pad
          [strum]="shown().strum"
          (click)="$event.stopPropagation()"
          (pressed)="marked.emit($event)"
        />
      </mat-menu>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      min-height: 0;
      height: 100%;
      overflow: auto;
      contain: strict;
      padding: 4px 16px 10px;
      background: var(--sleeve);
      border-left: 1px solid var(--line2);
    }
    :host(.closed) {
      display: none;
    }
    .marks {
      flex: none;
      justify-content: flex-start;
    }
    .marks .quiet {
      margin-left: 8px;
    }
    :host(.narrow) .name {
      font-size: 46px;
    }
    :host(.narrow) .facts p {
      max-height: 34px;
    }
    .top {
      display: flex;
      gap: 16px;
      align-items: center;
      min-height: 68px;
    }
    .name {
      font-size: 66px;
      font-weight: 800;
      line-height: 66px;
      letter-spacing: -0.01em;
    }
    .name.long {
      font-size: 46px;
    }
    .name.sounding {
      color: var(--needle);
    }
    .facts p {
      line-height: 17px;
      max-height: 51px;
      overflow: hidden;
    }
    h3 {
      font-size: 15px;
      font-weight: 600;
    }
    .trust {
      flex: none;
      align-self: start;
      --mat-button-toggle-height: 32px;
    }
    .sure {
      margin: 4px 0 0;
      font-size: 13px;
      line-height: 16px;
    }
    .head {
      font-size: 13px;
      line-height: 16px;
      margin: 6px 0 2px;
    }
    .notes {
      display: flex;
      flex: none;
      align-items: center;
      gap: 14px;
      height: 26px;
      font-size: 20px;
      overflow: hidden;
    }
    .notes span {
      display: inline-flex;
      align-items: center;
      gap: 3px;
    }
    .note {
      flex: none;
      height: 30px;
      margin: 6px 0;
      padding: 0 8px;
      border: 1px solid var(--edge);
      border-radius: 8px;
      background: none;
    }
    .gap {
      flex: 1;
    }
    kbd {
      margin-left: 4px;
      color: color-mix(in srgb, currentColor 85%, transparent);
    }
  `,
})
export class StrumPanel {
  protected readonly keys = RIFF_KEYS;
  protected readonly noteLimit = TEXT_LIMITS.note;
  protected readonly song = inject(OpenSongStore);
  protected readonly view = inject(RiffView);
  protected readonly study = inject(StrumStudy);
  protected readonly ofWhat = computed(() =>
    this.study.ofGuitars() ? 'of the guitars' : 'in the recording',
  );
  private readonly noteField = viewChild<ElementRef<HTMLInputElement>>('note');

  readonly size = input.required<PanelSize>();
  readonly sounding = input.required<boolean>();
  readonly checked = output();
  readonly marked = output<MarkCommand>();
  readonly played = output<readonly StringFret[]>();
  /** A place on the neck. */
  readonly pressed = output<StringFret>();
  readonly noted = output<string>();

  /** A frame behind the tab, which the eye is on. */
  protected readonly shown = behindPaint(
    computed(() => ({
      riff: this.song.riff(),
      strum: this.view.chosenStrum(),
      chosen: this.song.selectedIds().size,
      placeTicks: this.song.placeTicks(),
      heard: this.study.heard(),
      listenedTo: this.study.listenedTo(),
    })),
  );
  protected readonly name = computed(() => {
    const { strum } = this.shown();
    return strum ? chordNameOf(strum, this.view.tuning(), this.view.key()) : '';
  });
  protected readonly words = computed(() => {
    const { strum, chosen: many } = this.shown();
    if (!strum) return '';
    const chord = nameNotes(strumNotes(strum, this.view.tuning()), this.view.key()).words;
    const marks = markWords(strum);
    const lost = lostNotes(strum, this.view.tuning());
    return [
      many > 1 ? `${many} strums chosen` : '',
      lost.length > 0 ? `${noteNames(lost, this.view.key())} lost in this tuning` : '',
      chord,
      ...marks,
    ]
      .filter((w) => w !== '')
      .join(', ');
  });
  /** How far what was not checked can be relied on. */
  protected readonly sureWords = computed(() => {
    const { strum } = this.shown();
    if (!strum || strum.trust === 'checked') return '';
    const sure = this.view.surenessOf(strum.id);
    if (sure === null) return 'Not heard in this section';
    const [chord, root] = [sure.chord, sure.root].map((p) => `${Math.round(100 * p)} %`);
    return sure.root >= SURE_ROOT && sure.root - sure.chord >= OPEN_KIND
      ? `${chord} sure of the chord, ${root} of its root`
      : `From the recording, ${chord} sure`;
  });
  /** What the chosen strum carries. */
  protected readonly markedWords = computed(() => {
    const { strum } = this.shown();
    return strum ? markWords(strum).join(', ') : '';
  });
  protected readonly place = computed(() => {
    const { riff, strum } = this.shown();
    if (!riff || !strum) return '';
    return capital(placeWords(riff, strum.startTicks));
  });

  /** Written notes with whether they are heard, then what sounds besides; of the way that is tried, if one is. */
  protected readonly notes = computed(() => {
    const [{ strum, heard }, key] = [this.shown(), this.view.key()];
    if (!strum) return [];
    const written = this.study.shownWay()?.notes ?? strumNotes(strum, this.view.tuning());
    const strengthOf = (midi: number): number | null => heard?.probability[midi - FIRST_HEARD_NOTE] ?? null;
    const own = [...new Set(written)].map((midi) => {
      const strength = strengthOf(midi);
      const verdict =
        strength === null
          ? 'unchecked'
          : strength >= SOUNDS
            ? 'agrees'
            : strength < NOT_HEARD
              ? 'missing'
              : 'doubtful';
      const said = strength === null ? 'not measured' : `sounds with ${Math.round(100 * strength)} %`;
      return { name: noteName(midi, key), verdict, title: said } as const;
    });
    const others = Array.from(heard?.probability ?? [], (p, i) => ({ midi: FIRST_HEARD_NOTE + i, p }))
      .filter(({ midi, p }) => p >= EXTRA && !written.includes(midi))
      .map(({ midi, p }) => ({
        name: noteName(midi, key),
        verdict: 'clashes' as const,
        title: `sounds with ${Math.round(100 * p)} %, not written`,
      }));
    return [...own, ...others];
  });

  /** What sounds where nothing is chosen. */
  protected readonly soundingNotes = computed(() => {
    const key = this.view.key();
    return Array.from(this.shown().heard?.probability ?? [])
      .flatMap((p, i) => (p >= SOUNDS ? [FIRST_HEARD_NOTE + i] : []))
      .map((midi) => noteName(midi, key));
  });

  writeNote(): void {
    this.noteField()?.nativeElement.focus();
  }
}
