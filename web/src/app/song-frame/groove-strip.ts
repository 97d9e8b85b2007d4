/** The whole song at a glance: its sound, its sections with riff letters, the loop, and the needle. */
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import type { HeardSoFar } from '@wild-needle/contract';
import { Player } from '../audio/player';
import { EnvelopeStore } from '../open-song/envelope.store';
import { OpenSongStore } from '../open-song/open-song.store';
import { Now } from '../open-song/now';
import { groovePath } from '../shared/groove-path';
import { Needle } from '../shared/needle';
import { clock, movedBy } from '../shared/words';
import { DeckControl } from './deck-control';

const GROOVE_HEIGHT = 40;
/** One press of an arrow key while the strip has the focus. */
const STEP_S = 1;

@Component({
  selector: 'wn-groove-strip',
  imports: [Needle],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      #lane
      class="lane"
      role="slider"
      tabindex="0"
      aria-label="Place in the recording"
      [attr.aria-valuemin]="0"
      [attr.aria-valuemax]="duration()"
      [attr.aria-valuenow]="spokenSecond()"
      [attr.aria-valuetext]="spokenPlace()"
      (pointerdown)="press($event)"
      (pointermove)="drag($event)"
      (pointerup)="selectingFromS = null"
      (pointercancel)="selectingFromS = null"
      (keydown)="onKey($event)"
    >
      <svg
        class="groove"
        [attr.viewBox]="'0 0 ' + width() + ' ${GROOVE_HEIGHT}'"
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        <path [attr.d]="path()" />
        <line class="floor" x1="0" [attr.x2]="width()" y1="${GROOVE_HEIGHT / 2}" y2="${GROOVE_HEIGHT / 2}" />
      </svg>
      @if (soFar(); as known) {
        <svg
          class="so-far"
          [attr.viewBox]="'0 0 ' + width() + ' 38'"
          preserveAspectRatio="none"
          aria-hidden="true"
        >
          <path class="strums" [attr.d]="ticks(known.strumsS, 6, 20)" />
          <path class="ones" [attr.d]="ticks(known.downbeatsS, 0, 38)" />
        </svg>
      }
      @for (section of sections(); track section.id) {
        <div
          class="section"
          [class.chosen]="section.chosen"
          [style.left.%]="section.left"
          [style.width.%]="section.width"
        >
          <span class="name">{{ section.name }}</span>
          <span class="riff"
            >{{ section.letter }}<small>{{ section.moved }} ×{{ section.passes }}</small></span
          >
        </div>
      }
      @if (loop(); as l) {
        <div class="loop" [style.left.%]="l.left" [style.width.%]="l.width"></div>
      }
      <wn-needle class="needle" [x]="needleX()" />
    </div>
  `,
  styles: `
    :host {
      background: var(--sleeve);
      border-bottom: 1px solid var(--line2);
      padding: 0 16px;
    }
    .lane {
      position: relative;
      height: 87px;
      touch-action: none;
    }
    .groove {
      position: absolute;
      top: 3px;
      width: 100%;
      height: 40px;
    }
    .groove path {
      fill: var(--groove);
    }
    .floor {
      stroke: var(--groove3);
      vector-effect: non-scaling-stroke;
    }
    .so-far {
      position: absolute;
      top: 47px;
      width: 100%;
      height: 38px;
    }
    .so-far path {
      fill: none;
      stroke: var(--groove);
      vector-effect: non-scaling-stroke;
    }
    .so-far .ones {
      stroke: var(--line2);
    }
    .section {
      position: absolute;
      top: 47px;
      height: 38px;
      padding-right: 2px;
      overflow: hidden;
      white-space: nowrap;
    }
    .name {
      display: block;
      height: 19px;
      padding-left: 5px;
      background: var(--shade);
      font-size: 13px;
      line-height: 19px;
      font-weight: 600;
      overflow: hidden;
    }
    .chosen .name {
      background: var(--ink);
      color: var(--sleeve);
    }
    .riff {
      display: block;
      margin-top: 2px;
      padding-left: 5px;
      border-left: 1px solid var(--line2);
      border-bottom: 1px solid var(--line2);
      font: 700 15px/16px var(--display);
    }
    .riff small {
      font-size: 13px;
      font-weight: 500;
      color: var(--ink2);
      padding-left: 2px;
    }
    .loop {
      position: absolute;
      top: 2px;
      height: 83px;
      border: 3px solid var(--ink);
      border-block: 0;
      pointer-events: none;
    }
    .loop::before,
    .loop::after {
      content: '';
      position: absolute;
      inset-block: 0;
      width: 8px;
      border: 3px solid var(--ink);
      border-inline: 0;
    }
    .loop::before {
      left: 0;
    }
    .loop::after {
      right: 0;
    }
    .needle {
      position: absolute;
      inset-block: 0;
      left: 0;
      pointer-events: none;
    }
  `,
})
export class GrooveStrip {
  /** Of a recording that is still being listened to: its strums and bar lines stand where its sections will. */
  readonly soFar = input<HeardSoFar | null>(null);

  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly now = inject(Now);
  private readonly control = inject(DeckControl);
  private readonly envelope = inject(EnvelopeStore).envelope;
  private readonly lane = viewChild.required<ElementRef<HTMLElement>>('lane');
  /** Where a loop that is being dragged began. */
  protected selectingFromS: number | null = null;
  /** Width of the lane; follows the window. */
  protected readonly width = signal(Math.max(300, innerWidth - 32));

  /** The recording's length is known before its sound is decoded. */
  protected readonly duration = computed(() => this.song.recording()?.durationS ?? 0);
  protected readonly path = computed(() => {
    const [envelope, duration, width] = [this.envelope(), this.duration(), this.width()];
    return envelope && duration > 0
      ? groovePath(envelope, width, GROOVE_HEIGHT, (x) => (x / width) * duration)
      : '';
  });
  protected readonly sections = computed(() => {
    const [document, duration] = [this.song.document(), this.duration()];
    if (!document || duration <= 0) return [];
    return document.sections.flatMap((section) => {
      const riff = document.riffs.find((r) => r.id === section.riffId);
      const passes = this.now.allPasses().filter((p) => p.sectionId === section.id);
      if (!riff || passes.length === 0) return [];
      const [startS, endS] = [passes[0].startS, passes[passes.length - 1].endS];
      return {
        id: section.id,
        name: section.name,
        letter: riff.letter,
        moved: movedBy(section.transpose),
        passes: section.passes,
        chosen: section.id === this.song.sectionId(),
        left: (100 * startS) / duration,
        width: (100 * (endS - startS)) / duration,
      };
    });
  });
  protected readonly loop = computed(() => {
    const [loop, duration] = [this.player.loop(), this.duration()];
    return loop && duration > 0
      ? { left: (100 * loop.startS) / duration, width: (100 * (loop.endS - loop.startS)) / duration }
      : null;
  });
  protected readonly needleX = computed(() => {
    const duration = this.duration();
    return duration > 0 ? (this.player.nowS() / duration) * this.width() : 0;
  });
  /** Whole seconds, so that a screen reader is not told sixty times a second. */
  protected readonly spokenSecond = computed(() => Math.floor(this.player.nowS()));
  protected readonly spokenPlace = computed(
    () => `${clock(this.spokenSecond())} of ${clock(this.duration())}`,
  );

  constructor() {
    const observer = new ResizeObserver(([entry]) => this.width.set(Math.max(300, entry.contentRect.width)));
    queueMicrotask(() => observer.observe(this.lane().nativeElement));
  }

  /** A path of upright strokes at these times. */
  protected ticks(timesS: readonly number[], top: number, height: number): string {
    const perSecond = this.width() / this.duration();
    return timesS.map((t) => `M${(t * perSecond).toFixed(1)} ${top}v${height}`).join('');
  }

  /** Moves the needle; with Shift it begins a loop. */
  protected press(event: PointerEvent): void {
    const timeS = this.timeAt(event);
    if (event.shiftKey) {
      this.selectingFromS = timeS;
      this.lane().nativeElement.setPointerCapture(event.pointerId);
      return;
    }
    this.player.seek(timeS);
    const pass = this.now.pass();
    if (pass) this.song.selectRiff(pass.riffId, pass.sectionId);
  }

  protected drag(event: PointerEvent): void {
    if (this.selectingFromS === null) return;
    this.control.loopBetween(this.selectingFromS, this.timeAt(event), event.altKey);
  }

  private timeAt(event: PointerEvent): number {
    const box = this.lane().nativeElement.getBoundingClientRect();
    return ((event.clientX - box.left) / box.width) * this.duration();
  }

  protected onKey(event: KeyboardEvent): void {
    const steps: Record<string, number> = {
      ArrowLeft: -STEP_S,
      ArrowDown: -STEP_S,
      ArrowRight: STEP_S,
      ArrowUp: STEP_S,
    };
    const step = steps[event.key];
    if (step === undefined) return;
    event.preventDefault();
    this.player.seek(this.player.nowS() + step);
  }
}
