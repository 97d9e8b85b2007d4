/** The strings of the tuning: note, frequency, steps from standard, tension; each can be moved, sounded and tuned. */
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import type { StringTarget } from '@wild-needle/core/guitar';
import { spellPitchClass, type Key } from '@wild-needle/core/theory';
import { ChordName } from '../../shared/chord-name';
import { Icon } from '../../shared/icon';
import { stepWords, tunerWords, VERDICT_WORDS } from './tuning-words';

/** The string that the tuner hears, and how far it is off. */
export interface HeardString {
  readonly string: number;
  readonly cents: number;
}

const SHARPS: Key = { tonic: 'E', mode: 'major' };
const FLATS: Key = { tonic: 'Db', mode: 'major' };
const DRAWN = 240;

/** A taut string is straight, a slack one swings. */
function swing(tensionKg: number): string {
  const height = Math.max(0, Math.min(9, 3.2 * (6.6 - tensionKg)));
  const middle = 12;
  return `M2 ${middle}q${DRAWN / 8} ${-height} ${DRAWN / 4} 0t${DRAWN / 4} 0t${DRAWN / 4} 0t${DRAWN / 4} 0`;
}

@Component({
  selector: 'wn-string-table',
  imports: [ChordName, Icon, MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (row of rows(); track row.string) {
        <li [class.heard]="row.heard !== null">
          <button
            class="number"
            [attr.aria-label]="(isStriking() ? 'Strike string ' : 'Sound string ') + row.string"
            (click)="sounded.emit(row.string)"
          >
            {{ row.string }}
          </button>
          <span class="display note"
            ><wn-chord-name [name]="row.name" /><sub>{{ row.octave }}</sub></span
          >
          <span class="other quiet">
            @if (row.other) {
              <wn-chord-name [name]="row.other" />
            }
          </span>
          <span class="mono hz">{{ row.freqHz.toFixed(1) }} Hz</span>
          <span class="steps" [class.moved]="row.steps !== 0"
            >{{ row.stepText }} <i aria-hidden="true">{{ row.arrows }}</i></span
          >
          <span class="move">
            <button
              mat-stroked-button
              [attr.aria-label]="'String ' + row.string + ' down'"
              (click)="moved.emit({ string: row.string, by: -1 })"
            >
              −
            </button>
            <button
              mat-stroked-button
              [attr.aria-label]="'String ' + row.string + ' up'"
              (click)="moved.emit({ string: row.string, by: 1 })"
            >
              +
            </button>
          </span>
          @if (row.heard; as heard) {
            <span class="tuner">
              <i class="zero"></i><i class="hand" [style.left.%]="heard.left"></i>
              <b role="status">{{ heard.words }}</b>
              <span class="mono">{{ heard.cents }}</span>
              @if (isStriking()) {
                <span class="pegs">
                  <button
                    mat-stroked-button
                    [attr.aria-label]="'Loosen string ' + row.string"
                    (click)="turned.emit({ string: row.string, by: -1 })"
                  >
                    ▼
                  </button>
                  <button
                    mat-stroked-button
                    [attr.aria-label]="'Tighten string ' + row.string"
                    (click)="turned.emit({ string: row.string, by: 1 })"
                  >
                    ▲
                  </button>
                </span>
              }
            </span>
          } @else {
            <svg viewBox="0 0 244 24" preserveAspectRatio="none" aria-hidden="true">
              <path [attr.d]="row.swing" [style.stroke-width]="row.width" />
            </svg>
            <span class="mono">{{ row.tensionKg.toFixed(1) }}&nbsp;kg</span>
            <span class="verdict" [class.doubt]="row.verdict !== 'good'">
              @if (row.verdict !== 'good') {
                <wn-icon name="doubt" [size]="16" />
              }
              {{ row.words }}
            </span>
          }
        </li>
      }
    </ul>
  `,
  styles: `
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 36px 62px 34px 92px 112px 68px 96px 56px minmax(0, 1fr);
      align-items: center;
      gap: 8px;
      min-height: 40px;
      border-bottom: 1px solid var(--line);
    }
    .number {
      height: 36px;
      border: 0;
      background: none;
      color: var(--ink2);
      font: 600 20px var(--display);
      cursor: pointer;
    }
    .note {
      font-size: 32px;
      font-weight: 800;
    }
    sub {
      font-size: 16px;
      font-weight: 500;
      color: var(--ink2);
      vertical-align: baseline;
    }
    .hz {
      text-align: right;
    }
    .steps i {
      font-style: normal;
      font-size: 10px;
      letter-spacing: 2px;
    }
    .moved {
      font-weight: 600;
    }
    .move {
      display: flex;
      gap: 4px;
    }
    .move button {
      min-width: 32px;
      width: 32px;
      height: 32px;
      padding: 0;
    }
    svg {
      width: 100%;
      height: 24px;
    }
    svg path {
      fill: none;
      stroke: var(--ink);
      vector-effect: non-scaling-stroke;
    }
    .verdict {
      display: flex;
      gap: 6px;
      font-size: 13px;
      line-height: 16px;
      color: var(--ink2);
    }
    .verdict.doubt {
      color: var(--doubt);
      font-weight: 600;
    }
    .heard {
      background: var(--sleeve);
    }
    .tuner {
      grid-column: 7 / -1;
      position: relative;
      display: flex;
      justify-content: space-between;
      align-items: flex-end;
      height: 36px;
      border-bottom: 2px solid var(--line2);
    }
    .tuner i {
      position: absolute;
      bottom: 0;
      width: 4px;
      margin-left: -2px;
    }
    .pegs {
      display: flex;
      gap: 4px;
    }
    .pegs button {
      min-width: 32px;
      width: 32px;
      height: 32px;
      padding: 0;
      font-size: 10px;
    }
    .zero {
      left: 50%;
      height: 12px;
      background: var(--ink);
    }
    .hand {
      height: 24px;
      background: var(--needle);
    }
  `,
})
export class StringTable {
  readonly strings = input.required<readonly StringTarget[]>();
  readonly key = input.required<Key | null>();
  readonly heard = input.required<HeardString | null>();
  /** The simulated guitar is the input: a press strikes its string. */
  readonly isStriking = input.required<boolean>();
  readonly sounded = output<number>();
  readonly moved = output<{ string: number; by: 1 | -1 }>();
  /** A peg of the simulated guitar. */
  readonly turned = output<{ string: number; by: 1 | -1 }>();

  protected readonly rows = computed(() =>
    this.strings().map((target) => {
      const pc = target.midi % 12;
      const name = spellPitchClass(pc, this.key());
      const heard = this.heard();
      return {
        ...target,
        name,
        octave: Math.floor(target.midi / 12) - 1,
        // Tuners show one of the two names: both are given.
        other: [SHARPS, FLATS].map((key) => spellPitchClass(pc, key)).find((n) => n !== name) ?? '',
        stepText: stepWords(target.steps),
        arrows: (target.steps < 0 ? '▼' : '▲').repeat(Math.min(5, Math.abs(target.steps))),
        swing: swing(target.tensionKg),
        width: 0.8 + 60 * target.gauge.inches,
        words: VERDICT_WORDS[target.verdict],
        heard:
          heard?.string === target.string
            ? {
                left: 50 + Math.max(-50, Math.min(50, heard.cents)),
                words: tunerWords(heard.cents),
                cents: `${heard.cents < 0 ? '−' : '+'}${Math.abs(heard.cents).toFixed(1)}`,
              }
            : null,
      };
    }),
  );
}
