/**
 * Undo and redo without limit for a signal store: documents share what did not change, so a step costs little.
 */
import { computed } from '@angular/core';
import { patchState, signalStoreFeature, withComputed, withMethods, withState } from '@ngrx/signals';
import type { SongDocument } from '@wild-needle/core/riff';

interface HistoryState {
  readonly document: SongDocument | null;
  readonly past: readonly SongDocument[];
  readonly future: readonly SongDocument[];
}

const initialState: HistoryState = { document: null, past: [], future: [] };

export function withHistory() {
  return signalStoreFeature(
    withState(initialState),
    withComputed(({ past, future }) => ({
      canUndo: computed(() => past().length > 0),
      canRedo: computed(() => future().length > 0),
    })),
    withMethods((store) => ({
      /** A document from outside: nothing before it can be undone. */
      startHistory(document: SongDocument): void {
        patchState(store, { document, past: [], future: [] });
      },
      /** The steps around a document that is shown as it was when they were kept. */
      resumeHistory({ past, future }: Pick<HistoryState, 'past' | 'future'>): void {
        patchState(store, { past, future });
      },
      /** Another version stands one step back. */
      putBehind(document: SongDocument): void {
        patchState(store, { past: [...store.past(), document], future: [] });
      },
      /** False when the change did nothing. */
      applyChange(change: (document: SongDocument) => SongDocument): boolean {
        const before = store.document();
        const after = before && change(before);
        if (!before || !after || after === before) return false;
        patchState(store, { document: after, past: [...store.past(), before], future: [] });
        return true;
      },
      /**
       * Makes the newest step anew, so that what is changed bit by bit is one step back; as a step of its own where the document
       * is not `made` any more: something else was done since, or it was taken back. False when it did nothing.
       */
      amendChange(made: SongDocument | null, change: (document: SongDocument) => SongDocument): boolean {
        const [document, before] = [store.document(), store.past().at(-1)];
        if (!document || !before || document !== made) return this.applyChange(change);
        const after = change(before);
        if (after === document) return false;
        patchState(store, { document: after, future: [] });
        return true;
      },
      stepBack(): boolean {
        const [document, before] = [store.document(), store.past().at(-1)];
        if (!document || !before) return false;
        patchState(store, {
          document: before,
          past: store.past().slice(0, -1),
          future: [document, ...store.future()],
        });
        return true;
      },
      stepForward(): boolean {
        const [document, after] = [store.document(), store.future()[0]];
        if (!document || !after) return false;
        patchState(store, {
          document: after,
          past: [...store.past(), document],
          future: store.future().slice(1),
        });
        return true;
      },
    })),
  );
}
