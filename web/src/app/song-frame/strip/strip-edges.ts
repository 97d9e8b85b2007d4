/**
 * Bar lines and ends of sections to be dragged on the strip, while the sections are worked on. Bar lines go where they are let
 * go; sections snap to bar lines.
 */
import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import {
  barTimesS,
  endBarOf,
  lengthenSection,
  moveBarLine,
  nearestBarLine,
  moveSection,
  sectionTimesS,
} from '@wild-needle/core/riff';
import { OpenSongStore } from '../../open-song/open-song.store';
import { StripView } from './strip-view';

/** Bar lines that stand closer are not offered: they could not be told apart. */
const CLOSEST_PX = 12;

interface Edge {
  readonly id: string;
  readonly kind: 'bar' | 'start' | 'end';
  readonly x: number;
  readonly label: string;
  /** Changes the song when it is let go at a time. */
  readonly drop: (timeS: number) => void;
}

@Component({
  selector: 'wn-strip-edges',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (edge of edges(); track edge.id) {
      <i
        [class]="edge.kind"
        [class.held]="held()?.id === edge.id"
        [style.left.px]="held()?.id === edge.id ? held()!.x : edge.x"
        [title]="edge.label"
        (pointerdown)="grab($event, edge)"
        (pointermove)="drag($event)"
        (pointerup)="drop($event, edge)"
        (pointercancel)="held.set(null)"
      ></i>
    }
  `,
  styles: `
    i {
      position: absolute;
      width: 9px;
      margin-left: -4px;
      cursor: ew-resize;
      touch-action: none;
    }
    i::after {
      content: '';
      position: absolute;
      left: 4px;
      inset-block: 0;
      width: 1px;
      background: var(--groove2);
    }
    .bar {
      top: 0;
      height: 46px;
    }
    .start,
    .end {
      top: 47px;
      height: 38px;
    }
    .start::after,
    .end::after {
      width: 3px;
      left: 3px;
      background: var(--ink);
      opacity: 0;
    }
    .start:hover::after,
    .end:hover::after,
    .held::after {
      opacity: 1;
      background: var(--ink);
    }
    .held::after {
      width: 3px;
    }
  `,
})
export class StripEdges {
  private readonly song = inject(OpenSongStore);
  private readonly view = inject(StripView);
  /** A place was clicked, and nothing dragged. */
  readonly pressed = output<number>();
  protected readonly held = signal<{ readonly id: string; readonly x: number } | null>(null);

  protected readonly edges = computed((): Edge[] => {
    const document = this.song.document();
    if (!document) return [];
    const isShown = ({ x }: Edge): boolean => x >= 0 && x <= this.view.width();
    const times = barTimesS(document.grid);
    const bars = times.slice(0, -1).map((timeS, bar): Edge => ({
      id: `bar-${bar}`,
      kind: 'bar',
      x: this.view.xOf(timeS),
      label: `Bar line ${bar + 1}: drag it to where the bar begins`,
      drop: (to) => this.song.change((d) => moveBarLine(d, bar, to)),
    }));
    const isDense = (bars[1]?.x ?? Infinity) - (bars[0]?.x ?? 0) < CLOSEST_PX;
    const nearestBar = (timeS: number): number => nearestBarLine(document.grid, timeS);
    const sections = document.sections.flatMap((section): Edge[] => {
      const times = sectionTimesS(document, section);
      if (!times) return [];
      return [
        {
          id: `${section.id}-start`,
          kind: 'start',
          x: this.view.xOf(times.startS),
          label: `Start of ${section.name}`,
          drop: (to) =>
            this.song.change((d) => moveSection(d, section.id, nearestBar(to) - section.startBar)),
        },
        {
          id: `${section.id}-end`,
          kind: 'end',
          x: this.view.xOf(times.endS) - 5,
          label: `End of ${section.name}`,
          drop: (to) => {
            const by = nearestBar(to) - endBarOf(document, section);
            this.song.change((d) => lengthenSection(d, section.id, by));
          },
        },
      ];
    });
    return [...(isDense ? [] : bars), ...sections].filter(isShown);
  });

  protected grab(event: PointerEvent, edge: Edge): void {
    event.stopPropagation();
    event.preventDefault();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.held.set({ id: edge.id, x: edge.x });
  }

  protected drag(event: PointerEvent): void {
    const held = this.held();
    if (held) this.held.set({ ...held, x: this.laneX(event) });
  }

  protected drop(event: PointerEvent, edge: Edge): void {
    const held = this.held();
    this.held.set(null);
    if (!held) return;
    const timeS = this.view.timeAt(this.laneX(event));
    // A click without a move goes there, as anywhere on the strip.
    if (Math.abs(held.x - edge.x) > 1) edge.drop(timeS);
    else this.pressed.emit(timeS);
  }

  private laneX(event: PointerEvent): number {
    const lane = (event.currentTarget as Element).closest('.lane');
    return event.clientX - (lane?.getBoundingClientRect().left ?? 0);
  }
}
