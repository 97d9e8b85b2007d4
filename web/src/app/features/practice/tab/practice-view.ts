/** What is shown of the tab: the line that sounds and the next one, in the version and the layer that were chosen. Provided by the page. */
import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  barTimesS,
  beatInBar,
  barOf,
  countSyllable,
  layerOf,
  passTicksToSeconds,
  secondsToPassTicks,
  soundingEndTicks,
  ticksPerBeat,
  type Layer,
  type Riff,
  type Strum,
} from '@wild-needle/core/riff';
import { makeVersion, type SheetVersion } from '@wild-needle/core/sheet';
import { spellingKey } from '@wild-needle/core/theory';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { settingsFeature } from '../../../state/settings/settings.reducer';
import { barsAsRiff, type BarsAsRiff } from '../../../tab/bars-as-riff';
import { chordNameOf } from '../../../tab/row-layout';
import { Player } from '../../../transport/player';
import { PracticeRun } from '../run/practice-run';

export const LAYERS: readonly Layer[] = ['chords', 'strokes', 'all'];
export const PRACTICE_VERSIONS = [
  'as-written',
  'two-strings',
  'one-string',
] as const satisfies SheetVersion[];

/** Neighbours that are nearer than this can't be read from two metres. */
const READABLE_PX = 44;
const MOST_BARS = 4;
/** A strum this little ahead sounds already: what is seen is a frame old. */
const AHEAD_S = 0.01;

/** A written strum in a line, and when it is played. */
export interface LineStrum {
  readonly strum: Strum;
  readonly name: string;
  readonly timeS: number;
  readonly endS: number;
  /** From 1. */
  readonly bar: number;
  /** '1', '3 &'. */
  readonly count: string;
  /** That it rings. */
  readonly beats: number;
}

export interface TabLine extends BarsAsRiff {
  readonly strums: readonly LineStrum[];
}

export function countOf(riff: Riff, ticks: number): string {
  const { unit } = riff.bars[barOf(riff, ticks)] ?? { unit: 4 };
  const beat = beatInBar(riff, ticks);
  const syllable = countSyllable(Math.round(beat * ticksPerBeat(unit)), unit);
  return beat === Math.floor(beat) ? `${beat + 1}` : `${Math.floor(beat) + 1} ${syllable}`.trim();
}

@Injectable()
export class PracticeView {
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly run = inject(PracticeRun);
  private readonly spelling = inject(Store).selectSignal(settingsFeature.selectSpelling);
  readonly layer = signal<Layer>('all');
  readonly version = signal<(typeof PRACTICE_VERSIONS)[number]>('as-written');
  readonly widthPx = signal(712);
  /** Lines that were turned by hand, until the needle moves to another. */
  private readonly turned = signal(0);

  readonly document = computed(() => {
    const document = this.song.written();
    return document && makeVersion(document, this.version()).document;
  });
  readonly key = computed(() => spellingKey(this.song.document()?.key ?? null, this.spelling()));
  private readonly barsS = computed(() => {
    const grid = this.song.document()?.grid;
    return grid ? barTimesS(grid) : [];
  });

  /** As many whole bars as keep neighbours apart. */
  readonly barsInLine = computed(() => {
    const [document, item, widthPx] = [this.document(), this.run.item(), this.widthPx()];
    const all = document && item && barsAsRiff(document, item.startBar, Math.min(item.bars, 16));
    if (!all) return MOST_BARS;
    const shown = layerOf(all.riff, this.layer(), document.tuning).strums;
    const gaps = shown.slice(1).map((s, i) => s.startTicks - shown[i].startTicks);
    const barTicks = all.pass.toTicks / all.riff.bars.length;
    const nearest = Math.min(barTicks, ...gaps.filter((gap) => gap > 0));
    const fit = Math.floor((widthPx * nearest) / (READABLE_PX * barTicks));
    const even = [4, 2, 1].find((n) => n <= Math.max(1, Math.min(fit, MOST_BARS))) ?? 1;
    return Math.min(even, item.bars);
  });

