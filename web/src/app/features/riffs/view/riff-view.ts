/**
 * What the Riffs screen shows, worked out from the song: the written row, the passes with what was heard in them and where
 * they differ, and where the needle is.
 */
import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { rootProbability, type Verdict } from '@wild-needle/core/draft';
import { MAX_FRET, STANDARD_TUNING } from '@wild-needle/core/guitar';
import {
  barStartsTicks,
  layerOf,
  passTicksToSeconds,
  riffTicks,
  shiftFrets,
  type Layer,
  type Riff,
  type Strum,
} from '@wild-needle/core/riff';
import { spellingKey } from '@wild-needle/core/theory';
import { mean } from 'd3-array';
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
import { differenceList, passWords } from '../../../shared/difference-words';
import { hasRoom, type HeardMark, type PassView } from '../passes/pass-row';
import { Lane } from './lane';
import { layoutRow, xOf } from '../../../tab/row-layout';

/** Rows of the passes share the height there is; the sounding one is taller, for names read from afar. */
const MIN_ROW = 34;
const MAX_ROW = 56;
const SOUNDING_MORE = 26;
/** A row that asks a question has room for its answers. */
const ASKING_ROW = 66;
/** Of a row, the part below its names. */
const GROOVE_SHARE = 0.45;
const GROOVE_FOOT_PX = 2;
/** The number of a bar over the ruler, and the air behind it. */
const BAR_NUMBER_PX = 24;
/** A question is this wide, so that sentence and answers fit. */
const QUESTION_PX = 440;

@Injectable()
export class RiffView {
  private readonly song = inject(OpenSongStore);
  private readonly lane = inject(Lane);
  private readonly heard = inject(HeardPasses);
  private readonly player = inject(Player);
  private readonly now = inject(Now);
  private readonly envelope = inject(EnvelopeStore).envelope;
  private readonly spelling = inject(Store).selectSignal(settingsFeature.selectSpelling);

  private readonly grooves = new Memory<string>();

  readonly passListHeight = signal(0);
  readonly layer = signal<Layer>('all');
  /** Frets are shown as this section plays them, moved by its semitones. */
  readonly showsMoved = signal(false);

  readonly tuning = computed(() => this.song.written()?.tuning ?? STANDARD_TUNING);
  /** The key that notes are spelled by. */
  readonly key = computed(() => spellingKey(this.song.document()?.key ?? null, this.spelling()));
  /** Semitones that the shown frets are moved by; 0 unless that was asked for, or where the neck ends. */
  readonly movedFrets = computed(() => (this.showsMoved() ? (this.song.section()?.transpose ?? 0) : 0));

  readonly passHere = this.lane.passHere;
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

  /** The chosen strum at the height that is shown. */
  readonly chosenStrum = computed((): Strum | null => {
    const [strum, by] = [this.song.strum(), this.movedFrets()];
    if (!strum || by === 0) return strum;
    const frets = strum.frets.map((f) => ({ ...f, fret: f.fret + by }));
    return frets.every((f) => f.fret >= 0 && f.fret <= MAX_FRET) ? { ...strum, frets } : strum;
  });

  /** Strums of the layer that is shown: what keys walk over and change. */
  readonly shownIds = computed(
    (): ReadonlySet<string> => new Set((this.shownRiff()?.strums ?? []).map((s) => s.id)),
  );

  readonly layout = computed(() => {
    const riff = this.shownRiff();
    return riff
      ? layoutRow(riff, {
          tuning: this.tuning(),
          key: this.key(),
          widthPx: this.lane.width(),
          window: this.lane.window(),
          openString: this.song.string(),
        })
      : null;
  });

  /** Named parts of the riff, over the ruler; the name stands in the first of their bars that is in view. */
  readonly groups = computed(() => {
    const riff = this.song.riff();
    if (!riff) return [];
    const starts = [...barStartsTicks(riff), riffTicks(riff)];
    const { first, count } = this.lane.bars();
    return riff.groups
      .filter(({ startBar, bars }) => startBar < first + count && startBar + bars > first)
      .map(({ name, startBar, bars }) => {
        const from = Math.max(first, startBar);
        const x = this.lane.xOf(starts[from]);
        return {
          name,
          x,
          width: this.lane.xOf(starts[Math.min(first + count, startBar + bars)]) - x - 4,
          nameWidth: this.lane.xOf(starts[from + 1]) - x - BAR_NUMBER_PX - 4,
        };
      });
  });

