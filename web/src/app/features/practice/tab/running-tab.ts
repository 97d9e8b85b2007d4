/** The tab as it runs: chord of now and the one that follows, counts, the line that sounds, and the next. Readable from two metres. */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { pitchClassOf, spellPitchClass } from '@wild-needle/core/theory';
import { ChordName } from '../../../shared/chord-name';
import { Needle } from '../../../shared/needle';
import { behindPaint } from '../../../shared/behind-paint';
import { observeSize } from '../../../shared/observe-size';
import { xOf } from '../../../tab/row-layout';
import { Player } from '../../../transport/player';
import { strumWords } from '../practice-words';
import { PracticeView, type TabLine } from './practice-view';
import { layLine, TabLineView, type LaidLine, type LineRoom } from './tab-line';

const GUTTER_PX = 56;
const COUNTS_PX = 32;
const NAMES_PX = 32;
const NEXT_NAMES_PX = 20;
const NEXT_PX = 80;
const MOST_SCALE = 2.2;
const NEXT_SCALE = 0.6;

@Component({
  selector: 'wn-running-tab',
  imports: [ChordName, Needle, TabLineView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="now">
      <wn-chord-name class="sounding display" [name]="view.sounding()?.name ?? '–'" />
      <p class="said">
        @if (view.sounding(); as now) {
          <b>Bar {{ now.bar }}, beat {{ now.count }}</b>
          <span>{{ words() }}</span>
        } @else if (player.counted(); as beat) {
          <b>Counting in: {{ beat }}</b>
        }
      </p>
      <span class="gap"></span>
      @if (view.then(); as then) {
        <p class="then">then <wn-chord-name class="display" [name]="then.name" /></p>
      }
    </div>
    <div #lane class="lane" [style.margin-left.px]="GUTTER">
      @if (row()) {
        <div class="counts">
          @for (count of counts(); track count.x) {
            <span [class.beat]="count.onBeat" [class.here]="count.isHere" [style.left.px]="count.x">{{
              count.text
            }}</span>
          }
        </div>
        <wn-tab-line
          class="line"
          [laid]="row()!"
          [style.height.px]="lineHeightPx()"
          [soundingId]="view.sounding()?.strum?.id ?? null"
          [strokesShown]="view.layer() !== 'chords'"
        />
        @for (string of strings(); track string.y) {
          <wn-chord-name class="string display" mute [style.top.px]="string.y" [name]="string.name" />
        }
        @if (needleX() !== null) {
          <wn-needle class="needle" [x]="needleX()!" />
        }
      }
    </div>
    @if (nextRow(); as next) {
      <div class="next" [style.margin-left.px]="GUTTER">
        <span class="quiet">Next</span>
        <wn-tab-line [laid]="next" [style.height.px]="NEXT" [strokesShown]="false" [isNext]="true" />
      </div>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      min-height: 0;
      min-width: 0;
    }
    .now {
      display: flex;
      align-items: center;
      gap: 30px;
      flex: none;
      height: 108px;
      padding: 0 16px 0 54px;
      overflow: hidden;
    }
    .sounding {
      color: var(--needle);
      font-size: 110px;
      font-weight: 800;
      line-height: 108px;
      letter-spacing: -0.01em;
    }
    .said b {
      display: block;
      font-size: 18px;
      line-height: 24px;
    }
    .said span {
      font-size: 16px;
      line-height: 22px;
      color: var(--ink2);
    }
    .gap {
      flex: 1;
    }
    .then {
      display: flex;
      align-items: baseline;
      gap: 12px;
      color: var(--ink2);
      font-size: 16px;
      white-space: nowrap;
    }
    .then .display {
      font-size: 60px;
      font-weight: 600;
    }
    .lane {
      position: relative;
      flex: 1;
      min-height: 0;
      margin-right: 16px;
      border-top: 1px solid var(--line);
    }
    .counts {
      position: relative;
      height: 32px;
      border-bottom: 1px solid var(--line);
    }
    .counts span {
      position: absolute;
      bottom: 2px;
      padding-left: 6px;
      border-left: 1px solid var(--line2);
      font: 400 15px/20px var(--words);
      color: var(--ink3);
    }
    .counts .beat {
      border-left-width: 2px;
      font: 700 24px/24px var(--display);
      color: var(--ink);
    }
    .counts .here {
      color: var(--needle);
    }
    .string {
      position: absolute;
      left: -44px;
      width: 34px;
      text-align: right;
      font-size: 22px;
      font-weight: 700;
      line-height: 22px;
    }
    .needle {
      position: absolute;
      top: 12px;
      bottom: 0;
      left: 0;
    }
    .next {
      position: relative;
      flex: none;
      height: 86px;
      margin-right: 16px;
      padding-top: 4px;
    }
    .next::before {
      content: '';
      position: absolute;
      left: -56px;
      right: -16px;
      top: 0;
      border-top: 1px solid var(--line2);
    }
    // On a low page the line that sounds has the room of both.
    @media (max-height: 740px) {
      .next {
        display: none;
      }
    }
    .next .quiet {
      position: absolute;
      left: -40px;
      top: 42px;
      font-size: 13px;
    }
  `,
})
export class RunningTab {
  protected readonly view = inject(PracticeView);
  protected readonly player = inject(Player);
  private readonly lane = viewChild<ElementRef<HTMLElement>>('lane');
  protected readonly GUTTER = GUTTER_PX;
  protected readonly NEXT = NEXT_PX;
  private readonly laneHeightPx = signal(216);
  protected readonly lineHeightPx = computed(() => Math.max(120, this.laneHeightPx() - COUNTS_PX - 2));

  constructor() {
    observeSize(this.lane, ({ width, height }) => {
      this.view.widthPx.set(Math.round(width));
      this.laneHeightPx.set(Math.round(height));
    });
    // What was turned by hand stays until the needle has gone on.
    effect(() => {
      this.view.needleIsIn();
      untracked(() => this.view.turnBack());
    });
  }

  /** A frame behind the line that sounds. */
  private readonly nextLine = behindPaint(this.view.nextLine);

  private laid(line: TabLine | null, room: Omit<LineRoom, 'widthPx'>): LaidLine | null {
    const document = this.view.document();
    if (!line || !document) return null;
    const { tuning } = document;
    return layLine(line, { tuning, key: this.view.key() }, { ...room, widthPx: this.view.widthPx() });
  }

  protected readonly row = computed(() =>
    this.laid(this.view.line(), { heightPx: this.lineHeightPx(), namesPx: NAMES_PX, mostScale: MOST_SCALE }),
  );
  protected readonly nextRow = computed(() =>
    this.laid(this.nextLine(), { heightPx: NEXT_PX, namesPx: NEXT_NAMES_PX, mostScale: NEXT_SCALE }),
  );
  protected readonly words = computed(() => {
    const now = this.view.sounding();
    return now ? strumWords(now.strum, now.beats) : '';
  });
  private readonly window = computed(() => ({
    fromTicks: 0,
    toTicks: this.view.line()?.pass.toTicks ?? 1,
  }));
  protected readonly needleX = computed(() => {
    const ticks = this.view.needleTicks();
    return ticks === null ? null : xOf(ticks, this.window(), this.view.widthPx());
  });
  protected readonly counts = computed(() => {
    const row = this.row();
    const beatX = this.beatX();
    return (row?.layout.counts ?? []).map(({ x, text, onBeat }) => ({
      ...{ text, onBeat, x: x * (row?.scale ?? 1) },
      isHere: onBeat && x === beatX,
    }));
  });
  /** Of the beat that the needle is in, in the measure of the row. */
  private readonly beatX = computed(() => {
    const [row, x] = [this.row(), this.needleX()];
    if (!row || x === null) return null;
    return row.layout.counts.findLast((c) => c.onBeat && c.x * row.scale <= x + 1)?.x ?? null;
  });
  protected readonly strings = computed(() => {
    const [row, document] = [this.row(), this.view.document()];
    if (!row || !document) return [];
    const { stringsMidi, capo } = document.tuning;
    return row.layout.lines.flatMap(({ string, y, open }) =>
      open
        ? [
            {
              y: COUNTS_PX + 1 + row.room.namesPx + y * row.scale - 11,
              name: spellPitchClass(
                pitchClassOf(stringsMidi[stringsMidi.length - string] + capo),
                this.view.key(),
              ),
            },
          ]
        : [],
    );
  });
}
