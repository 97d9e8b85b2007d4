/** Holds chosen files until they are sent; they are no part of the state. */
import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { importActions } from './imports.actions';

@Injectable({ providedIn: 'root' })
export class ImportFiles {
  private readonly store = inject(Store);
  private readonly files = new Map<string, File>();

  /** As songs of their own, or as recordings of the song that is named. */
  choose(files: Iterable<File>, songId: string | null = null): void {
    for (const file of files) {
      const importId = crypto.randomUUID();
      this.files.set(importId, file);
      this.store.dispatch(importActions.fileChosen({ importId, fileName: file.name, songId }));
    }
  }

  take(importId: string): File | null {
    const file = this.files.get(importId) ?? null;
    this.files.delete(importId);
    return file;
  }
}
