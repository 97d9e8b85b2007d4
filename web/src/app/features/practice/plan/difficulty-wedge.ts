/** How hard a part is and why: a wedge of four shares, tempo, shifts, stretch and strings crossed, that grows with their sum. */
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Difficulty } from '@wild-needle/core/practice';

const PX_A_POINT = 6;
const WIDTH_PX = 64;
const HEIGHT_PX = 16;
const LOWEST_PX = 1;
const CAUSES = ['tempo', 'shifts', 'stretch', 'crossings'] as const;

const heightAt = (x: number): number => LOWEST_PX + (x / WIDTH_PX) * (HEIGHT_PX - 2 - LOWEST_PX);

/** Paths from left to right, each as long as its share; what is over the width is cut. */
export function wedgePaths(difficulty: Difficulty): { readonly cause: string; readonly path: string }[] {
  let x = 0;
  return CAUSES.flatMap((cause) => {
    const to = Math.min(WIDTH_PX, x + difficulty[cause] * PX_A_POINT);
    const [foot, from] = [HEIGHT_PX - 1, x];
    x = to;
    if (to - from < 0.5) return [];
    const path = `M${from.toFixed(1)} ${(foot - heightAt(from)).toFixed(1)}L${to.toFixed(1)} ${(foot - heightAt(to)).toFixed(1)}V${foot}H${from.toFixed(1)}Z`;
    return [{ cause, path }];
  });
}

@Component({
  selector: 'wn-difficulty-wedge',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg width="64" height="16" aria-hidden="true">
      <path class="floor" d="M0 15.5H64" />
      @for (part of parts(); track part.cause) {
        <path [class]="part.cause" [attr.d]="part.path" />
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
    }
    .floor {
      stroke: var(--line2);
    }
    .tempo {
      fill: var(--wedge-1, var(--ink));
    }
    .shifts {
      fill: var(--wedge-2, var(--ink3));
    }
    .stretch {
      fill: var(--wedge-3, var(--line2));
    }
    .crossings {
      fill: var(--wedge-4, var(--groove2));
    }
  `,
})
export class DifficultyWedge {
  readonly difficulty = input.required<Difficulty>();
  protected readonly parts = computed(() => wedgePaths(this.difficulty()));
}
