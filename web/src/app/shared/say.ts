/** Sentences over the deck: why something can't be done, and what went wrong. One place, so that the next one takes its place. */
import { inject, Injectable } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Refusal } from '@wild-needle/core/riff';
import { refusalWords } from './refusal-words';

@Injectable({ providedIn: 'root' })
export class Say {
  private readonly snackBar = inject(MatSnackBar);

  say(words: string): void {
    this.snackBar.open(words, undefined, {
      duration: 8000,
      panelClass: 'above-deck',
      horizontalPosition: 'start',
    });
  }

  /** True when there is no reason against it; the reason is said otherwise. */
  mayDo(why: Refusal | null): boolean {
    if (why) this.say(refusalWords(why));
    return why === null;
  }

  silence(): void {
    this.snackBar.dismiss();
  }
}
