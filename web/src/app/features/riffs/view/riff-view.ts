/**
 * What the Riffs screen shows, worked out from the song: the written row, the passes with what was heard in them and where
 * they differ, and where the needle is.
 */
import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Verdict } from '@wild-needle/core/draft';
import { STANDARD_TUNING } from '@wild-needle/core/guitar';
import {
  barStartsTicks,
  layerOf,
  passTicksToSeconds,
  riffTicks,
  secondsToPassTicks,
  shiftFrets,
  type Layer,
  type Pass,
  type Riff,
} from '@wild-needle/core/riff';
import { spellingKey } from '@wild-needle/core/theory';
import { Player } from '../../../transport/player';
import { EnvelopeStore } from '../../../recording/envelope.store';
import { HeardPasses, type HeardPass } from '../../../open-song/heard-passes';
import { Now } from '../../../transport/now';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { groovePath } from '../../../shared/groove-path';
import { Memory } from '../../../shared/memory';
import { movedBy } from '../../../shared/words';
import { settingsFeature } from '../../../state/settings/settings.reducer';
import { spokenName } from '../../../shared/chord-name';
import { differenceWords } from '../../../shared/difference-words';
import { hasRoom, type HeardMark, type PassView } from '../passes/pass-row';
import { layoutRow, xOf, type TickWindow } from '../tab/row-layout';

/** Bars on screen at once: more would make sixteenths narrower than a digit. */
const BARS_SHOWN = 4;
/** Left of the lane: string names and pass numbers. */
export const GUTTER = 104;
const LANE_PADDING = 24;
/** Rows of the passes share the height there is; the sounding one is taller, for names read from afar. */
const MIN_ROW = 34;
const MAX_ROW = 56;
const SOUNDING_MORE = 26;
/** A row that asks a question has room for its answers. */
const ASKING_ROW = 66;
/** Of a row, the part below its names. */
const GROOVE_SHARE = 0.45;
const GROOVE_FOOT_PX = 2;
/** A question is this wide, so that sentence and answers fit. */
const QUESTION_PX = 320;

@Injectable()
export class RiffView {
  private readonly song = inject(OpenSongStore);
  private readonly heard = inject(HeardPasses);
  private readonly player = inject(Player);
  private readonly now = inject(Now);
  private readonly envelope = inject(EnvelopeStore).envelope;
  private readonly spelling = inject(Store).selectSignal(settingsFeature.selectSpelling);

  private readonly grooves = new Memory<string>();

  /** Sizes on screen; they follow the window. */
  readonly stackWidth = signal(Math.max(400, innerWidth - 344));
  readonly passListHeight = signal(0);
  readonly layer = signal<Layer>('all');
  /** Frets are shown as this section plays them, moved by its semitones. */
  readonly showsMoved = signal(false);

  readonly laneWidth = computed(() => this.stackWidth() - GUTTER - LANE_PADDING);
  readonly tuning = computed(() => this.song.written()?.tuning ?? STANDARD_TUNING);
  /** The key that notes are spelled by. */
  readonly key = computed(() => spellingKey(this.song.document()?.key ?? null, this.spelling()));
  /** Semitones that the shown frets are moved by; 0 unless that was asked for, or where the neck ends. */
  readonly movedFrets = computed(() => (this.showsMoved() ? (this.song.section()?.transpose ?? 0) : 0));

  /** Which page of a long riff is on screen: that of the sounding strum, else of the chosen one. */
  readonly window = computed(
    (): TickWindow => {
      const riff = this.song.riff();
      if (!riff) return { fromTicks: 0, toTicks: 1 };
      const barTicks = riffTicks(riff) / riff.bars.length;
      const pageTicks = Math.min(BARS_SHOWN, riff.bars.length) * barTicks;
      const shown = riff.strums.find((s) => s.id === (this.soundingHere() ?? this.song.strumId()));
      const page = Math.floor((shown?.startTicks ?? this.song.placeTicks() ?? 0) / pageTicks);
      return { fromTicks: page * pageTicks, toTicks: (page + 1) * pageTicks };
    },
    // All that is drawn hangs on it: the next strum on the same page changes nothing.
    { equal: (a, b) => a.fromTicks === b.fromTicks && a.toTicks === b.toTicks },
  );

