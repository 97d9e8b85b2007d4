/**
 * The neck under the chosen strum: how surely each place's note sounds in the recording, what is written outlined, and a way
 * that is tried outlined thinner. A press on a place writes it; with the focus here the arrows walk the neck, and Enter writes.
 */
import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { soundingNote, type StringFret, type Tuning } from '@wild-needle/core/guitar';
import type { HeardNotes } from '@wild-needle/core/mir';
import type { Key } from '@wild-needle/core/theory';
import { noteName } from '../../../shared/note-name';
import { FIRST_HEARD_NOTE } from './strum-study';

const FRET_PX = 12;
const STRING_PX = 12;
const LEFT = 10;
const TOP = 3;
/** Frets that are numbered; on most necks a dot marks them (common practice). */
const NUMBERED = [0, 3, 5, 7, 9, 12, 15, 17, 19, 21, 24];
/** Loud pitches that no guitar note explains stay this pale. */
const UNEXPLAINED = 0.28;
/** Strengths are drawn in steps of this, one path for each: a hundred shapes with an opacity each would cost a layer each. */
const STEP = 1 / 12;
/** Strings down and frets up that each arrow goes. */
const STEPS: Readonly<Partial<Record<string, readonly [string: number, fret: number]>>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};
/** A cell is a thick dash with round ends. */
const DASH_PX = 2;

