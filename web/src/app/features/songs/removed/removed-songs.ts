/** Songs that were removed and wait for a month: brought back, or gone for good by a second press. */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { firstValueFrom, type Observable } from 'rxjs';
import type { RemovedSong } from '@wild-needle/contract';
import { Api } from '../../../api/api';
import { megabytes } from '../../../shared/size-words';
import { counted } from '../../../shared/words';

const DATE = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' });

@Component({
  selector: 'wn-removed-songs',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (removed().length > 0) {
      <details>
        <summary>Removed: {{ sum() }}</summary>
        <ul>
          @for (song of removed(); track song.id) {
            <li>
              <span
                ><b>{{ song.title }}</b
                ><br />gone on {{ day(song) }}, {{ size(song) }}</span
              >
              <button mat-stroked-button (click)="bringBack(song)">Bring back</button>
              <button mat-stroked-button (click)="removeForGood(song)">
                {{ armed() === song.id ? 'For good' : 'Remove now' }}
              </button>
            </li>
          }
        </ul>
      </details>
    }
  `,
  styles: `
    summary {
      min-height: 32px;
      cursor: pointer;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 6px;
      padding: 8px 0;
      border-top: 1px solid var(--line);
      font-size: 13px;
    }
    li span {
      grid-column: 1 / -1;
    }
    button {
      padding: 0 8px;
    }
  `,
})
export class RemovedSongs {
  private readonly api = inject(Api);
  /** The shelf as it was read last: what has left it is here. */
  readonly songs = input.required<readonly unknown[]>();
  readonly broughtBack = output();
  protected readonly removed = signal<readonly RemovedSong[]>([]);
  protected readonly armed = signal<string | null>(null);
  protected readonly sum = computed(() => {
    const bytes = this.removed().reduce((sum, { byteLength }) => sum + byteLength, 0);
    return `${counted(this.removed().length, 'song')}, ${megabytes(bytes)}`;
  });

  constructor() {
    effect(() => {
      this.songs();
      untracked(() => void this.load());
    });
  }

  protected day({ goneAt }: RemovedSong): string {
    return DATE.format(new Date(goneAt));
  }

  protected size({ byteLength }: RemovedSong): string {
    return megabytes(byteLength);
  }

  protected bringBack({ id }: RemovedSong): void {
    void this.work(this.api.bringSongBack(id));
  }

  /** The first press asks, the second does it. */
  protected removeForGood({ id }: RemovedSong): void {
    if (this.armed() === id) void this.work(this.api.removeForGood(id));
    else this.armed.set(id);
  }

  private async work(doIt: Observable<void>): Promise<void> {
    this.armed.set(null);
    // What can't be done is there still when the list comes anew.
    await firstValueFrom(doIt).catch(() => undefined);
    this.broughtBack.emit();
    await this.load();
  }

  private async load(): Promise<void> {
    try {
      this.removed.set(await firstValueFrom(this.api.removedSongs()));
    } catch {
      // The shelf says that the server does not answer.
    }
  }
}