  /** The pass under the needle, if it is one of the shown section's. */
  readonly passHere = computed((): Pass | null => {
    const pass = this.now.pass();
    return pass?.sectionId === this.song.sectionId() ? pass : null;
  });
  readonly soundingHere = computed(() =>
    this.passHere() && this.player.playing() ? this.now.strumId() : null,
  );

  /** The riff as it is drawn: in its layer, its frets moved where that was asked for. */
  private readonly shownRiff = computed((): Riff | null => {
    const [riff, document, by] = [this.song.riff(), this.song.written(), this.movedFrets()];
    if (!riff || !document) return null;
    const all = new Set(riff.strums.map((s) => s.id));
    const moved =
      by === 0
        ? riff
        : (shiftFrets({ ...document, riffs: [riff] }, riff.id, all, { frets: by, strings: 0 }).riffs[0] ??
          riff);
    return layerOf(moved, this.layer(), document.tuning);
  });

  readonly layout = computed(() => {
    const riff = this.shownRiff();
    return riff
      ? layoutRow(riff, {
          tuning: this.tuning(),
          key: this.key(),
          widthPx: this.laneWidth(),
          window: this.window(),
          openString: this.song.string(),
        })
      : null;
  });

  /** Named parts of the riff, over the ruler. */
  readonly groups = computed(() => {
    const riff = this.song.riff();
    if (!riff) return [];
    const starts = [...barStartsTicks(riff), riffTicks(riff)];
    return riff.groups.map(({ name, startBar, bars }) => {
      const x = this.xOf(starts[startBar]);
      return { name, x, width: this.xOf(starts[startBar + bars]) - x - 4 };
    });
  });

  /** Remarks on bars that are on screen. */
  readonly barNotes = computed(() => {
    const riff = this.song.riff();
    if (!riff) return [];
    const starts = barStartsTicks(riff);
    return riff.barNotes
      .map(({ bar, text, todo }) => ({ text, todo, x: this.xOf(starts[bar]) }))
      .filter(({ x }) => x >= 0 && x < this.laneWidth());
  });

  readonly placeX = computed(() => {
    const ticks = this.song.placeTicks();
    return ticks === null ? null : xOf(ticks, this.window(), this.laneWidth());
  });

  readonly needleX = computed((): number | null => {
    const [pass, riff, document] = [this.passHere(), this.song.riff(), this.song.document()];
    if (!pass || !riff || !document) return null;
    const ticks = secondsToPassTicks(pass, document.grid, this.player.nowS());
    const x = xOf(ticks, this.window(), this.laneWidth());
    return x >= 0 && x <= this.laneWidth() ? x : null;
  });

  /** Passes of the chosen section, as they were heard. */
  readonly heardPasses = computed(() => {
    const [riffId, sectionId] = [this.song.riffId(), this.song.sectionId()];
    const passes = riffId === null ? [] : (this.heard.byRiff().get(riffId) ?? []);
    return passes.filter((p) => p.pass.sectionId === sectionId);
  });

  /** The pass that the keys answer for: the sounding one if it differs, else the first that does. */
  readonly asked = computed((): HeardPass | null => {
    const open = this.heardPasses().filter((p) => p.isAsking);
    const here = this.passHere()?.index;
    return open.find((p) => p.pass.index === here) ?? open[0] ?? null;
  });

