/** "Heard you": input on and off, how many strums of the round were right, how early or late, and what was a slip. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';
import { scaleLinear } from 'd3-scale';
import { TOO_QUIET_DB } from '@wild-needle/core/practice';
import { INPUT_CHANNELS } from '../../../input/audio-input';
import { verdictPath } from '../../../shared/verdict-paths';
import { PRACTICE_KEYS } from '../practice-keys';
import { HeardYou } from './heard-you';
import { isRight, offsetWords } from './heard-words';

const WIDTH_PX = 248;
const MIDDLE_Y = 24;
/** As far as the line reaches to both sides. */
const MOST_MS = 60;
/** Dots that would lie on each other stand in three rows. */
const ROWS_Y = [0, -8, 8];
const TICKS_MS = [-40, -20, 20, 40];
/** More slips are not read while playing. */
const MOST_SLIPS = 2;

@Component({
  selector: 'wn-heard-panel',
  imports: [MatButton, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2 class="display">Heard you</h2>
      <span class="gap"></span>
      <button mat-stroked-button [attr.aria-pressed]="isOn()" (click)="heard.toggle()">
        {{ label() }} <kbd>{{ keys.input.caps }}</kbd>
      </button>
      <button mat-stroked-button class="more" aria-label="Which input" [matMenuTriggerFor]="inputs">…</button>
      <mat-menu #inputs>
        @for (device of heard.input.devices(); track device.id) {
          <button mat-menu-item (click)="useDevice(device.id)">{{ device.label }}</button>
        }
        @for (channel of CHANNELS; track channel) {
          <button
            mat-menu-item
            [attr.aria-pressed]="heard.input.channel() === channel"
            (click)="heard.input.channel.set(channel)"
          >
            {{ heard.input.channel() === channel ? '●' : '○' }} {{ CHANNEL_WORDS[channel] }}
          </button>
        }
        <button mat-menu-item [disabled]="heard.mode() !== 'input'" (click)="heard.measureDelay()">
          Measure the delay: tap along to eight clicks
        </button>
        <button mat-menu-item (click)="heard.answersItself.set(!heard.answersItself())">
          {{ heard.answersItself() ? '●' : '○' }} What is heard answers for me
        </button>
        <button mat-menu-item (click)="heard.simulate()">Simulated player, with mistakes</button>
      </mat-menu>
    </header>
    @if (sentence(); as words) {
      <p class="quiet" role="status">{{ words }}</p>
      @if (heard.mode() === 'off') {
        <button mat-stroked-button class="simulate" (click)="heard.simulate()">Simulated player</button>
      }
    } @else {
      @if (headline(); as line) {
        <p class="sum" role="status" [attr.aria-label]="line.spoken">
          <span class="display">{{ line.count }}</span>
          <span
            >{{ line.words }}<br /><b>{{ line.offset }}</b></span
          >
        </p>
      }
      <svg width="248" height="52" role="img" [attr.aria-label]="spokenLine()">
        <path class="axis" [attr.d]="'M0 ' + (MIDDLE + 0.5) + 'H248'" />
        <path class="beat" [attr.d]="'M124 ' + (MIDDLE - 18) + 'V' + (MIDDLE + 18)" />
        @for (x of ticks; track x) {
          <path class="tick" [attr.d]="'M' + x + ' ' + (MIDDLE - 4) + 'v9'" />
        }
        @for (dot of dots(); track $index) {
          @if (dot.isRight) {
            <circle r="4" [attr.cx]="dot.x" [attr.cy]="dot.y" />
          } @else {
            <path class="wrong" [attr.d]="dot.mark" />
          }
        }
        @if (meanX(); as x) {
          <path class="mean" [attr.d]="'M' + (x - 5) + ' 0h10l-5 8Z'" />
        }
        <text x="0" y="51">early</text>
        <text x="124" y="51" text-anchor="middle">on the beat</text>
        <text x="248" y="51" text-anchor="end">late</text>
      </svg>
      @for (slip of slips(); track slip.index) {
        <p class="slip">
          <b>{{ slip.place }}</b>: {{ slip.words }}
        </p>
      }
      @if (more(); as words) {
        <p class="quiet slip">{{ words }}</p>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      padding-top: 8px;
      border-top: 1px solid var(--line2);
    }
    header {
      display: flex;
      align-items: center;
      gap: 6px;
    }
    h2 {
      font-size: 24px;
      font-weight: 600;
      white-space: nowrap;
    }
    .gap {
      flex: 1;
    }
    header button {
      height: 32px;
      min-width: 0;
      padding: 0 9px;
      white-space: nowrap;
    }
    [aria-pressed='true'] {
      box-shadow: inset 0 -4px 0 var(--ink);
    }
    .quiet {
      margin-top: 8px;
      font-size: 14px;
      line-height: 19px;
    }
    .simulate {
      height: 32px;
      margin-top: 8px;
    }
    .sum {
      display: flex;
      align-items: baseline;
      gap: 10px;
      margin-top: 4px;
      font-size: 15px;
      line-height: 18px;
    }
    .sum .display {
      font-size: 38px;
      font-weight: 800;
      line-height: 40px;
      white-space: nowrap;
    }
    svg {
      display: block;
      margin-top: 4px;
      overflow: visible;
    }
    .axis {
      stroke: var(--ink2);
    }
    .beat {
      stroke: var(--ink);
      stroke-width: 2;
    }
    .tick {
      stroke: var(--line2);
    }
    circle {
      fill: var(--ok);
      stroke: var(--sleeve);
    }
    .wrong {
      fill: var(--sleeve);
      stroke: var(--doubt);
      stroke-width: 1.6;
    }
    .mean {
      fill: var(--ink);
    }
    text {
      font: 400 13px var(--words);
      fill: var(--ink2);
    }
    .slip {
      margin-top: 4px;
      font-size: 14px;
      line-height: 18px;
    }
  `,
})
export class HeardPanel {
  protected readonly heard = inject(HeardYou);
  protected readonly keys = PRACTICE_KEYS;
  protected readonly MIDDLE = MIDDLE_Y;
  protected readonly CHANNELS = INPUT_CHANNELS;
  protected readonly CHANNEL_WORDS = {
    mix: 'Both channels',
    left: 'Left channel',
    right: 'Right channel',
  } as const;
  private readonly x = scaleLinear([-MOST_MS, MOST_MS], [4, WIDTH_PX - 4]).clamp(true);
  protected readonly ticks = TICKS_MS.map((ms) => this.x(ms));

  protected readonly isOn = computed(() => this.heard.mode() !== 'off');
  protected readonly label = computed(
    () => ({ off: 'Input off', input: 'Input on', simulated: 'Simulated' })[this.heard.mode()],
  );
  /** What is said in place of figures; null where there are some. */
  protected readonly sentence = computed((): string | null => {
    const { mode, input, problem, isMeasuring, last, soFar, isDelayKnown } = this.heard;
    if (problem() !== '') return problem();
    if (isMeasuring()) return 'Hit the muted strings with every click …';
    if (mode() === 'off') {
      const status = input.status();
      if (status === 'refused') return 'The browser keeps the input to itself.';
      if (status === 'lost') return 'The input was unplugged. What was heard is kept.';
      if (status === 'none') return 'No input was found.';
      return 'Plug the guitar in and press H; without it you are the judge. Headphones keep the record out of the input.';
    }
    if (last() === null && soFar().length === 0) {
      return isDelayKnown()
        ? 'Play along: each strum is told a beat after it.'
        : 'Play along: the first round tells how late this device is.';
    }
    const round = last();
    return round && soFar().length === 0 && round.judged.levelDb < TOO_QUIET_DB ? 'Too quiet to tell.' : null;
  });

  /** Of the round that plays once a few strums are known, else of the last one. */
  protected readonly headline = computed(() => {
    const [soFar, last] = [this.heard.soFar(), this.heard.last()];
    if (!last) {
      const right = soFar.filter(isRight).length;
      return this.line(`${right} of ${soFar.length}`, 'strums so far', soFar);
    }
    const { judged, number } = last;
    const right = judged.strums.filter(isRight).length;
    return this.line(`${right} of ${judged.strums.length}`, `strums in round ${number},`, judged.strums);
  });
  private readonly shown = computed(() => {
    const [soFar, last] = [this.heard.soFar(), this.heard.last()];
    return soFar.length > 0 || !last ? soFar : last.judged.strums;
  });
  protected readonly dots = computed(() =>
    this.shown().flatMap((strum, i) =>
      strum.offsetS === null
        ? []
        : [
            {
              x: this.x(1000 * strum.offsetS),
              y: MIDDLE_Y + ROWS_Y[i % ROWS_Y.length],
              isRight: isRight(strum),
              mark: verdictPath('doubtful', this.x(1000 * strum.offsetS), MIDDLE_Y),
            },
          ],
    ),
  );
  protected readonly meanX = computed(() => {
    const last = this.heard.last();
    return last ? this.x(1000 * last.judged.summary.meanOffsetS) : null;
  });
  protected readonly slips = computed(() => (this.heard.last()?.slips ?? []).slice(0, MOST_SLIPS));
  protected readonly more = computed(() => {
    const last = this.heard.last();
    if (!last) return '';
    const [hidden, extra] = [last.slips.length - MOST_SLIPS, last.judged.extraS.length];
    return [
      ...(hidden > 0 ? [`${hidden} more ${hidden === 1 ? 'slip' : 'slips'}`] : []),
      ...(extra > 0 ? [`${extra} ${extra === 1 ? 'strum' : 'strums'} too many`] : []),
    ].join(', ');
  });
  protected readonly spokenLine = computed(() => this.headline()?.spoken ?? '');

  private line(count: string, words: string, strums: readonly { readonly offsetS: number | null }[]) {
    const offsets = strums.flatMap((s) => s.offsetS ?? []);
    const meanMs = offsets.length === 0 ? 0 : (1000 * offsets.reduce((a, b) => a + b, 0)) / offsets.length;
    const offset = offsets.length === 0 ? '' : `mean ${offsetWords(meanMs)}`;
    return { count, words, offset, spoken: `${count} ${words} ${offset}` };
  }

  protected useDevice(id: string): void {
    this.heard.input.deviceId.set(id);
    void this.heard.switchOn();
  }
}
