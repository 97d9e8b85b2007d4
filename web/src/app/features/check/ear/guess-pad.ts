/** Where the guess is made: the root on the neck, and the kind of chord beside it. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { EAR_KINDS } from '@wild-needle/contract';
import { soundingNote } from '@wild-needle/core/guitar';
import { pitchClassOf, spellPitchClass } from '@wild-needle/core/theory';
import { ChordName } from '../../../shared/chord-name';
import { CHECK_KEYS } from '../check-keys';
import { CheckWalk } from '../walk/check-walk';
import { EAR_KIND_WORDS } from './chord-kinds';
import { EarFirst, LAST_FRET } from './ear-first';

const LEFT = 40;
const FRET_PX = 28;
const TOP = 10;
const NECK_PX = 126;
const NUMBERED = [0, 3, 5, 7, 9, 12];

@Component({
  selector: 'wn-guess-pad',
  imports: [ChordName, MatButtonToggleModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="neck">
      <p class="title">
        <b>Root on the neck</b>
        <span
          ><kbd>←</kbd><kbd>→</kbd> fret, <kbd>{{ keys.string.caps }}</kbd> string</span
        >
      </p>
      <div
        class="grid"
        role="grid"
        tabindex="0"
        aria-label="Root on the neck"
        [attr.aria-activedescendant]="'guess-' + ear.place().string + '-' + ear.place().fret"
      >
        @for (line of lines(); track line.string) {
          <wn-chord-name class="string-name display" mute [style.top.px]="line.y - 12" [name]="line.name" />
        }
        <svg role="row" [attr.width]="WIDTH" [attr.height]="HEIGHT" (click)="press($event)">
          <path class="frets" [attr.d]="frets" />
          <path class="nut" [attr.d]="'M' + (LEFT + 14) + ' ' + TOP + 'V' + (TOP + NECK_PX - 12)" />
          @for (line of lines(); track line.string) {
            <path
              class="string"
              [class.chosen]="line.string === ear.place().string"
              [attr.d]="'M' + LEFT + ' ' + line.y + 'H' + WIDTH"
            />
          }
          <g
            role="gridcell"
            [id]="'guess-' + ear.place().string + '-' + ear.place().fret"
            [attr.aria-label]="spoken()"
            aria-selected="true"
          >
            <rect class="root" rx="7" width="26" height="26" [attr.x]="x() - 13" [attr.y]="y() - 13" />
          </g>
          @for (fret of numbers; track fret.x) {
            <text [attr.x]="fret.x" [attr.y]="HEIGHT - 2">{{ fret.number }}</text>
          }
        </svg>
        <wn-chord-name
          class="on-root display"
          mute
          [style.left.px]="x()"
          [style.top.px]="y()"
          [name]="ear.rootName()"
        />
      </div>
    </div>
    <mat-button-toggle-group
      class="kinds"
      aria-label="Kind of chord"
      hideSingleSelectionIndicator
      [value]="ear.kind()"
      (change)="ear.kind.set($event.value)"
    >
      @for (kind of kinds; track kind.id) {
        <mat-button-toggle [value]="kind.id"
          ><kbd>{{ kind.cap }}</kbd> {{ kind.words }}</mat-button-toggle
        >
      }
    </mat-button-toggle-group>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 264px;
      gap: 12px;
      min-width: 0;
    }
    .title {
      display: flex;
      justify-content: space-between;
      height: 24px;
      font-size: 13px;
      white-space: nowrap;
    }
    .title b {
      font-size: 14px;
    }
    .grid {
      position: relative;
    }
    svg {
      display: block;
      overflow: visible;
      cursor: pointer;
    }
    .frets {
      stroke: var(--line);
    }
    .nut {
      stroke: var(--ink);
      stroke-width: 3.5;
    }
    .string {
      stroke: var(--line2);
    }
    .string.chosen {
      stroke: var(--ink);
      stroke-width: 2.5;
    }
    .root {
      fill: var(--ink);
    }
    .string-name {
      position: absolute;
      left: 0;
      width: 26px;
      text-align: right;
      font-size: 17px;
      font-weight: 600;
    }
    .on-root {
      position: absolute;
      translate: -50% -50%;
      color: var(--sleeve);
      font-size: 17px;
      pointer-events: none;
    }
    text {
      font: 500 12px var(--mono);
      fill: var(--ink2);
      text-anchor: middle;
    }
    .kinds {
      display: grid;
      grid-template-rows: repeat(5, 30px);
      grid-auto-flow: column;
      grid-auto-columns: 1fr;
      gap: 4px 6px;
      border: 0;
      --mat-button-toggle-height: 28px;
      --mat-button-toggle-background-color: transparent;
      --mat-button-toggle-selected-state-background-color: var(--ink);
      --mat-button-toggle-selected-state-text-color: var(--sleeve);
      --mat-button-toggle-label-text-size: 13px;
    }
    .kinds mat-button-toggle {
      border: 1px solid var(--edge);
      border-radius: 8px;
      text-align: left;
    }
  `,
})
export class GuessPad {
  protected readonly ear = inject(EarFirst);
  private readonly walk = inject(CheckWalk);
  protected readonly keys = CHECK_KEYS;
  protected readonly LEFT = LEFT;
  protected readonly TOP = TOP;
  protected readonly NECK_PX = NECK_PX;
  protected readonly WIDTH = LEFT + FRET_PX * (LAST_FRET + 1);
  protected readonly HEIGHT = TOP + NECK_PX + 4;
  protected readonly kinds = EAR_KINDS.map((id, i) => ({
    id,
    cap: (i + 1) % 10,
    words: EAR_KIND_WORDS[id],
  }));
  protected readonly frets = Array.from(
    { length: LAST_FRET },
    (_, i) => `M${xOf(i + 1) + FRET_PX / 2} ${TOP}V${TOP + NECK_PX - 12}`,
  ).join('');
  protected readonly numbers = NUMBERED.map((number) => ({ number, x: xOf(number) }));

  protected readonly lines = computed(() => {
    const { stringsMidi, capo } = this.walk.tuning();
    const step = (NECK_PX - 20) / Math.max(1, stringsMidi.length - 1);
    return stringsMidi.map((_, i) => ({
      string: i + 1,
      y: TOP + 4 + step * i,
      name: spellPitchClass(pitchClassOf(stringsMidi[stringsMidi.length - 1 - i] + capo), this.walk.key()),
    }));
  });
  protected readonly x = computed(() => xOf(this.ear.place().fret));
  protected readonly y = computed(() => this.lines()[this.ear.place().string - 1]?.y ?? TOP);
  protected readonly spoken = computed(() => {
    const { string, fret } = this.ear.place();
    const name = spellPitchClass(
      pitchClassOf(soundingNote(this.walk.tuning(), { string, fret })),
      this.walk.key(),
    );
    return `String ${string}, fret ${fret}, ${name}`;
  });

  protected press(event: MouseEvent): void {
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    const fret = Math.min(LAST_FRET, Math.max(0, Math.round((x - xOf(0)) / FRET_PX)));
    const nearest = this.lines().reduce((best, line) =>
      Math.abs(line.y - y) < Math.abs(best.y - y) ? line : best,
    );
    this.ear.place.set({ string: nearest.string, fret });
  }
}

function xOf(fret: number): number {
  return LEFT + FRET_PX * fret;
}