@Component({
  selector: 'wn-neck',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      role="application"
      tabindex="0"
      aria-roledescription="neck"
      [attr.aria-label]="spoken()"
      [attr.viewBox]="'0 0 ' + width() + ' ' + height()"
      [attr.height]="height()"
      (click)="press($event)"
      (keydown)="walk($event)"
      (focus)="start($event)"
      (blur)="at.set(null)"
    >
      <path class="string" [attr.d]="strings()" />
      <path class="fret" [attr.d]="frames()" />
      <path class="nut" [attr.d]="nut()" />
      @for (cells of sounding(); track $index) {
        <path class="cells" [attr.stroke-opacity]="cells.strength" [attr.d]="cells.d" />
      }
      @for (cell of written(); track cell.id) {
        <rect class="written" rx="5" width="14" height="12" [attr.x]="cell.x - 1.5" [attr.y]="cell.y - 1.5" />
      }
      @for (cell of triedCells(); track cell.id) {
        <rect class="tried" rx="5" width="14" height="12" [attr.x]="cell.x - 1.5" [attr.y]="cell.y - 1.5" />
      }
      @if (cursor(); as cell) {
        <rect class="cursor" rx="6" width="16" height="14" [attr.x]="cell.x - 2.5" [attr.y]="cell.y - 2.5" />
      }
      @for (fret of numbered(); track fret) {
        <text [attr.x]="left + fret * fretPx" [attr.y]="height() - 3">{{ fret }}</text>
      }
    </svg>
    <span class="unseen" role="status">{{ atWords() }}</span>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      width: 100%;
      display: block;
      cursor: pointer;
    }
    .cursor {
      fill: none;
      stroke: var(--needle);
      stroke-width: 2;
    }
    .string {
      stroke: var(--line2);
    }
    .fret {
      stroke: var(--line);
    }
    .nut {
      stroke: var(--ink);
      stroke-width: 2.5;
    }
    .cells {
      stroke: var(--groove);
      stroke-width: 9;
      stroke-linecap: round;
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
  readonly lastFret = input(24);
  protected readonly width = computed(() => LEFT + FRET_PX * this.lastFret() + 12);
  protected readonly left = LEFT;
  protected readonly fretPx = FRET_PX;
  protected readonly numbered = computed(() => NUMBERED.filter((fret) => fret <= this.lastFret()));

  readonly tuning = input.required<Tuning>();
  readonly heard = input.required<HeardNotes | null>();
  readonly frets = input.required<readonly StringFret[]>();
  readonly tried = input.required<readonly StringFret[] | null>();
  readonly key = input.required<Key | null>();
  /** A place that was pressed. */
  readonly pressed = output<StringFret>();

  /** Where the keys are on the neck; null while the focus is elsewhere. */
  protected readonly at = signal<StringFret | null>(null);
  protected readonly cursor = computed(() => {
    const at = this.at();
    return at && this.place(at);
  });
  protected readonly atWords = computed(() => {
    const at = this.at();
    if (!at) return '';
    return `String ${at.string}, fret ${at.fret}, ${noteName(soundingNote(this.tuning(), at), this.key())}`;
  });

  protected readonly height = computed(() => TOP + STRING_PX * this.tuning().stringsMidi.length + 16);
  protected readonly strings = computed(() =>
    this.tuning()
      .stringsMidi.map((_, i) => `M${LEFT} ${TOP + STRING_PX * (i + 0.5)}H${this.width()}`)
      .join(''),
  );
  protected readonly nut = computed(() => this.fretLine(0));
  protected readonly frames = computed(() =>
    Array.from({ length: this.lastFret() - 1 }, (_, i) => this.fretLine(i + 1)).join(''),
  );

  /** Where the notes lie that sound, by how surely they do: a path for each step, empty ones too, so that none comes and goes. */
  protected readonly sounding = computed(() => {
    const [{ stringsMidi, capo }, heard] = [this.tuning(), this.heard()];
    const steps = Array.from({ length: Math.round(1 / STEP) }, (_, i) => ({
      strength: (i + 1) * STEP,
      d: '',
    }));
    stringsMidi.forEach((open, i) => {
      for (let fret = 0; fret <= this.lastFret(); fret++) {
        const note = open + capo + fret - FIRST_HEARD_NOTE;
        const believed = heard?.probability[note] ?? 0;
        const strength = Math.max(believed, UNEXPLAINED * (heard?.level[note] ?? 0));
        const step = Math.min(steps.length, Math.round(strength / STEP));
        if (step === 0) continue;
        const { x, y } = this.place({ string: stringsMidi.length - i, fret });
        steps[step - 1].d += `M${x + 4.5} ${y + 4.5}h${DASH_PX}`;
      }
    });
    return steps;
  });
  protected readonly written = computed(() => this.shown(this.frets()));
  protected readonly triedCells = computed(() => this.shown(this.tried() ?? []));
  protected readonly spoken = computed(() => {
    const frets = this.frets()
      .map((f) => `string ${f.string} fret ${f.fret}`)
      .join(', ');
    return `Pitches in the recording, on the neck; written: ${frets || 'nothing'}`;
  });

  /** The keyboard comes in at what is written, or at the lowest string. */
  protected start({ target }: FocusEvent): void {
    if (!(target as Element).matches(':focus-visible')) return;
    this.at.set(this.frets()[0] ?? { string: this.tuning().stringsMidi.length, fret: 0 });
  }

  protected walk(event: KeyboardEvent): void {
    const at = this.at();
    if (!at || event.ctrlKey || event.altKey || event.metaKey || event.shiftKey) return;
    const [string, fret] = STEPS[event.key] ?? [0, 0];
    if (event.key === 'Enter') this.pressed.emit(at);
    else if (string === 0 && fret === 0) return;
    else
      this.at.set({
        string: Math.min(this.tuning().stringsMidi.length, Math.max(1, at.string + string)),
        fret: Math.min(this.lastFret(), Math.max(0, at.fret + fret)),
      });
    event.preventDefault();
    event.stopPropagation();
  }

  protected press(event: MouseEvent): void {
    const svg = event.currentTarget as SVGSVGElement;
    const matrix = svg.getScreenCTM();
    if (!matrix) return;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    const string = Math.floor((y - TOP) / STRING_PX) + 1;
    const fret = Math.round((x - LEFT) / FRET_PX);
    const isOnNeck =
      string >= 1 && string <= this.tuning().stringsMidi.length && fret >= 0 && fret <= this.lastFret();
    if (isOnNeck) this.pressed.emit({ string, fret });
  }

  private shown(frets: readonly StringFret[]): { id: string; x: number; y: number }[] {
    return frets.filter((f) => f.fret <= this.lastFret()).map((f) => this.place(f));
  }

  private fretLine(fret: number): string {
    return `M${LEFT + 6 + fret * FRET_PX} 3V${this.height() - 16}`;
  }

  private place({ string, fret }: StringFret): { id: string; x: number; y: number } {
    return {
      id: `${string}/${fret}`,
      x: LEFT + fret * FRET_PX - 5.5,
      y: TOP + STRING_PX * (string - 0.5) - 4.5,
    };
  }
}