  /** Remarks on bars that are on screen; beside the name of a part they have the second half of the bar. */
  readonly barNotes = computed(() => {
    const riff = this.song.riff();
    if (!riff) return [];
    const starts = [...barStartsTicks(riff), riffTicks(riff)];
    const { first, count } = this.lane.bars();
    const named = new Set(riff.groups.map(({ startBar }) => Math.max(first, startBar)));
    return riff.barNotes
      .filter(({ bar }) => bar >= first && bar < first + count)
      .map(({ bar, text, todo }) => {
        const [x, end] = [this.lane.xOf(starts[bar]), this.lane.xOf(starts[bar + 1])];
        const from = named.has(bar) ? (x + end) / 2 : x + BAR_NUMBER_PX;
        return { text, todo, x: from, width: end - from - 4 };
      });
  });

  /** The bars that the shown variation stands for, as far as they are in view. */
  readonly variedBars = computed(() => {
    const [variation, width] = [this.song.variation(), this.lane.width()];
    if (!variation) return null;
    const [from, to] = [this.lane.xOf(variation.fromTicks), this.lane.xOf(variation.toTicks)];
    const x = Math.max(0, from);
    return to <= 0 || from >= width ? null : { x, width: Math.min(width, to) - x, name: variation.name };
  });

  readonly placeX = computed(() => {
    const ticks = this.song.placeTicks();
    return ticks === null ? null : xOf(ticks, this.lane.window(), this.lane.width());
  });

  readonly needleX = computed((): number | null => {
    const ticks = this.lane.needleTicks();
    if (ticks === null) return null;
    const x = xOf(ticks, this.lane.window(), this.lane.width());
    return x >= 0 && x <= this.lane.width() ? x : null;
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

  /** Why no pass can be asked about; '' where they can. */
  readonly whyNoQuestion = computed((): string => {
    const [riffId, here] = [this.song.riffId(), this.heardPasses()];
    const all = riffId === null ? [] : (this.heard.byRiff().get(riffId) ?? []);
    if (here.length === 0)
      return all.length === 0 ? 'No section plays this riff yet: give it one under Sections.' : '';
    if (all.every((p) => p.strokes.length === 0)) return 'Nothing was heard in any pass of this riff.';
    return all.length === 1 ? 'This riff comes once: there is no other pass to hold it against.' : '';
  });

  /** How sure the recording is of a written strum and of its root, over the passes that have it, 0 to 1; null where none has. */
  surenessOf(strumId: string): { readonly chord: number; readonly root: number } | null {
    const heard = this.heardPasses().flatMap(({ comparison, heard: strums }) => {
      const at = comparison.verdicts.find((v) => v.strumId === strumId)?.heard;
      return at === null || at === undefined ? [] : [strums[at]];
    });
    const chord = mean(heard, (strum) => strum.confidence);
    const root = mean(heard, rootProbability);
    return chord === undefined || root === undefined ? null : { chord, root };
  }

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
        variation: p.variation && { name: p.variation.name, x: this.lane.xOf(p.variation.fromTicks) },
        path: () => this.groove(p, grooveTopPx, groovePx),
        rowPx,
        grooveTopPx,
        groovePx,
      };
    });
  });

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
      x: this.lane.xOf(s.ticks),
      name: heard[i].dead ? '×' : heard[i].name,
      verdict: verdictOf.get(i) ?? 'unchecked',
      muted: s.palmMuted || s.dead,
    }));
    const startOf = new Map(riff.strums.map((s) => [s.id, s.startTicks]));
    for (const { verdict, strumId } of comparison.verdicts) {
      if (verdict === 'missing') {
        placed.push({ x: this.lane.xOf(startOf.get(strumId) ?? 0), name: '', verdict, muted: true });
      }
    }
    const width = this.lane.width();
    const shown = placed.filter(({ x }) => x > -10 && x < width).sort((a, b) => a.x - b.x);
    return shown.map(({ x, name, verdict, muted }, i) => ({
      x,
      name,
      verdict,
      muted,
      isNamed: hasRoom(name, (shown[i + 1]?.x ?? width) - x, rowPx, sounding),
      spoken: `${name === '×' ? 'dead stroke' : spokenName(name)} ${verdict}`.trim(),
    }));
  }

  private questionOf(pass: HeardPass): PassView['question'] {
    const { riff, strokes, differences, whole } = pass;
    const words = passWords(pass, this.key());
    const all = whole ? [] : differenceList(riff, differences, strokes, this.key());
    const first = whole ? 0 : this.lane.xOf(differences[0]?.ticks ?? 0);
    const x = Math.max(0, Math.min(first, this.lane.width() - QUESTION_PX));
    return { words, all, x, width: Math.min(QUESTION_PX, this.lane.width() - x) };
  }

  /** Drawn once: what is written in a riff does not change how it sounds. */
  private groove({ pass, riff }: HeardPass, topPx: number, heightPx: number): string {
    const [envelope, grid] = [this.envelope(), this.song.document()?.grid];
    const [{ fromTicks, toTicks }, width] = [this.lane.window(), this.lane.width()];
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
