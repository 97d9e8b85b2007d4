/**
 * Every pass of every riff as it was heard, against what is written: verdicts stroke by stroke, and what a pass has that most
 * other passes of its riff have not.
 */
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import {
  comparePass,
  isNotable,
  ownDifferences,
  strokesOfPass,
  strumsOfPass,
  wholeMoveOf,
  type Difference,
  type HeardStroke,
  type PassComparison,
  type WholeMove,
} from '@wild-needle/core/draft';
import type { AnalysedStrum } from '@wild-needle/core/analysis';
import type { NoteSpan } from '@wild-needle/core/mir';
import {
  answerOf,
  passesOf,
  riffOfPass,
  variationOf,
  type Pass,
  type Riff,
  type SongDocument,
  type Variation,
} from '@wild-needle/core/riff';
import { Memory } from '../shared/memory';
import { strumsOfGuitar } from './heard-again';
import { OpenSongStore } from './open-song.store';

export interface HeardPass {
  readonly pass: Pass;
  /** The riff as this pass plays it. */
  readonly riff: Riff;
  /** What was heard in it, and the same as strokes of the riff. */
  readonly heard: readonly AnalysedStrum[];
  readonly strokes: readonly HeardStroke[];
  /** When each of them sounds. */
  readonly spans: readonly NoteSpan[];
  readonly comparison: PassComparison;
  /** What it has that most other passes of the riff have not. */
  readonly differences: readonly Difference[];
  /** It is the riff moved as a whole, told where that is asked about. */
  readonly whole: WholeMove | null;
  /** It differs, and it is not said yet what that is. */
  readonly isAsking: boolean;
  readonly variation: Variation | null;
}

/** Forty passes are compared behind the frame that shows what a key wrote, not before it. */
const AFTER_KEY_MS = 40;
/** What was heard in a pass; it does not depend on what is written there. */
type Hearing = Pick<HeardPass, 'heard' | 'strokes' | 'spans'>;

function hearPass(pass: Pass, { grid }: SongDocument, strums: readonly AnalysedStrum[]): Hearing {
  const heard = strumsOfPass(pass, strums);
  return {
    heard,
    strokes: strokesOfPass(pass, grid, heard),
    spans: heard.map((s) => ({ startS: s.timeS, endS: s.endS })),
  };
}

@Injectable({ providedIn: 'root' })
export class HeardPasses {
  private readonly song = inject(OpenSongStore);
  private readonly hearings = new Memory<Hearing>();
  /** Typing in one riff leaves the others as they were compared. */
  private readonly comparisons = new Memory<HeardPass[]>();

  /** What was heard of the shown guitar, or of all together. */
  private readonly strums = computed(() => {
    const analysis = this.song.analysis();
    return analysis ? strumsOfGuitar(analysis, this.song.guitar(), !!this.song.document()?.guitar2) : [];
  });

  /** What the passes are compared with: the song as it is written, {@link AFTER_KEY_MS} behind it. */
  private readonly compared = signal(untracked(() => this.song.written()));

  constructor() {
    let shown = untracked(() => this.song.songId());
    effect((onCleanup) => {
      const [songId, written] = [this.song.songId(), this.song.written()];
      if (songId !== shown) {
        shown = songId;
        this.compared.set(written);
        return;
      }
      const later = setTimeout(() => this.compared.set(written), AFTER_KEY_MS);
      onCleanup(() => clearTimeout(later));
    });
  }

  /** By riff, in order of time. */
  readonly byRiff = computed((): ReadonlyMap<string, readonly HeardPass[]> => {
    const [document, strums] = [this.compared(), this.strums()];
    return new Map((document?.riffs ?? []).map((riff) => [riff.id, this.compare(riff, document!, strums)]));
  });

  private compare(riff: Riff, document: SongDocument, strums: readonly AnalysedStrum[]): HeardPass[] {
    const { grid, tuning } = document;
    const sections = document.sections.filter((s) => s.riffId === riff.id);
    return this.comparisons.recall(riff.id, [riff, grid, tuning, strums, ...sections], () => {
      const passes = sections.flatMap((section) =>
        passesOf(section, riff, grid).map((pass) => {
          const { startS, endS, transpose } = pass;
          const hearing = this.hearings.recall(
            `${section.id}/${pass.index}`,
            [startS, endS, transpose, grid, strums, pass.fromTicks, pass.toTicks],
            () => hearPass(pass, document, strums),
          );
          const played = riffOfPass(riff, section, pass);
          const comparison = comparePass(played, hearing.strokes, tuning);
          // What is usual is counted against the riff itself: an answer to one pass then asks nothing of another.
          const plain =
            section.answers.length === 0
              ? comparison
              : comparePass(riffOfPass(riff, { ...section, answers: [] }, pass), hearing.strokes, tuning);
          return { section, pass, hearing, played, comparison, plain };
        }),
      );
      const own = ownDifferences(passes.map((p) => p.plain));
      return passes.map(({ section, pass, hearing, played, comparison }, i): HeardPass => {
        const isAsking =
          hearing.strokes.length > 0 && answerOf(section, pass.index) === null && isNotable(own[i]);
        return {
          pass,
          riff: played,
          heard: hearing.heard,
          strokes: hearing.strokes,
          spans: hearing.spans,
          comparison,
          differences: variationOf(riff, section, pass.index) ? [] : own[i],
          whole: isAsking ? wholeMoveOf(played, hearing.strokes, tuning) : null,
          isAsking,
          variation: variationOf(riff, section, pass.index),
        };
      });
    });
  }
}
