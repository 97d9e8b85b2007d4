/**
 * What hearing a recording again suggests for the tab, to be taken or left strum by strum; see ListenAgain for the hearing. What is
 * shown as heard and what is suggested outlive a reload of the page.
 */
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { AnalysedStrum, Analysis } from '@wild-needle/core/analysis';
import { canTake, suggestionsFor, takeSuggestion } from '@wild-needle/core/draft';
import type { GuitarNumber } from '@wild-needle/core/riff';
import { putBack, type HeardSpan } from '../recording/heard-anew';
import { Memory } from '../shared/memory';
import { HeardAgainStore, type GuitarSuggestion, type HeardAgainState } from './heard-again-store';
import { OpenSongStore } from './open-song.store';

const NOTHING: readonly GuitarSuggestion[] = [];

/** What the passes of the shown guitar are compared with: its own strums where two guitars were heard apart. */
export function strumsOfGuitar(
  analysis: Analysis,
  guitar: GuitarNumber,
  hasTwo: boolean,
): readonly AnalysedStrum[] {
  return (hasTwo ? analysis.guitars[guitar - 1]?.strums : null) ?? analysis.strums;
}

/** A newer suggestion for the same place takes the place of the older one. */
function placeOf({ guitar, riffId, strumId, ticks }: GuitarSuggestion): string {
  return [guitar, riffId, strumId ?? ticks].join('/');
}

function withStrumsOfGuitar(
  analysis: Analysis,
  guitar: GuitarNumber,
  hasTwo: boolean,
  strums: readonly AnalysedStrum[],
): Analysis {
  if (!hasTwo || !analysis.guitars[guitar - 1]) return { ...analysis, strums };
  return { ...analysis, guitars: analysis.guitars.map((g, i) => (i === guitar - 1 ? { ...g, strums } : g)) };
}

@Injectable({ providedIn: 'root' })
export class HeardAgain {
  private readonly song = inject(OpenSongStore);
  private readonly store = inject(HeardAgainStore);
  /** What the server heard, under what is shown. */
  private base: Analysis | null = null;
  /** What this made itself, to be told from what comes from the server. */
  private shown: Analysis | null = null;
  private readonly suggestions = signal(NOTHING);
  private readonly takeable = new Memory<readonly GuitarSuggestion[]>();

  constructor() {
    effect(() => {
      const [songId, analysis] = [this.song.songId(), this.song.analysis()];
      if (analysis === this.shown && analysis !== null) return;
      this.base = analysis;
      this.shown = null;
      this.suggestions.set(NOTHING);
      if (songId !== null && analysis) void this.restore(songId, analysis);
    });
  }

  /** Those that are still open, by riff. */
  readonly byRiff = computed((): ReadonlyMap<string, readonly GuitarSuggestion[]> => {
    const [document, suggestions, guitar] = [this.song.written(), this.suggestions(), this.song.guitar()];
    if (!document || suggestions.length === 0) return new Map();
    return new Map(
      document.riffs.flatMap((riff) => {
        const open = this.takeable.recall(riff.id, [riff, document.tuning, suggestions, guitar], () =>
          suggestions.filter((s) => s.guitar === guitar && s.riffId === riff.id && canTake(document, s)),
        );
        return open.length > 0 ? [[riff.id, open]] : [];
      }),
    );
  });

  /** Shows what was heard anew in a span. Answers how many strums changed, and how to take that back. */
  show(anew: readonly AnalysedStrum[], span: HeardSpan): { readonly changed: number; undo(): void } | null {
    const [before, document] = [this.song.analysis(), this.song.written()];
    if (!before || !document) return null;
    const [guitar, hasTwo] = [this.song.guitar(), document.guitar2 !== null];
    const old = strumsOfGuitar(before, guitar, hasTwo);
    const { strums, changed } = putBack(old, anew, span);
    const known = this.suggestions();
    const found = suggestionsFor(document, old, strums, span).map((s) => ({ ...s, guitar }));
    const places = new Set(found.map(placeOf));
    const others = known.filter((s) => !places.has(placeOf(s)));
    this.change({
      analysis: withStrumsOfGuitar(before, guitar, hasTwo, strums),
      suggestions: [...others, ...found],
    });
    return { changed, undo: () => this.change({ analysis: before, suggestions: known }) };
  }

  /** Writes suggestions as one step of undo. */
  take(...taken: readonly GuitarSuggestion[]): void {
    this.song.changeWritten((document) =>
      taken.reduce((written, s) => takeSuggestion(written, s, () => crypto.randomUUID()), document),
    );
  }

  /** The tab stays as it is written. */
  leave(suggestion: GuitarSuggestion): void {
    const analysis = this.song.analysis();
    if (analysis) this.change({ analysis, suggestions: this.suggestions().filter((s) => s !== suggestion) });
  }

  private async restore(songId: string, base: Analysis): Promise<void> {
    const kept = await this.store.kept(songId, base);
    if (kept && this.base === base && this.song.analysis() === base) this.bring(kept);
  }

  private bring({ analysis, suggestions }: HeardAgainState): void {
    this.shown = analysis;
    this.song.showHeard(analysis);
    this.suggestions.set(suggestions);
  }

  private change(state: HeardAgainState): void {
    const [songId, base] = [untracked(this.song.songId), this.base];
    this.bring(state);
    if (songId === null || !base) return;
    if (state.analysis === base) void this.store.forget(songId);
    else void this.store.keep(songId, base, state);
  }
}
