/** The recording above the tab on one ruler: the bar of the question and the one before it. */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { passTicksToSeconds, secondsToPassTicks } from '@wild-needle/core/riff';
import { EnvelopeStore } from '../../../recording/envelope.store';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { ChordName } from '../../../shared/chord-name';
import { groovePath } from '../../../shared/groove-path';
import { Needle } from '../../../shared/needle';
import { observeSize } from '../../../shared/observe-size';
import { layoutRow, xOf, type RowLayout } from '../../../tab/row-layout';
import { StrumGlyph } from '../../../tab/strum-glyph';
import { Player } from '../../../transport/player';
import { CheckWalk } from '../walk/check-walk';
import { barsAsRiff } from '../../../tab/bars-as-riff';

const LABEL_PX = 76;
const RULER_PX = 16;
const GROOVE_PX = 30;
const NAMES_PX = 16;
const TAB_TOP = RULER_PX + GROOVE_PX + NAMES_PX;
/** The drawn tab, from the top of its first block to the foot of its last. */
const TAB_PX = 48;
/** On a wide page two bars more fit. */
const WIDE_PX = 1200;
/** A covered strum is this wide, whatever stands there. */
const COVER_PX = 26;

@Component({
  selector: 'wn-compare-lanes',
  imports: [ChordName, Needle, StrumGlyph],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="label recording">Recording</span>
    <span class="label tab">Tab</span>
    <div #lane class="lane">
      @if (layout(); as row) {
        <svg
          class="tab-lane"
          [attr.width]="widthPx()"
          [attr.height]="HEIGHT"
          role="img"
          [attr.aria-label]="spoken()"
        >
          <defs>
            <pattern
              id="hatch"
              width="6"
              height="6"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <rect width="6" height="6" class="hatch-ground" />
              <line x1="0" y1="0" x2="0" y2="6" class="hatch-line" />
            </pattern>
          </defs>
          @if (stretch(); as place) {
            <rect
              class="stretch"
              [attr.x]="place.x"
              [attr.width]="place.width"
              [attr.y]="RULER_PX"
              [attr.height]="HEIGHT - RULER_PX"
            />
          }
          @for (x of row.barLines; track x) {
            <path class="bar" [attr.d]="'M' + x + ' 0V' + HEIGHT" />
          }
          <path class="sound" [attr.d]="groove()" />
          <path class="onsets" [attr.d]="onsets()" />
          <g [attr.transform]="'translate(0 ' + tabTop() + ') scale(1 ' + scale() + ')'">
            @for (line of row.lines; track line.string) {
              <path class="string" [class.folded]="!line.open" [attr.d]="'M0 ' + line.y + 'H' + widthPx()" />
            }
          </g>
          <g [attr.transform]="'translate(0 ' + tabTop() + ') scale(' + scale() + ')'">
            @for (block of blocks(); track block.id) {
              <g
                wnStrum
                [block]="block"
                [sounding]="false"
                [selected]="false"
                [writtenString]="null"
                [strokesShown]="false"
              />
            }
          </g>
          @if (cover(); as place) {
            <rect
              class="cover"
              rx="7"
              [attr.x]="place.x"
              [attr.y]="TAB_TOP"
              [attr.width]="COVER_PX"
              [attr.height]="TAB_PX"
            />
            <text class="ask" [attr.x]="place.x + COVER_PX / 2" [attr.y]="TAB_TOP + TAB_PX / 2 + 8">?</text>
          }
        </svg>
        @for (count of row.counts; track count.x) {
          @if (count.onBeat) {
            <b class="count display" [class.here]="count.x === beatX()" [style.left.px]="count.x + 6">{{
              count.text
            }}</b>
          }
        }
        @for (bar of bars(); track bar.x) {
          <span class="bar-number" [style.left.px]="bar.x + 18">bar {{ bar.number }}</span>
        }
        @for (block of named(); track block.id) {
          <wn-chord-name class="name display" mute [style.left.px]="block.x" [name]="block.name" />
        }
        @if (needleX(); as x) {
          <wn-needle class="needle" [x]="x" />
        }
      } @else {
        <p class="quiet">No bars are here: this part is in free time.</p>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      height: 116px;
      border-bottom: 1px solid var(--line2);
    }
    .label {
      position: absolute;
      left: 0;
      color: var(--ink2);
    }
    .recording {
      top: 20px;
    }
    .tab {
      top: 76px;
    }
    .lane {
      position: absolute;
      left: 76px;
      right: 0;
      top: 0;
      bottom: 0;
    }
    svg {
      display: block;
      overflow: visible;
    }
    .stretch {
      fill: var(--shade);
    }
    .bar {
      stroke: var(--line2);
    }
    .sound {
      fill: var(--groove);
    }
    .onsets {
      stroke: var(--groove2);
    }
    .string {
      stroke: var(--line2);
      vector-effect: non-scaling-stroke;
    }
    .string.folded {
      stroke: var(--line);
    }
    .hatch-ground {
      fill: var(--sleeve);
    }
    .hatch-line {
      stroke: var(--ink);
      stroke-width: 5;
    }
    .cover {
      fill: var(--sleeve);
      stroke: var(--ink);
      stroke-width: 2;
      stroke-dasharray: 4 3;
    }
    .ask {
      fill: var(--ink);
      font: 700 22px var(--display);
      text-anchor: middle;
    }
    .count,
    .bar-number,
    .name {
      position: absolute;
      white-space: nowrap;
    }
    .count {
      top: 0;
      font-size: 16px;
      font-weight: 600;
      color: var(--ink2);
    }
    .count.here {
      color: var(--ink);
      font-weight: 800;
    }
    .bar-number {
      top: 0;
      font-size: 12px;
      line-height: 16px;
      color: var(--ink3);
    }
    .name {
      top: 46px;
      font-size: 15px;
      font-weight: 600;
    }
    .needle {
      position: absolute;
      top: 0;
      bottom: 0;
      left: 0;
    }
  `,
})
export class CompareLanes {
  /** Ear first: what is written there is not shown. */
  readonly covered = input.required<boolean>();
  private readonly song = inject(OpenSongStore);
  private readonly walk = inject(CheckWalk);
  private readonly player = inject(Player);
  private readonly envelope = inject(EnvelopeStore).envelope;
  private readonly lane = viewChild<ElementRef<HTMLElement>>('lane');
  protected readonly widthPx = signal(868);
  protected readonly HEIGHT = TAB_TOP + TAB_PX + 4;
  protected readonly RULER_PX = RULER_PX;
  protected readonly TAB_TOP = TAB_TOP;
  protected readonly TAB_PX = TAB_PX;
  protected readonly COVER_PX = COVER_PX;

  constructor() {
    observeSize(this.lane, ({ width }) => this.widthPx.set(Math.round(width)));
  }

  private readonly shown = computed(() => {
    const [document, question] = [this.song.written(), this.walk.studied()];
    const bar = question && this.walk.barOf(question);
    if (!document || !bar) return null;
    const count = this.widthPx() + LABEL_PX >= WIDE_PX ? 4 : 2;
    const first = Math.max(0, bar.bar - count + 1);
    return barsAsRiff(document, first, Math.min(count, bar.bar - first + 1));
  });

  protected readonly layout = computed((): RowLayout | null => {
    const shown = this.shown();
    if (!shown) return null;
    return layoutRow(shown.riff, {
      tuning: this.walk.tuning(),
      key: this.walk.key(),
      widthPx: this.widthPx(),
      window: this.window(),
      openString: null,
    });
  });
  private readonly window = computed(() => ({ fromTicks: 0, toTicks: this.shown()?.pass.toTicks ?? 1 }));
  private readonly chosenId = computed(() => this.walk.studied()?.id ?? '');

  /** From the top of the highest string in use to the foot of the lowest, in the pixels of the layout. */
  private readonly reach = computed(() => {
    const { lines = [], blocks = [] } = this.layout() ?? {};
    const top = Math.min(...lines.map((l) => l.y), ...blocks.map((b) => b.top));
    const foot = Math.max(...lines.map((l) => l.y), ...blocks.map((b) => b.top + b.height));
    return { top, height: Math.max(1, foot - top) };
  });
  protected readonly scale = computed(() => Math.min(1, TAB_PX / this.reach().height));
  protected readonly tabTop = computed(() => TAB_TOP - this.reach().top * this.scale());

  /** Drawn smaller as a whole: their places along the lane stay. */
  protected readonly blocks = computed(() => {
    const scale = this.scale();
    const all = this.layout()?.blocks ?? [];
    const shown = this.covered() ? all.filter((b) => b.id !== this.chosenId()) : all;
    return shown.map((b) => ({ ...b, x: b.x / scale, tailX: b.tailX / scale, joins: [] }));
  });
  protected readonly named = computed(() =>
    (this.layout()?.blocks ?? []).filter(
      (b) => b.name !== '' && !b.palmMute && !(this.covered() && b.id === this.chosenId()),
    ),
  );
  protected readonly bars = computed(() => {
    const first = this.shown()?.firstBar ?? 0;
    return (this.layout()?.barNumbers ?? []).map(({ x, number }) => ({ x, number: first + number }));
  });

  private readonly ticksOf = (timeS: number): number => {
    const [shown, grid] = [this.shown(), this.song.document()?.grid];
    return shown && grid ? secondsToPassTicks(shown.pass, grid, timeS) : 0;
  };
  protected readonly xOfTime = (timeS: number): number =>
    xOf(this.ticksOf(timeS), this.window(), this.widthPx());

  protected readonly stretch = computed(() => {
    const question = this.walk.studied();
    if (!question) return null;
    const x = Math.max(0, this.xOfTime(question.timeS) - 8);
    return { x, width: Math.max(24, Math.min(this.widthPx(), this.xOfTime(question.endS)) - x) };
  });
  protected readonly beatX = computed(() => {
    const question = this.walk.studied();
    const at = question ? this.xOfTime(question.timeS) : 0;
    return (this.layout()?.counts ?? []).findLast((c) => c.onBeat && c.x <= at + 1)?.x ?? null;
  });
  protected readonly cover = computed(() => {
    const question = this.walk.studied();
    return this.covered() && question ? { x: this.xOfTime(question.timeS) } : null;
  });

  protected readonly groove = computed(() => {
    const [envelope, shown, grid] = [this.envelope(), this.shown(), this.song.document()?.grid];
    if (!envelope || !shown || !grid) return '';
    const toTicks = shown.pass.toTicks / this.widthPx();
    return groovePath(
      envelope,
      this.widthPx(),
      GROOVE_PX,
      (x) => passTicksToSeconds(shown.pass, grid, x * toTicks),
      {
        topPx: RULER_PX,
      },
    );
  });
  /** Where strums were heard that stand in these bars. */
  protected readonly onsets = computed(() => {
    const shown = this.shown();
    if (!shown) return '';
    const { startS, endS } = shown.pass;
    return this.walk
      .all()
      .flatMap((q) => (q.heard && q.heard.timeS >= startS && q.heard.timeS < endS ? [q.heard.timeS] : []))
      .map((timeS) => `M${this.xOfTime(timeS).toFixed(1)} ${RULER_PX}v${GROOVE_PX}`)
      .join('');
  });

  protected readonly needleX = computed(() => {
    const shown = this.shown();
    const now = this.player.nowS();
    if (!shown || now < shown.pass.startS || now > shown.pass.endS) return null;
    return this.xOfTime(now);
  });
  protected readonly spoken = computed(() => {
    const bars = this.bars().map((b) => b.number);
    return `Recording and tab, bars ${bars.join(' and ')}`;
  });
}
