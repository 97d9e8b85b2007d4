/**
 * The lane that the riff and its passes share: how wide it is beside the panel, which bars are in view, and where the needle is in
 * them.
 */
import { computed, inject, Injectable, linkedSignal, signal } from '@angular/core';
import {
  barOf,
  barStartsTicks,
  countAt,
  passesOf,
  PLAIN_SECTION,
  riffTicks,
  secondsToPassTicks,
  type Pass,
} from '@wild-needle/core/riff';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { Now } from '../../../transport/now';
import { Player } from '../../../transport/player';
import {
  barsThatFit,
  follow,
  pageOf,
  type BarsInView,
  type Followed,
  type Turned,
} from '../../../tab/bars-in-view';
import { xOf, type TickWindow } from '../../../tab/row-layout';

/** Left of the lane: string names and pass numbers. */
export const GUTTER = 88;
const LANE_PADDING = 8;
/** Widths of the panel at the side: whole, with half a neck and the marks behind a button, and behind its notch. */
export const PANEL_PX = { wide: 344, narrow: 224, closed: 0 } as const;
export type PanelSize = keyof typeof PANEL_PX;
/** On a page up to this wide the tab needs all of it. */
const SMALL_PAGE_PX = 1000;
/** The needle stands in a bar when it is this little before its line. */
const ON_BEAT_S = 1e-3;

@Injectable()
export class Lane {
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly now = inject(Now);

  /** Sizes on screen; they follow the window. */
  readonly pageWidth = signal(innerWidth);
  /** What the hand made of the panel; null while it suits itself to the riff. */
  private readonly panelWish = signal<PanelSize | null>(null);

  /** Then the panel lies over the tab while it is open. */
  readonly isSmall = computed(() => this.pageWidth() <= SMALL_PAGE_PX);
  /** The panel gives way where that brings a bar more into view. */
  readonly panel = computed((): PanelSize => {
    const [wish, riff] = [this.panelWish(), this.song.riff()];
    if (this.isSmall()) return wish === 'wide' ? 'wide' : 'closed';
    if (wish && wish !== 'closed') return wish;
    const fit = (size: PanelSize): number => (riff ? barsThatFit(riff, this.laneBeside(size)) : 1);
    return fit('narrow') > fit('wide') ? 'narrow' : 'wide';
  });
  readonly width = computed(() => this.laneBeside(this.panel()));

  /** The pass under the needle, if it is one of the shown section's. */
  readonly passHere = computed((): Pass | null => {
    const pass = this.now.pass();
    return pass?.sectionId === this.song.sectionId() ? pass : null;
  });

  /** Where the needle is in the riff; null while it is in no pass of the section. */
  readonly needleTicks = computed((): number | null => {
    const [pass, document] = [this.passHere(), this.song.document()];
    return pass && document ? secondsToPassTicks(pass, document.grid, this.player.nowS()) : null;
  });

  /** What the bars in view follow. */
  private readonly followed = computed(
    (): Followed => {
      const riff = this.song.riff();
      const chosen = this.song.strum()?.startTicks ?? this.song.placeTicks();
      const needle = this.needleTicks();
      return {
        riffId: this.song.riffId(),
        bars: riff?.bars.length ?? 1,
        count: riff ? barsThatFit(riff, this.width()) : 1,
        needleBar: riff && needle !== null ? barOf(riff, needle) : null,
        chosenBar: riff && chosen !== null ? barOf(riff, chosen) : null,
      };
    },
    { equal: (a, b) => (Object.keys(a) as (keyof Followed)[]).every((key) => a[key] === b[key]) },
  );
  private readonly turned = linkedSignal<Followed, Turned>({
    source: this.followed,
    computation: (now, before) => follow(now, before),
  });
  /** Which bars of a long riff are on screen. */
  readonly bars = computed((): BarsInView => ({ first: this.turned().first, count: this.followed().count }));
  /** All bars of the riff, those in view, and where the needle stands in one of them: 0 its start, 1 its end. */
  readonly barChips = computed(() => {
    const [{ first, count }, { bars, needleBar }] = [this.bars(), this.followed()];
    return Array.from({ length: bars }, (_, bar) => ({
      number: bar + 1,
      isShown: bar >= first && bar < first + count,
      hasNeedle: bar === needleBar,
    }));
  });

  readonly window = computed(
    (): TickWindow => {
      const riff = this.song.riff();
      if (!riff) return { fromTicks: 0, toTicks: 1 };
      const starts = [...barStartsTicks(riff), riffTicks(riff)];
      const { first, count } = this.bars();
      return { fromTicks: starts[first], toTicks: starts[first + count] };
    },
    // All that is drawn hangs on it.
    { equal: (a, b) => a.fromTicks === b.fromTicks && a.toTicks === b.toTicks },
  );

  /** The bar at the start of the loop, or at the needle; the first one outside of all bars. */
  barAtLoop(): number {
    const [grid, timeS] = [this.song.document()?.grid, this.player.loop()?.startS ?? this.player.nowS()];
    return grid ? (countAt(grid, timeS + ON_BEAT_S)?.bar ?? 1) - 1 : 0;
  }

  /** Where the needle would be in the riff if it were played over and over from a bar on; null outside of the beats. */
  ticksFrom(startBar: number): number | null {
    const [riff, grid, nowS] = [this.song.riff(), this.song.document()?.grid, this.player.nowS()];
    if (!riff || !grid) return null;
    const passes = Math.ceil(grid.bars.length / riff.bars.length);
    const over = { ...PLAIN_SECTION, id: '', name: '', riffId: riff.id, startBar, passes, transpose: 0 };
    const pass = passesOf(over, riff, grid).find((p) => nowS >= p.startS && nowS < p.endS);
    return pass ? secondsToPassTicks(pass, grid, nowS) : null;
  }

  /** So many pages on or back. */
  turn(by: number): void {
    const [{ count, bars }, { first }] = [this.followed(), this.turned()];
    // From a last page that was filled with bars of the one before, back to where pages begin.
    const page = by < 0 ? Math.ceil(first / count) : Math.floor(first / count);
    this.showBar(Math.max(0, Math.min(bars - 1, (page + by) * count)));
  }

  /** The page that a bar is on. */
  showBar(bar: number): void {
    const { count, bars } = this.followed();
    this.turned.set({ first: pageOf(bar, count, bars), isByHand: true });
  }

  /** Wider or narrower by the notch. */
  togglePanel(): void {
    const other = this.isSmall() ? 'closed' : 'narrow';
    this.panelWish.set(this.panel() === 'wide' ? other : 'wide');
  }

  /** The panel is wanted, however small the page. */
  openPanel(): void {
    if (this.panel() === 'closed') this.panelWish.set('wide');
  }

  private laneBeside(size: PanelSize): number {
    const beside = this.isSmall() ? 0 : PANEL_PX[size];
    return Math.max(300, this.pageWidth() - beside) - GUTTER - LANE_PADDING;
  }

  /** Pixels from the left of the lane. */
  xOf(ticks: number): number {
    return xOf(ticks, this.window(), this.width());
  }
}
