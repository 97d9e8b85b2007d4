/**
 * The song at a glance: its sound, its sections with riff letters, the loop, and the needle; or a part of it, down to single
 * samples (wheel, or up and down while it has the focus).
 */
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { HeardSoFar } from '@wild-needle/contract';
import { passesWords, sectionTimesS } from '@wild-needle/core/riff';
import { clock } from '@wild-needle/core/units';
import { Player } from '../../transport/player';
import type { SamplePeaks } from '@wild-needle/core/playback';
import { EnvelopeStore } from '../../recording/envelope.store';
import { OpenSongStore } from '../../open-song/open-song.store';
import { Now } from '../../transport/now';
import { groovePath, samplePath } from '../../shared/groove-path';
import { Needle } from '../../shared/needle';
import { movedBy } from '../../shared/words';
import { DeckControl } from '../../transport/deck-control';
import { OtherParts } from './other-parts';
import { StripEdges } from './strip-edges';
import { nameInRoom } from './strip-words';
import { StripView } from './strip-view';

const GROOVE_HEIGHT = 40;
/** One press of an arrow key while the strip has the focus. */
const STEP_S = 1;
/** One notch of the wheel, or one press of a key, shows this many times as much. */
const ZOOM = 1.25;
/** Below this many seconds on screen the samples themselves are drawn, not the stored outline. */
const SAMPLES_BELOW_S = 6;

