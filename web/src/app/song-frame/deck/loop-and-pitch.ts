/** What plays: the loop and its rounds, and the pitch it is brought to. */
import { ChangeDetectionStrategy, Component, computed, effect, inject, viewChild } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatDivider } from '@angular/material/divider';
import { MatMenu, MatMenuModule } from '@angular/material/menu';
import { countAt, TEXT_LIMITS, type BeatGrid } from '@wild-needle/core/riff';
import { clock } from '@wild-needle/core/units';
import type { Loop } from '../../transport/play-cursor';
import { Player } from '../../transport/player';
import { Now } from '../../transport/now';
import { OpenSongStore } from '../../open-song/open-song.store';
import { Icon } from '../../shared/icon';
import { movedBy } from '../../shared/words';
import { DeckControl } from '../../transport/deck-control';
import { DECK_KEYS } from '../../transport/deck-keys';

/** 'Bar 59', 'Bars 59–62', '13.2–15.1' (bar and beat); clock times where there are no bars. */
function placesOf(grid: BeatGrid | undefined, { startS, endS }: Loop): string {
  const [from, to] = [startS, endS].map((t) => (grid ? countAt(grid, t + 1e-3) : null));
  const end = grid && countAt(grid, endS - 1e-3);
  if (!from || !end) return `${clock(startS)}–${clock(endS)}`;
  if (from.beat !== 1 || (to && to.beat !== 1)) {
    const last = to ?? { bar: end.bar + 1, beat: 1 };
    return `${from.bar}.${from.beat}–${last.bar}.${last.beat}`;
  }
  return from.bar === end.bar ? `Bar ${from.bar}` : `Bars ${from.bar}–${end.bar}`;
}

