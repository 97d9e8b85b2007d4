/** Takes that were recorded, also those that a crash has left: kept as a song or another recording of one, or thrown away. */
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
import { firstValueFrom } from 'rxjs';
import type { SongSummary, Take } from '@wild-needle/contract';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import { minutes } from '@wild-needle/core/units';
import { Api } from '../../../api/api';
import { TakeRecorder } from '../../../input/take-recorder';
import { dayOf } from '../../../shared/words';

/** A take that another window records is asked about again. */
const AGAIN_MS = 3000;

@Component({
  selector: 'wn-kept-takes',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (take of elsewhere(); track take.id) {
      <p class="quiet">A take of {{ length(take) }} is being recorded in another window.</p>
    }
    @for (take of ended(); track take.id) {
      <form class="take" (submit)="$event.preventDefault(); keep(take, title.value, of.value)">
        <b>Take of {{ length(take) }}</b>
        <span class="quiet">{{ when(take) }}</span>
        <input
          #title
          aria-label="Title of the take"
          autocomplete="off"
          [maxLength]="TITLE_LIMIT"
          [value]="titleOf(take)"
        />
        <select #of aria-label="Keep it as">
          <option value="">a song of its own</option>
          @for (song of songs(); track song.id) {
            <option [value]="song.id" [selected]="song.id === recorder.songOf(take.id)">
              a recording of {{ song.title }}
            </option>
          }
        </select>
        <button mat-flat-button type="submit" [disabled]="busy() === take.id">Keep it</button>
        <button mat-stroked-button type="button" [disabled]="busy() === take.id" (click)="throwAway(take)">
          {{ armed() === take.id ? 'For good' : 'Throw away' }}
        </button>
      </form>
    }
    @if (trouble(); as words) {
      <p class="problem" role="alert">{{ words }}</p>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .take {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 6px;
      padding-top: 8px;
      border-top: 1px solid var(--line);
    }
    .take .quiet {
      text-align: right;
    }
    .take select,
    .take input {
      grid-column: 1 / -1;
      min-width: 0;
      height: 34px;
      padding: 0 10px;
      border: 1px solid var(--edge);
      border-radius: var(--radius);
      background: var(--sleeve);
      color: var(--ink);
    }
    .take button {
      padding: 0 8px;
    }
    .problem {
      color: var(--clash);
    }
  `,
})
export class KeptTakes {
  protected readonly recorder = inject(TakeRecorder);
  private readonly api = inject(Api);
  /** On the shelf: a take may be a recording of one of them. */
  readonly songs = input.required<readonly SongSummary[]>();
  /** A take is a song now. */
  readonly kept = output();
  protected readonly TITLE_LIMIT = TEXT_LIMITS.title;
  private readonly takes = signal<readonly Take[]>([]);
  /** Only the server's clock tells of other windows; of this one the recorder knows. */
  protected readonly elsewhere = computed(() =>
    this.takes().filter((t) => t.isRecording && !this.recorder.isOfThisVisit(t.id)),
  );
  protected readonly ended = computed(() => {
    const now = this.recorder.takeId();
    return this.takes().filter((t) => t.id !== now && (!t.isRecording || this.recorder.isOfThisVisit(t.id)));
  });
  protected readonly busy = signal<string | null>(null);
  /** A take that is thrown away by a second press. */
  protected readonly armed = signal<string | null>(null);
  protected readonly trouble = signal('');

  constructor() {
    effect((onCleanup) => {
      const later = this.elsewhere().length > 0 ? setTimeout(() => void this.load(), AGAIN_MS) : undefined;
      onCleanup(() => clearTimeout(later));
    });
    effect(() => {
      this.recorder.takeId();
      untracked(() => void this.load());
    });
  }

  protected length(take: Take): string {
    return minutes(Math.floor(take.seconds));
  }

  protected when(take: Take): string {
    return dayOf(new Date(take.startedAt), new Date());
  }

  protected titleOf(take: Take): string {
    return `Take, ${new Date(take.startedAt).toLocaleString('en-GB', { day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' })}`;
  }

  /** `songId`: another recording of that song; '' for a song of its own. */
  protected async keep(take: Take, title: string, songId: string): Promise<void> {
    await this.work(take, async () => {
      const name = title.trim();
      await firstValueFrom(
        this.api.keepTake(take.id, name === '' ? this.titleOf(take) : name, songId || null),
      );
      this.kept.emit();
    });
  }

  /** The first press asks, the second does it. */
  protected async throwAway(take: Take): Promise<void> {
    if (this.armed() !== take.id) {
      this.armed.set(take.id);
      return;
    }
    await this.work(take, () => firstValueFrom(this.api.throwTakeAway(take.id)));
  }

  private async work(take: Take, doIt: () => Promise<unknown>): Promise<void> {
    this.busy.set(take.id);
    this.trouble.set('');
    try {
      await doIt();
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
    }
    this.busy.set(null);
    this.armed.set(null);
    await this.load();
  }

  private async load(): Promise<void> {
    try {
      this.takes.set(await firstValueFrom(this.api.takes()));
    } catch {
      // The shelf says that the server does not answer.
    }
  }
}
