/** The song that is open: its document with history, what is chosen in it, what was heard, and saving. */
import { signalStore, withMethods } from '@ngrx/signals';
import { changeAsGuitar, type SongDocument } from '@wild-needle/core/riff';
import { withHistory } from './with-history';
import { withSaving } from './with-saving';
import { withSelection } from './with-selection';

export type { SaveStatus } from './with-saving';

export const OpenSongStore = signalStore(
  { providedIn: 'root' },
  withHistory(),
  withSelection(),
  withSaving(),
  withMethods((store) => ({
    change(change: (document: SongDocument) => SongDocument): void {
      if (store.applyChange(change)) store.documentChanged();
    },

    /** Changes what the shown guitar plays. */
    changeWritten(change: (document: SongDocument) => SongDocument): void {
      if (store.applyChange((document) => changeAsGuitar(document, store.guitar(), change)))
        store.documentChanged();
    },

    undo(): void {
      if (store.stepBack()) store.documentChanged();
    },

    redo(): void {
      if (store.stepForward()) store.documentChanged();
    },
  })),
);