@Component({
  selector: 'wn-groove-strip',
  imports: [Needle, OtherParts, StripEdges],
  providers: [StripView],
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
      (wheel)="turn($event)"
      (keydown)="onKey($event)"
    >
      <svg
        class="groove"
        [attr.viewBox]="'0 0 ' + width() + ' ${GROOVE_HEIGHT}'"
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        <path [attr.d]="samples() ?? path()" />
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
          [title]="section.name"
        >
          <span class="name">{{ section.shown }}</span>
          <span class="riff"
            >{{ section.letter }}<small>{{ section.moved }} {{ section.played }}</small></span
          >
        </div>
      }
      <wn-other-parts />
      @if (loop(); as l) {
        <div class="loop" [style.left.%]="l.left" [style.width.%]="l.width"></div>
      }
      @if (edgesShown()) {
        <wn-strip-edges (pressed)="goTo($event)" />
      }
      @if (needleX() >= 0 && needleX() <= width()) {
        <wn-needle class="needle" [x]="needleX()" />
      }
    </div>
    @if (view.isZoomed()) {
      <button class="whole" type="button" (click)="view.showWhole()">{{ shownWords() }}: whole song</button>
    }
  `,
  styles: `
    :host {
      background: var(--sleeve);
      border-bottom: 1px solid var(--line2);
      padding: 0 16px;
      position: relative;
    }
    .lane {
      overflow: hidden;
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
    .whole {
      position: absolute;
      right: 16px;
      top: 2px;
      padding: 0 8px;
      border: 1px solid var(--edge);
      border-radius: 8px;
      background: var(--sleeve);
      font: 500 13px/20px var(--words);
      cursor: pointer;
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
    :host(.folded) {
      .lane {
        height: 43px;
      }
      .groove {
        top: 1px;
        height: 23px;
      }
      .so-far,
      .riff {
        display: none;
      }
      .section {
        top: 25px;
        height: 18px;
      }
      .name {
        height: 18px;
        line-height: 18px;
      }
      .loop {
        top: 1px;
        height: 41px;
      }
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
  /** Bar lines and sections can be dragged. */
  readonly edgesShown = input(false);

  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly now = inject(Now);
  private readonly control = inject(DeckControl);
  private readonly envelope = inject(EnvelopeStore).envelope;
  private readonly lane = viewChild.required<ElementRef<HTMLElement>>('lane');
  /** Where a loop that is being dragged began. */
  protected selectingFromS: number | null = null;
  protected readonly view = inject(StripView);
  protected readonly width = this.view.width;
  protected readonly duration = this.view.durationS;
  private readonly samplePeaks = signal<SamplePeaks | null>(null);

  protected readonly path = computed(() => {
    const [envelope, duration] = [this.envelope(), this.duration()];
    return envelope && duration > 0
      ? groovePath(envelope, this.width(), GROOVE_HEIGHT, (x) => this.view.timeAt(x))
      : '';
  });
  /** Of a short window, once they are there. */
  protected readonly samples = computed(() => {
    const peaks = this.samplePeaks();
    return peaks && samplePath(peaks.lows, peaks.highs, this.width(), GROOVE_HEIGHT);
  });
  protected readonly shownWords = computed(() => {
    const seconds = this.view.lengthS();
    return seconds < 1 ? `${Math.round(1000 * seconds)} ms` : `${seconds.toFixed(1)} s`;
  });
  protected readonly sections = computed(() => {
    const [document, duration] = [this.song.document(), this.duration()];
    if (!document || duration <= 0) return [];
    return document.sections.flatMap((section) => {
      const riff = document.riffs.find((r) => r.id === section.riffId);
      const times = sectionTimesS(document, section);
      if (!times) return [];
      const { startS, endS } = times;
      const width = this.view.percentOf(endS) - this.view.percentOf(startS);
      return {
        id: section.id,
        name: section.name,
        shown: nameInRoom(section.name, (width / 100) * this.width()),
        letter: riff?.letter ?? '',
        moved: riff ? movedBy(section.transpose) : '',
        played: riff ? passesWords(document, section) : '',
        chosen: section.id === this.song.sectionId(),
        left: this.view.percentOf(startS),
        width,
      };
    });
  });
  protected readonly loop = computed(() => {
    const [loop, duration] = [this.player.loop(), this.duration()];
    if (!loop || duration <= 0) return null;
    const left = this.view.percentOf(loop.startS);
    return { left, width: this.view.percentOf(loop.endS) - left };
  });
  protected readonly needleX = computed(() => (this.duration() > 0 ? this.view.xOf(this.player.nowS()) : 0));
  /** Whole seconds, so that a screen reader is not told sixty times a second. */
  protected readonly spokenSecond = computed(() => Math.floor(this.player.nowS()));
  protected readonly spokenPlace = computed(
    () => `${clock(this.spokenSecond())} of ${clock(this.duration())}`,
  );

  constructor() {
    effect(() => {
      const { fromS, toS } = this.view.window();
      const isReady = this.player.status() === 'ready';
      const columns = Math.round(this.width());
      untracked(() => this.samplePeaks.set(null));
      if (!isReady || toS - fromS > SAMPLES_BELOW_S) return;
      void this.player.samplePeaks(fromS, toS, columns).then((peaks) => {
        if (this.view.window().fromS === fromS && this.view.window().toS === toS) this.samplePeaks.set(peaks);
      });
    });
    const observer = new ResizeObserver(([entry]) => this.width.set(Math.max(300, entry.contentRect.width)));
    queueMicrotask(() => observer.observe(this.lane().nativeElement));
  }

  /** A path of upright strokes at these times. */
  protected ticks(timesS: readonly number[], top: number, height: number): string {
    return timesS.map((t) => `M${this.view.xOf(t).toFixed(1)} ${top}v${height}`).join('');
  }

  /** Moves the needle; with Shift it begins a loop. */
  protected press(event: PointerEvent): void {
    const timeS = this.timeAt(event);
    if (event.shiftKey) {
      this.selectingFromS = timeS;
      this.lane().nativeElement.setPointerCapture(event.pointerId);
      return;
    }
    this.goTo(timeS);
  }

  /** The needle, and what is played there. */
  protected goTo(timeS: number): void {
    this.player.seek(timeS);
    const section = this.now.section();
    if (section) this.song.selectRiff(section.riffId ?? this.song.riffId(), section.id);
  }

  protected drag(event: PointerEvent): void {
    if (this.selectingFromS === null) return;
    this.control.loopBetween(this.selectingFromS, this.timeAt(event), event.altKey);
  }

  private timeAt(event: MouseEvent): number {
    const box = this.lane().nativeElement.getBoundingClientRect();
    return this.view.timeAt(event.clientX - box.left);
  }

  /** The wheel zooms around the pointer; sideways, or with Shift, it scrolls. */
  protected turn(event: WheelEvent): void {
    event.preventDefault();
    const sideways = event.shiftKey ? event.deltaY : event.deltaX;
    if (Math.abs(sideways) > Math.abs(event.deltaY) || event.shiftKey) {
      this.view.scroll((sideways / this.width()) * this.view.lengthS());
    } else if (event.deltaY !== 0) {
      this.view.zoom(this.timeAt(event), event.deltaY > 0 ? ZOOM : 1 / ZOOM);
    }
  }

  protected onKey(event: KeyboardEvent): void {
    // A twentieth of what is shown, at most a second.
    const step = Math.min(STEP_S, this.view.lengthS() / 20);
    const now = this.player.nowS();
    const does: Record<string, () => void> = {
      ArrowLeft: () => this.player.seek(now - step),
      ArrowRight: () => this.player.seek(now + step),
      ArrowUp: () => this.view.zoom(now, 1 / ZOOM),
      ArrowDown: () => this.view.zoom(now, ZOOM),
    };
    if (!does[event.key]) return;
    event.preventDefault();
    does[event.key]();
  }
}
