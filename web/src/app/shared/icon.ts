/** The few pictures of the interface, drawn for it: strokes on a 24-unit square. */
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

const PATHS = {
  logo: ['M18.5 5.4a9 9 0 1 0 2.4 5.4', 'M21.5 2.5 14 10', 'M12 9.6a2.4 2.4 0 1 0 2.4 2.4'],
  tick: ['M4 12.5 9.5 18 20 6.5'],
  doubt: ['M12 3 21 12 12 21 3 12Z'],
  loop: [
    'M6 8h11a3 3 0 0 1 3 3v1',
    'M9 4.5 5.5 8 9 11.5',
    'M18 16H7a3 3 0 0 1-3-3v-1',
    'M15 19.5 18.5 16 15 12.5',
  ],
  undo: ['M9 5 4 10l5 5', 'M4 10h10a6 6 0 0 1 0 12h-3'],
  redo: ['M15 5l5 5-5 5', 'M20 10H10a6 6 0 0 0 0 12h3'],
  page: ['M6 3h8l4 4v14H6Z', 'M9 11h6', 'M9 15h6'],
  remove: ['M5 7h14', 'M9 7V4h6v3', 'M7 7l1 13h8l1-13'],
  edit: ['M4 20l1-5L16 4l4 4L9 19Z', 'M13 7l4 4'],
  close: ['M6 6l12 12', 'M18 6 6 18'],
  sun: [
    'M12 8a4 4 0 1 0 0 8 4 4 0 0 0 0-8',
    'M12 2v3M12 19v3M2 12h3M19 12h3M5 5l2 2M17 17l2 2M19 5l-2 2M7 17l-2 2',
  ],
  moon: ['M19 14.5A8 8 0 0 1 9.5 5 8 8 0 1 0 19 14.5Z'],
  half: ['M12 4a8 8 0 1 0 0 16Z', 'M12 4a8 8 0 0 1 0 16'],
  versions: ['M12 7v5l3.5 2', 'M4.5 9A8.3 8.3 0 1 1 4 13.5', 'M4 4.5V9h4.5'],
  keys: ['M3 6h18v12H3Z', 'M7 10h.01M11 10h.01M15 10h.01M8 14h8'],
} as const;

export type IconName = keyof typeof PATHS;

@Component({
  selector: 'wn-icon',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 24 24" [attr.width]="size()" [attr.height]="size()" aria-hidden="true">
      @for (d of paths(); track d) {
        <path [attr.d]="d" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: inline-flex;
    }
    svg {
      fill: none;
      stroke: currentColor;
      stroke-width: 2;
      stroke-linecap: round;
      stroke-linejoin: round;
    }
  `,
})
export class Icon {
  readonly name = input.required<IconName>();
  readonly size = input(20);
  protected readonly paths = computed(() => PATHS[this.name()]);
}