@Component({
  selector: 'wn-loop-and-pitch',
  imports: [Icon, MatButton, MatDivider, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="pair">
      <button
        mat-stroked-button
        class="wide loop"
        [class.on]="player.loop()"
        [attr.aria-pressed]="player.loop() !== null"
        (click)="control.toggleLoop()"
      >
        <wn-icon name="loop" /><span class="label"
          >{{ loopWords() }}<small>{{ roundWords() }}</small></span
        ><kbd>{{ keys.loop.caps }}</kbd>
      </button>
      <button mat-stroked-button class="more" aria-label="What to loop" [matMenuTriggerFor]="loops">⋯</button>
      <mat-menu #loops="matMenu">
        <button mat-menu-item (click)="control.loopHere('strum')">
          Loop the chosen strums <kbd>{{ keys.loopStrums.caps }}</kbd>
        </button>
        <button mat-menu-item (click)="control.loopHere('bar')">Loop this bar</button>
        <button mat-menu-item (click)="control.loopHere('pass')">Loop this pass</button>
        <button mat-menu-item (click)="control.loopHere('section')">
          Loop this section <kbd>{{ keys.loopSection.caps }}</kbd>
        </button>
        <mat-divider />
        @if (player.loop()) {
          <div class="named" (click)="$event.stopPropagation()">
            <input
              #ownName
              aria-label="Name of the loop"
              [maxLength]="nameLimit"
              [placeholder]="loopName()"
              (keydown)="onNameKey($event, ownName.value)"
            />
            <button mat-stroked-button (click)="keep(ownName.value)">Keep it</button>
          </div>
        }
        @for (kept of song.document()?.loops ?? []; track kept.id) {
          <button mat-menu-item (click)="control.loopPasses(kept.startS, kept.endS)">
            {{ kept.name }} <span class="mono">{{ clock(kept.startS) }}</span>
          </button>
          <button mat-menu-item class="quiet" (click)="control.dropLoop(kept.id)">
            Drop “{{ kept.name }}”
          </button>
        }
      </mat-menu>
    </div>
    <div class="pair">
      <button
        mat-stroked-button
        class="wide loop"
        [class.on]="control.corrected()"
        [attr.aria-pressed]="control.corrected()"
        [attr.aria-busy]="!player.pitchMade()"
        [disabled]="cents() === 0"
        (click)="control.togglePitch()"
      >
        <span class="label"
          >{{ pitchWords() }}<small>{{ transposeWords() }}</small></span
        ><kbd>{{ keys.pitch.caps }}</kbd>
      </button>
      <button mat-stroked-button class="more" aria-label="Transpose" [matMenuTriggerFor]="semitones">
        ⋯
      </button>
      <mat-menu #semitones="matMenu">
        <button mat-menu-item (click)="control.transpose(1)">
          A semitone higher <kbd>{{ keys.higher.caps }}</kbd>
        </button>
        <button mat-menu-item (click)="control.transpose(-1)">
          A semitone lower <kbd>{{ keys.lower.caps }}</kbd>
        </button>
        <button mat-menu-item (click)="control.transpose(12)">An octave higher</button>
        <button mat-menu-item (click)="control.transpose(-12)">An octave lower</button>
        <button mat-menu-item (click)="control.transpose(0)">Not transposed</button>
      </mat-menu>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      // As wide as it is, however long the words are.
      grid-template-columns: minmax(0, 1fr);
      gap: 8px;
      width: 158px;
    }
    :host-context(wn-deck.folded) {
      grid-template-columns: 152px 160px;
      width: auto;
    }
    .pair {
      display: flex;
      gap: 4px;
    }
    .loop {
      flex: 1;
    }
    .more {
      min-width: 26px;
      width: 26px;
      padding: 0;
    }
    .wide {
      min-width: 0;
      padding: 0 10px;
    }
    .wide ::ng-deep .mdc-button__label {
      display: flex;
      align-items: center;
      gap: 8px;
      width: 100%;
    }
    .label {
      flex: 1;
      text-align: left;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
      line-height: 17px;
    }
    .label small {
      display: block;
      font-size: 12px;
      line-height: 13px;
      font-weight: 400;
      color: var(--ink2);
    }
    .label small:empty {
      display: none;
    }
    .named {
      display: flex;
      gap: 8px;
      padding: 4px 16px;
    }
    .named input {
      width: 180px;
    }
    .on {
      box-shadow: inset 0 -4px 0 var(--ink);
    }
  `,
})
export class LoopAndPitch {
  protected readonly keys = DECK_KEYS;
  protected readonly player = inject(Player);
  protected readonly control = inject(DeckControl);
  protected readonly song = inject(OpenSongStore);
  private readonly now = inject(Now);

  protected readonly clock = clock;
  protected readonly cents = computed(() => Math.round(this.song.document()?.referenceOffsetCents ?? 0));
  protected readonly pitchWords = computed(() => {
    const cents = this.cents();
    if (cents === 0) return 'Pitch 0 ct';
    if (!this.control.corrected()) return 'Pitch as it is';
    return `Pitch ${cents > 0 ? '−' : '+'}${Math.abs(cents)} ct`;
  });
  protected readonly transposeWords = computed(() => {
    const semitones = this.control.transposed();
    return semitones === 0 ? '' : `${movedBy(semitones)} semitone${Math.abs(semitones) === 1 ? '' : 's'}`;
  });
  protected readonly loopWords = computed(() => {
    const loop = this.player.loop();
    if (!loop) return 'No loop';
    const passes = this.now.allPasses();
    const first = passes.find((p) => Math.abs(p.startS - loop.startS) < 0.01);
    const last = passes.find((p) => Math.abs(p.endS - loop.endS) < 0.01);
    if (first && first.sectionId === last?.sectionId) {
      return first.index === last.index
        ? `Pass ${first.index + 1}`
        : `Pass ${first.index + 1}–${last.index + 1}`;
    }
    return placesOf(this.song.document()?.grid, loop);
  });
  /** As it is kept: with the section, since every one has a first pass. */
  protected readonly loopName = computed(() => {
    const loop = this.player.loop();
    const at = this.now
      .allPasses()
      .find((p) => loop && loop.startS >= p.startS - 0.01 && loop.startS < p.endS - 0.01);
    const section = this.song.document()?.sections.find((s) => s.id === at?.sectionId);
    return section ? `${section.name}, ${this.loopWords().toLowerCase()}` : this.loopWords();
  });
  protected readonly roundWords = computed(() =>
    this.player.loop() && this.player.playing() ? `round ${this.player.rounds() + 1}` : '',
  );

  protected readonly nameLimit = TEXT_LIMITS.loopName;
  private readonly menu = viewChild('loops', { read: MatMenu });

  /** Under its own name, or the one of its place. */
  protected keep(name: string): void {
    this.control.keepLoop(name.trim() === '' ? this.loopName() : name);
    this.menu()?.closed.emit();
  }

  /** What is typed is no command of the menu; Escape and Tab stay. */
  protected onNameKey(event: KeyboardEvent, name: string): void {
    if (event.key !== 'Escape' && event.key !== 'Tab') event.stopPropagation();
    if (event.key === 'Enter') this.keep(name);
  }

  constructor() {
    // Also a new measurement of the recording's pitch, and every change of what is tuned to.
    effect(() => {
      this.cents();
      this.control.corrected();
      this.player.status();
      this.control.applyPitch();
    });
  }
}
