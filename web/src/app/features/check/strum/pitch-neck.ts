/**
 * The notes of the strum on the neck: from each string rises how loud its pitch is in the recording; what is written and heard, what
 * is heard besides, and what is written and not heard stand out.
 */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { soundingNote, type StringFret } from '@wild-needle/core/guitar';
import type { HeardNotes } from '@wild-needle/core/mir';
import { pitchClassOf, spellPitchClass } from '@wild-needle/core/theory';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { ChordName } from '../../../shared/chord-name';
import { observeSize } from '../../../shared/observe-size';
import { noteNames } from '../../../shared/note-name';
import { verdictPath } from '../../../shared/verdict-paths';
import { Player } from '../../../transport/player';
import { CheckWalk } from '../walk/check-walk';

/** Note that index 0 of the measured notes stands for, see `FIRST_HEARD_NOTE` of core. */
const FIRST_HEARD_NOTE = 31;
const LEFT = 38;
/** Of a fret; the wider one where all of the neck has room for it. */
const FRET_WIDTHS = [40, 56] as const;
const FRETS = 12;
const BAR = { width: 14, height: 21 };
/** What the strings share; the numbers of the frets stand below. */
const NECK_PX = 132;
const OPEN_PX = 33;
const FOLDED_PX = 9;
const TOP = 12;
/** Frets that are numbered: on most necks a dot marks them (common practice). */
const NUMBERED = [0, 3, 5, 7, 9, 12, 15, 17, 19, 21, 24];
/** Of a strum, as much as the chord network reads. */
const MOST_S = 0.45;
/** Asked when the hands rest. */
const REST_MS = 80;

const neckPx = (fretPx: number): number => LEFT + fretPx * (FRETS + 1) - 10;

interface Note {
  readonly place: StringFret;
  readonly kind: 'agrees' | 'clashes' | 'missing';
}