  /** Lines of the span that is played, and which of them the needle is in. */
  private readonly lines = computed(() => {
    const [span, n] = [this.run.span(), this.barsInLine()];
    if (!span) return [];
    return Array.from({ length: Math.ceil(span.bars / n) }, (_, i) => ({
      first: span.startBar + i * n,
      bars: Math.min(n, span.bars - i * n),
    }));
  });
  private readonly needleLine = computed(() => {
    const [barsS, now] = [this.barsS(), this.player.nowS() + AHEAD_S];
    const bar = barsS.findLastIndex((t) => t <= now);
    return Math.max(
      0,
      this.lines().findIndex((line) => bar >= line.first && bar < line.first + line.bars),
    );
  });
  private readonly lineIndex = computed(() => {
    const count = this.lines().length;
    return count === 0 ? 0 : (((this.needleLine() + this.turned()) % count) + count) % count;
  });

  readonly line = computed(() => this.lineAt(this.lineIndex()));
  /** Behind the last line comes the first again. */
  readonly nextLine = computed(() => {
    const count = this.lines().length;
    return count === 0 ? null : this.lineAt((this.lineIndex() + 1) % count);
  });

  private lineAt(index: number): TabLine | null {
    const [document, at] = [this.document(), this.lines().at(index)];
    const shown = document && at && barsAsRiff(document, at.first, at.bars);
    if (!shown) return null;
    const riff = layerOf(shown.riff, this.layer(), document.tuning);
    const { pass } = shown;
    const span = this.run.item();
    const strums = riff.strums.map((strum, i): LineStrum => {
      const end = soundingEndTicks(riff, i);
      const bar = barOf(riff, strum.startTicks);
      return {
        strum,
        name: chordNameOf(strum, document.tuning, this.key()),
        timeS: passTicksToSeconds(pass, document.grid, strum.startTicks),
        endS: passTicksToSeconds(pass, document.grid, end),
        bar: at.first - (span?.startBar ?? at.first) + bar + 1,
        count: countOf(riff, strum.startTicks),
        beats: (end - strum.startTicks) / ticksPerBeat(riff.bars[0].unit),
      };
    });
    return { ...shown, riff, strums };
  }

  /** Where the needle is in the line, in its ticks; null while it is elsewhere. */
  readonly needleTicks = computed(() => {
    const [line, grid] = [this.line(), this.song.document()?.grid];
    const now = this.player.nowS();
    if (!line || !grid || now < line.pass.startS - 1e-3 || now > line.pass.endS) return null;
    return secondsToPassTicks(line.pass, grid, now);
  });
  readonly sounding = computed((): LineStrum | null => {
    const now = this.player.nowS() + AHEAD_S;
    return this.line()?.strums.findLast((s) => s.timeS <= now && now < s.endS) ?? null;
  });
  /** The chord that comes after the one that sounds. */
  readonly then = computed((): LineStrum | null => {
    const now = this.player.nowS() + AHEAD_S;
    const [line, next, name] = [this.line(), this.nextLine(), this.sounding()?.name ?? ''];
    const later = [...(line?.strums.filter((s) => s.timeS > now) ?? []), ...(next?.strums ?? [])];
    return later.find((s) => s.name !== '' && s.name !== name) ?? null;
  });

  /** Looks at a line before or after; the needle takes it back. */
  turn(by: number): void {
    this.turned.update((turned) => turned + by);
  }

  turnBack(): void {
    this.turned.set(0);
  }

  /** Changes when the needle goes to another line. */
  readonly needleIsIn = this.needleLine;

  nextLayer(): void {
    this.layer.update((layer) => LAYERS[(LAYERS.indexOf(layer) + 1) % LAYERS.length]);
  }

  stepVersion(by: number): void {
    this.version.update((version) => {
      const at = PRACTICE_VERSIONS.indexOf(version) + by;
      return PRACTICE_VERSIONS[Math.min(PRACTICE_VERSIONS.length - 1, Math.max(0, at))];
    });
  }
}
