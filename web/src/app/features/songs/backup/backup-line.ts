/** Everything in one file: taken away, brought back, and when that was done last. */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import { firstValueFrom } from 'rxjs';
import { addressOf, type BroughtBack, type LastBackup } from '@wild-needle/contract';
import { Store } from '@ngrx/store';
import { Api } from '../../../api/api';
import { settingsActions } from '../../../state/settings/settings.actions';
import { Icon } from '../../../shared/icon';
import { counted, dayOf } from '../../../shared/words';
import { megabytes } from '../../../shared/size-words';
import { SHELF_KEYS } from '../shelf-keys';

/** A backup that is older is asked for again. */
const OLD_AFTER_MS = 14 * 24 * 3600 * 1000;
/** After a download began it is looked for when it is through. */
const LOOK_EVERY_MS = 2000;
const LOOK_TIMES = 150;

/** '3 songs came back, 2 were here already, 1 stands beside another version' */
export function broughtBackWords({ songs, known, beside }: BroughtBack): string {
  const words = [
    songs > 0 ? `${counted(songs, 'song')} came back` : null,
    known > 0 ? `${known} ${known === 1 ? 'was' : 'were'} here already` : null,
    beside > 0 ? `${beside} ${beside === 1 ? 'stands' : 'stand'} beside another version` : null,
  ].filter((word) => word !== null);
  return words.length > 0 ? `${words.join(', ')}.` : 'There was no song in it.';
}

@Component({
  selector: 'wn-backup-line',
  imports: [Icon, MatButton, MatProgressBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="Backup">
      <div class="row">
        <a #link mat-stroked-button [href]="address" download (click)="began()"
          >Back up everything <kbd>{{ keys.backUp.caps }}</kbd></a
        >
        <label class="back">
          <input #file type="file" accept=".zip" [disabled]="isBusy()" (change)="bringBack(file)" />
          <span>Bring back</span>
        </label>
      </div>
      @if (isBusy()) {
        <p role="status">Bringing back: every file is held against its checksum first …</p>
        <mat-progress-bar mode="indeterminate" aria-label="Bringing back" />
      }
      @if (said(); as words) {
        <p role="status">{{ words }}</p>
      }
      @if (problem(); as words) {
        <p class="problem" role="alert">{{ words }}</p>
      }
      <p class="quiet">
        @if (isOld()) {
          <wn-icon name="doubt" [size]="14" />
        }
        {{ words() }}
      </p>
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 6px;
      padding-top: 12px;
      border-top: 1px solid var(--line2);
    }
    .row {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 8px;
    }
    .row a {
      padding: 0 8px;
      white-space: nowrap;
    }
    .back {
      position: relative;
    }
    .back input {
      position: absolute;
      inset: 0;
      width: 100%;
      opacity: 0;
      cursor: pointer;
    }
    .back span {
      display: block;
      padding: 9px 10px;
      border: 1px solid var(--edge);
      border-radius: var(--radius);
      font-weight: 600;
    }
    .back input:focus-visible + span {
      outline: 3px solid var(--ink);
      outline-offset: 2px;
    }
    p {
      font-size: 13px;
    }
    wn-icon {
      color: var(--doubt);
      vertical-align: -2px;
    }
    .problem {
      color: var(--clash);
    }
  `,
})
export class BackupLine {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  /** Songs on the shelf. */
  readonly songs = input.required<number>();
  readonly broughtBack = output();
  protected readonly keys = SHELF_KEYS;
  protected readonly address = addressOf('backUp', {});
  protected readonly isBusy = signal(false);
  protected readonly said = signal('');
  protected readonly problem = signal('');
  private readonly last = signal<LastBackup>(null);
  private looking: ReturnType<typeof setInterval> | undefined;

  protected readonly isOld = computed(() => {
    const last = this.last();
    if (this.songs() === 0) return false;
    return last === null || Date.now() - new Date(last.at).getTime() > OLD_AFTER_MS;
  });
  protected readonly words = computed(() => {
    const last = this.last();
    if (!last) return 'No backup was made yet: one file holds everything.';
    const day = dayOf(new Date(last.at), new Date());
    return `Last backup: ${day}, ${megabytes(last.byteLength)}, one file.`;
  });

  constructor() {
    void this.load();
    inject(DestroyRef).onDestroy(() => clearInterval(this.looking));
  }

  /** By key. */
  press(): void {
    document.querySelector<HTMLAnchorElement>('wn-backup-line a')?.click();
  }

  /** The browser takes the file; the server knows when it is through. */
  protected began(): void {
    const before = this.last()?.at;
    let times = 0;
    clearInterval(this.looking);
    this.looking = setInterval(() => {
      times++;
      void this.load().then(() => {
        if (this.last()?.at !== before || times > LOOK_TIMES) clearInterval(this.looking);
      });
    }, LOOK_EVERY_MS);
  }

  protected async bringBack(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    input.value = '';
    if (!file) return;
    this.isBusy.set(true);
    this.said.set('');
    this.problem.set('');
    try {
      this.said.set(broughtBackWords(await firstValueFrom(this.api.bringBack(file))));
      this.store.dispatch(settingsActions.wanted());
      this.broughtBack.emit();
    } catch (error) {
      this.problem.set(error instanceof Error ? error.message : String(error));
    }
    this.isBusy.set(false);
  }

  private async load(): Promise<void> {
    try {
      this.last.set(await firstValueFrom(this.api.lastBackup()));
    } catch {
      // The shelf says that the server does not answer.
    }
  }
}