@Component({
  selector: 'wn-pitch-neck',
  imports: [ChordName],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="legend">
      <b>Notes in this strum, on the neck</b>
      @for (sign of legend; track sign.kind) {
        <span>
          <svg viewBox="0 0 16 16" aria-hidden="true">
            <path [class]="'verdict-' + sign.kind" [attr.d]="sign.d" />
          </svg>
          {{ sign.words }}
        </span>
      }
    </p>
    <div class="neck" #neck>
      @for (line of lines(); track line.string) {
        @if (line.open) {
          <wn-chord-name class="string-name display" mute [style.top.px]="line.y - 15" [name]="line.name" />
        }
      }
      <svg role="img" [attr.aria-label]="spoken()" [attr.width]="widthPx()" [attr.height]="height()">
        <path class="frets" [attr.d]="fretLines()" />
        <path class="folded" [attr.d]="strings(false)" />
        <path class="string" [attr.d]="strings(true)" />
        <path class="nut" [attr.d]="nut()" />
        <path class="levels" [attr.d]="levels()" />
        @for (note of notes(); track note.id) {
          <rect
            [class]="note.kind"
            rx="2"
            [attr.x]="note.x - BAR.width / 2"
            [attr.y]="note.y - note.height"
            [attr.width]="BAR.width"
            [attr.height]="note.height"
          />
          <path [class]="'verdict-' + note.kind" [attr.d]="note.mark" />
        }
        @for (bracket of brackets(); track $index) {
          <path class="bracket" [attr.d]="bracket" />
        }
        @for (fret of numbers(); track fret.x) {
          <text [attr.x]="fret.x" [attr.y]="height() - 2">{{ fret.number }}</text>
        }
      </svg>
    </div>
  `,
  styles: `
    .legend {
      display: flex;
      gap: 16px;
      align-items: center;
      font-size: 13px;
    }
    .legend b {
      font-size: 14px;
    }
    .legend span {
      display: flex;
      align-items: center;
      gap: 6px;
    }
    .legend svg {
      width: 16px;
      height: 16px;
    }
    .neck {
      position: relative;
    }
    @container work (max-height: 490px) {
      .legend span {
        display: none;
      }
      .neck {
        zoom: 0.76;
      }
    }
    .string-name {
      position: absolute;
      left: 0;
      width: 28px;
      text-align: right;
      font-size: 19px;
      font-weight: 600;
    }
    .neck svg {
      display: block;
      overflow: visible;
    }
    .frets {
      stroke: var(--line);
    }
    .string {
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    .folded {
      stroke: var(--line2);
    }
    .nut {
      stroke: var(--ink);
      stroke-width: 3.5;
    }
    .levels {
      fill: var(--groove3);
    }
    rect.agrees {
      fill: var(--groove);
    }
    rect.clashes {
      fill: var(--clash);
    }
    rect.missing {
      fill: none;
      stroke: var(--ink2);
      stroke-width: 1.5;
      stroke-dasharray: 3 2.5;
    }
    .bracket {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2;
    }
    text {
      font: 500 13px var(--mono);
      fill: var(--ink2);
      text-anchor: middle;
    }
  `,
})
export class PitchNeck {
  /** The way that what is heard would be played. */
  readonly heardFrets = input.required<readonly StringFret[]>();
  private readonly walk = inject(CheckWalk);
  private readonly player = inject(Player);
  private readonly song = inject(OpenSongStore);
  private readonly sound = signal<HeardNotes | null>(null);
  protected readonly BAR = BAR;
  private readonly neck = viewChild<ElementRef<HTMLElement>>('neck');
  private readonly fretPx = signal<number>(FRET_WIDTHS[0]);
  protected readonly widthPx = computed(() => neckPx(this.fretPx()));
  protected readonly legend = (
    [
      ['agrees', 'matched'],
      ['clashes', 'extra'],
      ['missing', 'missing'],
    ] as const
  ).map(([kind, words]) => ({ kind, words, d: verdictPath(kind, 8, 8) }));

  constructor() {
    observeSize(this.neck, ({ width }) =>
      this.fretPx.set(FRET_WIDTHS.findLast((px) => neckPx(px) <= width) ?? FRET_WIDTHS[0]),
    );
    const ofGuitars = computed(() => this.player.hearing().parts !== null);
    effect((onCleanup) => {
      // While the band is heard in parts, its guitars are measured.
      ofGuitars();
      const question = this.walk.studied();
      const offsetCents = this.song.document()?.referenceOffsetCents ?? 0;
      this.sound.set(null);
      if (!question || this.player.status() !== 'ready') return;
      const { heard, timeS, endS } = question;
      const startS = heard?.timeS ?? timeS;
      const span = { startS, endS: Math.min(startS + MOST_S, Math.max(startS + 0.1, heard?.endS ?? endS)) };
      const later = setTimeout(() => {
        void this.player.hearNotes([span], offsetCents).then((notes) => {
          if (this.walk.studied()?.id === question.id) this.sound.set(notes);
        });
      }, REST_MS);
      onCleanup(() => clearTimeout(later));
    });
  }

  private readonly written = computed(() => {
    const question = this.walk.studied();
    return (question?.strum?.dead ? [] : (question?.strum?.frets ?? [])).map((f) => ({
      ...f,
      fret: f.fret + this.moved(),
    }));
  });
  /** Frets that the section plays it higher. */
  private readonly moved = computed(() => {
    const question = this.walk.studied();
    const by = question?.pass.transpose ?? 0;
    return question?.strum?.frets.every((f) => f.fret + by >= 0) ? by : 0;
  });
  private readonly placed = computed((): readonly Note[] => {
    const [question, tuning] = [this.walk.studied(), this.walk.tuning()];
    if (!question || question.verdict === 'unchecked') return [];
    const by = question.pass.transpose - this.moved();
    const heard = question.heard?.midi ?? [];
    const midiOf = (place: StringFret): number => soundingNote(tuning, place) + by;
    const written = this.written().map((place): Note => ({
      place,
      kind: heard.includes(midiOf(place)) || question.verdict === 'agrees' ? 'agrees' : 'missing',
    }));
    const extra = this.heardFrets().flatMap((place): Note[] => {
      const raised = { ...place, fret: place.fret + this.moved() };
      return question.midi.includes(midiOf(raised)) ? [] : [{ place: raised, kind: 'clashes' }];
    });
    return [...written, ...(question.verdict === 'agrees' ? [] : extra)];
  });

  /** The lowest fret in view: the nut, unless a note lies beyond the twelfth. */
  private readonly from = computed(() => {
    const highest = Math.max(
      0,
      ...[...this.placed().map((n) => n.place), ...this.written()].map((f) => f.fret),
    );
    return Math.max(0, highest - FRETS);
  });

  protected readonly lines = computed(() => {
    const { stringsMidi, capo } = this.walk.tuning();
    const strings = stringsMidi.length;
    const used = [...this.written(), ...this.heardFrets()].map((f) => f.string);
    // The lowest three are open: riffs live there.
    const highest = Math.min(Math.max(1, strings - 2), ...used);
    const folded = highest - 1;
    const step = Math.min(OPEN_PX, (NECK_PX - FOLDED_PX * folded) / Math.max(1, strings - folded));
    return stringsMidi.map((_, i) => {
      const string = i + 1;
      const open = string >= highest;
      const y = TOP + (open ? FOLDED_PX * folded + step * (string - highest + 1) - 6 : FOLDED_PX * (i + 0.5));
      const name = spellPitchClass(pitchClassOf(stringsMidi[strings - string] + capo), this.walk.key());
      return { string, open, y, step, name };
    });
  });
  protected readonly height = computed(() => Math.max(...this.lines().map((l) => l.y)) + 20);

  private xOf(fret: number): number {
    return LEFT + this.fretPx() * (fret - this.from()) + this.fretPx() / 2 - 6;
  }
  private yOf(string: number): number {
    return this.lines().find((l) => l.string === string)?.y ?? TOP;
  }
  private levelOf(place: StringFret): number {
    const midi =
      soundingNote(this.walk.tuning(), place) + (this.walk.studied()?.pass.transpose ?? 0) - this.moved();
    return Math.min(1, this.sound()?.level[midi - FIRST_HEARD_NOTE] ?? 0);
  }
  private barHeight(place: StringFret, least: number): number {
    const line = this.lines().find((l) => l.string === place.string);
    const most = Math.min(BAR.height, (line?.step ?? BAR.height) - 12);
    return Math.max(least, most * this.levelOf(place));
  }

  protected readonly notes = computed(() =>
    this.placed()
      .filter(({ place }) => place.fret >= this.from() && place.fret <= this.from() + FRETS)
      .map(({ place, kind }) => {
        const [x, y] = [this.xOf(place.fret), this.yOf(place.string)];
        const height = kind === 'missing' ? 14 : this.barHeight(place, 10);
        return {
          id: `${place.string}/${place.fret}`,
          kind,
          x,
          y,
          height,
          mark: verdictPath(kind, x, y - height - 7),
        };
      }),
  );
  /** Every other pitch, as tall as it is loud. */
  protected readonly levels = computed(() => {
    const taken = new Set(this.notes().map((n) => n.id));
    return this.lines()
      .flatMap(({ string, y, open }) =>
        Array.from({ length: FRETS + 1 }, (_, i) => {
          const place = { string, fret: this.from() + i };
          if (taken.has(`${string}/${place.fret}`)) return '';
          const h = open ? this.barHeight(place, 1.5) : Math.max(1.5, 6 * this.levelOf(place));
          return `M${this.xOf(place.fret) - BAR.width / 2} ${y - h}h${BAR.width}v${h}h${-BAR.width}Z`;
        }),
      )
      .join('');
  });
  /** Around the frets that are written, one pair for each fret. */
  protected readonly brackets = computed(() => {
    const frets = [...new Set(this.written().map((f) => f.fret))];
    return frets.map((fret) => {
      const ys = this.written()
        .filter((f) => f.fret === fret)
        .map((f) => this.yOf(f.string));
      const [top, foot, x] = [Math.min(...ys) - 30, Math.max(...ys) + 5, this.xOf(fret)];
      return `M${x - 13} ${top}h-5V${foot}h5M${x + 13} ${top}h5V${foot}h-5`;
    });
  });
  protected readonly fretLines = computed(() =>
    Array.from(
      { length: FRETS },
      (_, i) => `M${this.xOf(this.from() + i) + this.fretPx() / 2} ${TOP - 4}V${this.height() - 16}`,
    ).join(''),
  );
  protected readonly nut = computed(() =>
    this.from() > 0 ? '' : `M${this.xOf(0) + this.fretPx() / 2} ${TOP - 4}V${this.height() - 16}`,
  );
  protected readonly numbers = computed(() =>
    NUMBERED.filter((n) => n >= this.from() && n <= this.from() + FRETS).map((number) => ({
      number,
      x: this.xOf(number),
    })),
  );
  protected strings(open: boolean): string {
    return this.lines()
      .filter((l) => l.open === open)
      .map(({ y }) => `M${LEFT - 6} ${y}H${this.widthPx()}`)
      .join('');
  }

  protected readonly spoken = computed(() => {
    const [tuning, key] = [this.walk.tuning(), this.walk.key()];
    const by = (this.walk.studied()?.pass.transpose ?? 0) - this.moved();
    const named = (['agrees', 'clashes', 'missing'] as const).map((kind, i) => {
      const notes = this.placed()
        .filter((n) => n.kind === kind)
        .map((n) => soundingNote(tuning, n.place) + by);
      return notes.length > 0 ? `${['Matched', 'extra', 'missing'][i]} ${noteNames(notes, key)}` : '';
    });
    return named.filter((words) => words !== '').join('; ') || 'Nothing written';
  });
}
