/**
 * The stage: where energy lies from left to right at the needle, and the window that is listened through. The window is
 * dragged in its middle, widened at its ends, or moved by arrow keys (with Shift wider and narrower).
 */
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { boundedPlace, type Place } from '../../recording/hearing';
import { Player } from '../../transport/player';

/** Looks a second: eyes follow no more, and each costs a Fourier transform in the worker. */
const LOOK_EVERY_MS = 90;
/** While it is dragged the sound follows at most this often. */
const HEAR_EVERY_MS = 250;
const KEY_STEP = 0.05;
const HEIGHT = 64;
/** Share of an older look that stays, so that the picture does not flicker. */
const AFTERGLOW = 0.7;

type OctaveDoubling = 'middle' | 'start' | 'end';

@Component({
  selector: 'wn-stage-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="words">
      <b>{{ words() }}</b>
      <span class="quiet">Drag it to a guitar, its ends to widen it</span>
    </div>
    <div
      #stage
      class="stage"
      role="slider"
      tabindex="0"
      aria-label="Place on the stage"
      aria-valuemin="-100"
      aria-valuemax="100"
      [attr.aria-valuenow]="percent()"
      [attr.aria-valuetext]="words()"
      (pointerdown)="grab($event)"
      (pointermove)="drag($event)"
      (pointerup)="drop()"
      (pointercancel)="drop()"
      (keydown)="onKey($event)"
    >
      <svg viewBox="0 0 400 ${HEIGHT}" preserveAspectRatio="none" aria-hidden="true">
        <path class="energy" [attr.d]="energy()" />
        <line x1="0" x2="400" y1="${HEIGHT - 1}" y2="${HEIGHT - 1}" />
      </svg>
      <div class="window" [style.left.%]="left()" [style.width.%]="width()"></div>
    </div>
    <div class="ends quiet" aria-hidden="true"><span>Left</span><span>Centre</span><span>Right</span></div>
  `,
  styles: `
    :host {
      display: block;
      position: absolute;
      right: 16px;
      bottom: 0;
      z-index: 3;
      width: 460px;
      padding: 10px 20px 8px;
      background: var(--sleeve);
      border: 1px solid var(--line2);
      border-bottom: 0;
      border-radius: 12px 12px 0 0;
    }
    .words {
      display: flex;
      justify-content: space-between;
      gap: 12px;
      margin-bottom: 6px;
    }
    .stage {
      position: relative;
      height: ${HEIGHT}px;
      touch-action: none;
      cursor: grab;
    }
    svg {
      width: 100%;
      height: 100%;
    }
    .energy {
      fill: var(--groove);
    }
    line {
      stroke: var(--line2);
    }
    .window {
      position: absolute;
      top: -2px;
      bottom: -2px;
      border: 3px solid var(--ink);
      border-block: 0;
      pointer-events: none;
    }
    .window::before,
    .window::after {
      content: '';
      position: absolute;
      inset-block: 0;
      width: 7px;
      border: 3px solid var(--ink);
      border-inline: 0;
    }
    .window::before {
      left: 0;
    }
    .window::after {
      right: 0;
    }
    .ends {
      display: flex;
      justify-content: space-between;
      font-size: 13px;
    }
  `,
})
export class StagePanel {
  private readonly player = inject(Player);
  private readonly stage = viewChild.required<ElementRef<HTMLElement>>('stage');
  /** As drawn; the sound follows a little later. */
  private readonly place = signal<Place>(this.player.hearing().place);
  private readonly glow = signal<readonly number[]>([]);
  private gripped: { readonly grip: OctaveDoubling; readonly offset: number } | null = null;
  private hearing: ReturnType<typeof setTimeout> | undefined;

  protected readonly percent = computed(() => Math.round(100 * this.place().position));
  protected readonly words = computed(() => {
    const percent = this.percent();
    const where = percent === 0 ? 'Centre' : `${Math.abs(percent)} % ${percent < 0 ? 'left' : 'right'}`;
    return `${where}, ${Math.round(50 * this.place().width)} % of the stage`;
  });
  private readonly edges = computed(() => {
    const { position, width } = this.place();
    const percent = (at: number): number => 50 + 50 * Math.max(-1, Math.min(1, at));
    return [percent(position - width / 2), percent(position + width / 2)];
  });
  protected readonly left = computed(() => this.edges()[0]);
  protected readonly width = computed(() => this.edges()[1] - this.edges()[0]);
  /** Bars under a root curve: the quieter guitar stays visible beside a loud one. */
  protected readonly energy = computed(() => {
    const shares = this.glow();
    const slot = 400 / Math.max(1, shares.length);
    return shares
      .map((share, i) => {
        const height = HEIGHT * Math.min(1, Math.sqrt(share));
        return `M${(i * slot + 1).toFixed(1)} ${HEIGHT}v${(-height).toFixed(1)}h${(slot - 2).toFixed(1)}v${height.toFixed(1)}z`;
      })
      .join('');
  });

  constructor() {
    effect((onCleanup) => {
      const timer = setInterval(() => this.player.look(), LOOK_EVERY_MS);
      this.player.look();
      onCleanup(() => clearInterval(timer));
    });
    effect(() => {
      const shares = this.player.stage();
      if (!shares) return;
      this.glow.update((before) =>
        Array.from(shares, (share, i) => Math.max(share, AFTERGLOW * (before[i] ?? 0))),
      );
    });
  }

  protected grab(event: PointerEvent): void {
    const at = this.placeOf(event);
    const { position, width } = this.place();
    const near = width / 4;
    const grip: OctaveDoubling =
      Math.abs(at - (position - width / 2)) < near && at < position
        ? 'start'
        : Math.abs(at - (position + width / 2)) < near && at > position
          ? 'end'
          : 'middle';
    const isInside = Math.abs(at - position) <= width / 2 + near;
    this.gripped = { grip: isInside ? grip : 'middle', offset: isInside ? at - position : 0 };
    this.stage().nativeElement.setPointerCapture(event.pointerId);
    this.drag(event);
  }

  protected drag(event: PointerEvent): void {
    if (!this.gripped) return;
    const at = this.placeOf(event);
    const { position, width } = this.place();
    if (this.gripped.grip === 'middle') {
      this.move({ position: at - this.gripped.offset, width });
      return;
    }
    const [start, end] =
      this.gripped.grip === 'start' ? [at, position + width / 2] : [position - width / 2, at];
    if (end > start) this.move({ position: (start + end) / 2, width: end - start });
  }

  protected drop(): void {
    this.gripped = null;
  }

  protected onKey(event: KeyboardEvent): void {
    const step = { ArrowLeft: -KEY_STEP, ArrowRight: KEY_STEP }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const { position, width } = this.place();
    this.move(event.shiftKey ? { position, width: width + 2 * step } : { position: position + step, width });
  }

  private placeOf(event: PointerEvent): number {
    const box = this.stage().nativeElement.getBoundingClientRect();
    return (2 * (event.clientX - box.left)) / box.width - 1;
  }

  private move(place: Place): void {
    this.place.set(boundedPlace(place));
    this.hearing ??= setTimeout(() => {
      this.hearing = undefined;
      this.player.setHearing({ ...this.player.hearing(), place: this.place() });
    }, HEAR_EVERY_MS);
  }
}
