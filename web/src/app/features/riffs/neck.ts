/**
 * The neck under the chosen strum: how surely each place's note sounds in the recording, what is written outlined, and a way
 * that is tried outlined thinner.
 */
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { StringFret, Tuning } from '@wild-needle/core/guitar';
import type { HeardNotes } from '@wild-needle/core/mir';
import { FIRST_HEARD_NOTE } from './strum-study';

const FRETS = 24;
const FRET_PX = 12;
const STRING_PX = 12;
const LEFT = 10;
const TOP = 3;
/** Frets that are numbered; on most necks a dot marks them (common practice). */
const NUMBERED = [0, 3, 5, 7, 9, 12, 15, 17, 19, 21, 24];
/** Loud pitches that no guitar note explains stay this pale. */
const UNEXPLAINED = 0.28;
/** Fainter cells are not drawn. */
const LEAST = 0.06;

@Component({
  selector: 'wn-neck',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      role="img"
      [attr.aria-label]="spoken()"
      [attr.viewBox]="'0 0 ' + width + ' ' + height()"
      [attr.height]="height()"
    >
      @for (y of strings(); track $index) {
        <line class="string" [attr.x1]="left" [attr.x2]="width" [attr.y1]="y" [attr.y2]="y" />
      }
      @for (fret of fretLines; track fret) {
        <line
          class="fret"
          [class.nut]="fret === 0"
          [attr.x1]="left + 6 + fret * fretPx"
          [attr.x2]="left + 6 + fret * fretPx"
          y1="3"
          [attr.y2]="height() - 16"
        />
      }
      @for (cell of cells(); track cell.id) {
        <rect
          class="cell"
          rx="4"
          width="11"
          height="9"
          [attr.x]="cell.x"
          [attr.y]="cell.y"
          [attr.opacity]="cell.strength"
        />
      }
      @for (cell of written(); track cell.id) {
        <rect class="written" rx="5" width="14" height="12" [attr.x]="cell.x - 1.5" [attr.y]="cell.y - 1.5" />
      }
      @for (cell of triedCells(); track cell.id) {
        <rect class="tried" rx="5" width="14" height="12" [attr.x]="cell.x - 1.5" [attr.y]="cell.y - 1.5" />
      }
      @for (fret of numbered; track fret) {
        <text [attr.x]="left + fret * fretPx" [attr.y]="height() - 3">{{ fret }}</text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      width: 100%;
      display: block;
    }
    .string {
      stroke: var(--line2);
    }
    .fret {
      stroke: var(--line);
    }
    .fret.nut {
      stroke: var(--ink);
      stroke-width: 2.5;
    }
    .cell {
      fill: var(--groove);
    }
    .written,
    .tried {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2.5;
    }
    .tried {
      stroke: var(--ink2);
      stroke-width: 1.6;
      stroke-dasharray: 3 2;
    }
    text {
      font: 500 11px var(--mono);
      fill: var(--ink2);
      text-anchor: middle;
    }
  `,
})
export class Neck {
  protected readonly width = LEFT + FRET_PX * FRETS + 12;
  protected readonly left = LEFT;
  protected readonly fretPx = FRET_PX;
  protected readonly numbered = NUMBERED;
  protected readonly fretLines = Array.from({ length: FRETS }, (_, i) => i);

  readonly tuning = input.required<Tuning>();
  readonly heard = input.required<HeardNotes | null>();
  readonly frets = input.required<readonly StringFret[]>();
  readonly tried = input.required<readonly StringFret[] | null>();

  protected readonly strings = computed(() =>
    this.tuning().stringsMidi.map((_, i) => TOP + STRING_PX * (i + 0.5)),
  );
  protected readonly height = computed(() => TOP + STRING_PX * this.tuning().stringsMidi.length + 16);

  protected readonly cells = computed(() => {
    const [{ stringsMidi, capo }, heard] = [this.tuning(), this.heard()];
    if (!heard) return [];
    return stringsMidi.flatMap((open, i) =>
      Array.from({ length: FRETS + 1 }, (_, fret) => {
        const note = open + capo + fret - FIRST_HEARD_NOTE;
        const believed = heard.probability[note] ?? 0;
        const strength = Math.max(believed, UNEXPLAINED * (heard.level[note] ?? 0));
        return { ...this.place({ string: stringsMidi.length - i, fret }), strength };
      }).filter((cell) => cell.strength > LEAST),
    );
  });
  protected readonly written = computed(() => this.frets().map((f) => this.place(f)));
  protected readonly triedCells = computed(() => (this.tried() ?? []).map((f) => this.place(f)));
  protected readonly spoken = computed(() => {
    const frets = this.frets()
      .map((f) => `string ${f.string} fret ${f.fret}`)
      .join(', ');
    return `Pitches in the recording, on the neck; written: ${frets || 'nothing'}`;
  });

  private place({ string, fret }: StringFret): { id: string; x: number; y: number } {
    return {
      id: `${string}/${fret}`,
      x: LEFT + fret * FRET_PX - 5.5,
      y: TOP + STRING_PX * (string - 0.5) - 4.5,
    };
  }
}
