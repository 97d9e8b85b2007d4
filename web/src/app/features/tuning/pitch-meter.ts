/** The pitch of the recording: a needle over the measured partials it was read from, a cent per stroke. */
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

const CENTRE = { x: 232, y: 262 };
const RADIUS = 200;
/** Degrees to each side that fifty cents take. */
const HALF_TURN = 62;
/** Longest stroke of the histogram. */
const LONGEST = 42;
/** Strokes this near to the needle are inked, the others pale. */
const NEAR_CENTS = 8;

function at(cents: number, radius: number): { x: number; y: number } {
  const angle = ((cents / 50) * HALF_TURN * Math.PI) / 180;
  return { x: CENTRE.x + radius * Math.sin(angle), y: CENTRE.y - radius * Math.cos(angle) };
}

function stroke(cents: number, from: number, to: number): string {
  const [a, b] = [at(cents, from), at(cents, to)];
  return `M${a.x.toFixed(1)} ${a.y.toFixed(1)}L${b.x.toFixed(1)} ${b.y.toFixed(1)}`;
}

@Component({
  selector: 'wn-pitch-meter',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 464 280" aria-hidden="true">
      <path class="arc" [attr.d]="arc" />
      <path class="far" [attr.d]="strokes().far" />
      <path class="near" [attr.d]="strokes().near" />
      @for (tick of ticks; track tick.cents) {
        <path class="tick" [class.big]="tick.isBig" [attr.d]="tick.d" />
        @if (tick.isBig) {
          <text [attr.x]="tick.x" [attr.y]="tick.y">{{ tick.text }}</text>
        }
      }
      <g
        class="needle"
        [style.transform-origin]="'${CENTRE.x}px ${CENTRE.y}px'"
        [style.transform]="'rotate(' + turn() + 'deg)'"
      >
        <path d="M232 152v-${RADIUS - 120}" />
        <rect x="224" y="150" width="16" height="26" rx="3" />
      </g>
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 100%;
      max-height: 300px;
    }
    .arc {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2;
    }
    .far,
    .near {
      stroke-width: 3.2;
    }
    .far {
      stroke: var(--groove3);
    }
    .near {
      stroke: var(--groove);
    }
    .tick {
      stroke: var(--ink);
      stroke-width: 1.2;
    }
    .big {
      stroke-width: 3;
    }
    text {
      fill: var(--ink2);
      font: 600 20px var(--display);
      text-anchor: middle;
    }
    .needle {
      transition: transform 240ms cubic-bezier(0.3, 1.1, 0.5, 1);
    }
    .needle path {
      stroke: var(--needle);
      stroke-width: 4;
    }
    .needle rect {
      fill: var(--needle);
    }
    @media (prefers-reduced-motion: reduce) {
      .needle {
        transition: none;
      }
    }
  `,
})
export class PitchMeter {
  readonly cents = input.required<number>();
  /** Shares from -49 to +50 cents. */
  readonly histogram = input.required<readonly number[]>();

  protected readonly turn = computed(() => (Math.max(-50, Math.min(50, this.cents())) / 50) * HALF_TURN);
  protected readonly arc = `M${at(-50, RADIUS).x} ${at(-50, RADIUS).y}A${RADIUS} ${RADIUS} 0 0 1 ${at(50, RADIUS).x} ${at(50, RADIUS).y}`;
  protected readonly ticks = Array.from({ length: 21 }, (_, i) => {
    const cents = -50 + 5 * i;
    const isBig = cents % 25 === 0;
    const { x, y } = at(cents, RADIUS - 32);
    return {
      cents,
      isBig,
      d: stroke(cents, RADIUS - (isBig ? 16 : 7), RADIUS),
      x,
      y: y + 7,
      text: cents > 0 ? `+${cents}` : String(cents).replace('-', '−'),
    };
  });
  protected readonly strokes = computed(() => {
    const shares = this.histogram();
    const most = shares.reduce((m, v) => Math.max(m, v), 1e-9);
    const parts = { far: '', near: '' };
    shares.forEach((share, i) => {
      const cents = i - 49;
      const around = Math.abs(cents - this.cents());
      const isNear = Math.min(around, 100 - around) <= NEAR_CENTS;
      parts[isNear ? 'near' : 'far'] += stroke(cents, RADIUS + 5, RADIUS + 7 + (LONGEST * share) / most);
    });
    return parts;
  });
}