  readonly passes = computed((): PassView[] => {
    const heard = this.heardPasses();
    const soundingIndex = this.passHere()?.index ?? -1;
    const loop = this.player.loop();
    const asking = heard.filter((p) => p.isAsking).length;
    const taken = asking * ASKING_ROW + SOUNDING_MORE;
    const share = Math.floor((this.passListHeight() - taken) / Math.max(1, heard.length - asking)) - 1;
    const plainPx = Math.min(MAX_ROW, Math.max(MIN_ROW, share));
    return heard.map((p) => {
      const { pass } = p;
      const sounding = pass.index === soundingIndex;
      const rowPx = (p.isAsking ? ASKING_ROW : plainPx) + (sounding ? SOUNDING_MORE : 0);
      const groovePx = Math.round(rowPx * GROOVE_SHARE);
      const grooveTopPx = rowPx - groovePx - GROOVE_FOOT_PX;
      return {
        id: `${pass.sectionId}-${pass.index}`,
        number: pass.index + 1,
        barsText:
          pass.bars === 1 ? String(pass.startBar + 1) : `${pass.startBar + 1}–${pass.startBar + pass.bars}`,
        sounding,
        looped: loop !== null && pass.startS >= loop.startS - 0.01 && pass.endS <= loop.endS + 0.01,
        moved: movedBy(pass.transpose),
        // Worked out by the rows that are in sight.
        marks: () => this.marksOf(p, rowPx, sounding),
        question: p.isAsking ? this.questionOf(p) : null,
        variation: p.variation && { name: p.variation.name, x: this.xOf(p.variation.fromTicks) },
        path: () => this.groove(p, grooveTopPx, groovePx),
        rowPx,
        grooveTopPx,
        groovePx,
      };
    });
  });

  private xOf(ticks: number): number {
    return xOf(ticks, this.window(), this.laneWidth());
  }

  private marksOf(
    { riff, heard, strokes, comparison }: HeardPass,
    rowPx: number,
    sounding: boolean,
  ): HeardMark[] {
    const verdictOf = new Map<number, Verdict>();
    for (const v of comparison.verdicts) if (v.heard !== null) verdictOf.set(v.heard, v.verdict);
    interface Placed {
      readonly x: number;
      readonly name: string;
      readonly verdict: Verdict;
      readonly muted: boolean;
    }
    const placed: Placed[] = strokes.map((s, i) => ({
      x: this.xOf(s.ticks),
      name: heard[i].dead ? '×' : heard[i].name,
      verdict: verdictOf.get(i) ?? 'unchecked',
      muted: s.palmMuted || s.dead,
    }));
    const startOf = new Map(riff.strums.map((s) => [s.id, s.startTicks]));
    for (const { verdict, strumId } of comparison.verdicts) {
      if (verdict === 'missing') {
        placed.push({ x: this.xOf(startOf.get(strumId) ?? 0), name: '', verdict, muted: true });
      }
    }
    const width = this.laneWidth();
    const shown = placed.filter(({ x }) => x > -10 && x < width).sort((a, b) => a.x - b.x);
    return shown.map(({ x, name, verdict, muted }, i) => ({
      x,
      name,
      verdict,
      muted,
      isNamed: hasRoom(name, (shown[i + 1]?.x ?? width + LANE_PADDING) - x, rowPx, sounding),
      spoken: `${name === '×' ? 'dead stroke' : spokenName(name)} ${verdict}`.trim(),
    }));
  }

  private questionOf({ riff, strokes, differences }: HeardPass): PassView['question'] {
    const words = differenceWords(riff, differences, strokes, this.key());
    const first = this.xOf(differences[0]?.ticks ?? 0);
    const x = Math.max(0, Math.min(first, this.laneWidth() - QUESTION_PX));
    return { words, x, width: Math.min(QUESTION_PX, this.laneWidth() - x) };
  }

  /** Drawn once: what is written in a riff does not change how it sounds. */
  private groove({ pass, riff }: HeardPass, topPx: number, heightPx: number): string {
    const [envelope, grid] = [this.envelope(), this.song.document()?.grid];
    const [{ fromTicks, toTicks }, width] = [this.window(), this.laneWidth()];
    if (!envelope || !grid) return '';
    const id = `${pass.sectionId}/${pass.index}`;
    const from = [
      envelope,
      grid,
      pass.startS,
      pass.endS,
      riffTicks(riff),
      fromTicks,
      toTicks,
      width,
      topPx,
      heightPx,
    ];
    return this.grooves.recall(id, from, () => {
      const timeAt = (x: number): number =>
        passTicksToSeconds(pass, grid, fromTicks + (x / width) * (toTicks - fromTicks));
      return groovePath(envelope, width, heightPx, timeAt, { stepPx: 2, topPx });
    });
  }
}
