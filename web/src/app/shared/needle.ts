/** The stylus on its line: moved by the compositor, outside of change detection. */
import { ChangeDetectionStrategy, Component, effect, ElementRef, inject, input } from '@angular/core';

@Component({
  selector: 'wn-needle',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 16 16" aria-hidden="true"><path d="M1 0h14v8l-7 8-7-8Z" /></svg>
    <i></i>
  `,
  styles: `
    :host {
      display: block;
      width: 0;
      will-change: transform;
    }
    svg {
      position: absolute;
      left: -8px;
      top: 0;
      width: 16px;
      height: 16px;
      fill: var(--needle);
    }
    i {
      position: absolute;
      left: -1px;
      top: 10px;
      bottom: 0;
      width: 2px;
      background: var(--needle);
    }
  `,
})
export class Needle {
  /** Pixels from the left edge of the lane. */
  readonly x = input.required<number>();

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    effect(() => {
      host.style.transform = `translateX(${this.x()}px)`;
    });
  }
}
