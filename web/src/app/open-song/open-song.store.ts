/** The song that is open: its document with history, what is chosen in it, what was heard, and saving. */
import { signalStore, withMethods } from '@ngrx/signals';
import { changeAsGuitar, type SongDocument } from '@wild-needle/core/riff';
import type { LeftCopy } from './unsaved-copies';
import { withHistory } from './with-history';
import { withSaving } from './with-saving';
import { withSelection } from './with-selection';

export { IN_TROUBLE, type SaveStatus } from './saving-state';

export const OpenSongStore = signalStore(
  { providedIn: 'root' },
  withHistory(),
  withSelection(),
  withSaving(),
  withMethods((store) => ({
    /** False when the change did nothing. */
    change(change: (document: SongDocument) => SongDocument): boolean {
      const isChanged = store.applyChange(change);
      if (isChanged) store.documentChanged();
      return isChanged;
    },

    /** Makes the newest change anew while the document is still what it `made`; answers what the document is then. */
    amend(made: SongDocument | null, change: (document: SongDocument) => SongDocument): SongDocument | null {
      if (store.amendChange(made, change)) store.documentChanged();
      return store.document();
    },

    /** Changes what the shown guitar plays; false when that did nothing. */
    changeWritten(change: (document: SongDocument) => SongDocument): boolean {
      const isChanged = store.applyChange((document) => changeAsGuitar(document, store.guitar(), change));
      if (isChanged) store.documentChanged();
      return isChanged;
    },

    /** Shows a version that another window has left; the one that is shown now can be had back by undo. */
    showLeft(copy: LeftCopy): void {
      if (store.applyChange(() => copy.document)) store.documentChanged();
      store.forgetLeft(copy);
    },

    undo(): void {
      if (store.stepBack()) store.documentChanged();
    },

    redo(): void {
      if (store.stepForward()) store.documentChanged();
    },
  })),
);
