/** Every saved version of the song: what each changed, two of them compared, and one riff or all of it brought back. */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import type { Version, VersionDocument } from '@wild-needle/contract';
import { bringRiffBack, changesBetween, type SongChange } from '@wild-needle/core/riff';
import { spellingKey } from '@wild-needle/core/theory';
import { Api } from '../../api/api';
import { OpenSongStore } from '../../open-song/open-song.store';
import { changeWords } from '../../shared/change-words';
import { HistoryButtons } from '../../shared/history-buttons';
import { HISTORY_KEYS, historyHandlers } from '../../shared/history-keys';
import { runScreenKey, type KeyHandlers, type KeyMap } from '../../shared/key-map';
import { Say } from '../../shared/say';
import { ScreenKeys } from '../../shared/screen-keys';
import { dayOf } from '../../shared/words';
import { settingsFeature } from '../../state/settings/settings.reducer';

const VERSION_KEYS = {
  step: { on: { ArrowUp: -1, ArrowDown: 1 }, caps: '↑ ↓', does: 'Newer, older version' },
  compare: {
    on: { c: null },
    caps: 'C',
    does: 'Compare the others with this one; again: with the song as it is',
  },
  bringBack: { on: { Enter: null }, caps: 'Enter', does: 'Bring the whole song back as it was then' },
  ...HISTORY_KEYS,
} as const satisfies KeyMap;

/** A page of the server; fewer, and there are no older ones. */
const PAGE = 50;
const HOUR = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

@Component({
  selector: 'wn-versions-page',
  imports: [HistoryButtons, MatButton, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  template: `
    <section class="list" aria-label="Versions">
      <header>
        <h2 class="display">Versions</h2>
        <span class="quiet">all of a day, then one an hour, one a day</span>
      </header>
      <div role="listbox" aria-label="Versions of the song" tabindex="0" class="rows">
        @for (version of versions(); track version.revision) {
          <button
            type="button"
            role="option"
            tabindex="-1"
            [attr.aria-selected]="version.revision === chosen()"
            (click)="choose(version.revision)"
          >
            <span class="when">{{ when(version) }}</span>
            <span class="what">
              @for (words of wordsOf(version); track $index) {
                <span>{{ words }}</span>
              } @empty {
                <span class="quiet">{{ $last ? 'The oldest that is kept' : 'Saved' }}</span>
              }
            </span>
            @if (version.revision === base()) {
              <span class="mark">compared with</span>
            }
          </button>
        } @empty {
          <p class="quiet" role="status">{{ problem() ?? 'Reading the versions …' }}</p>
        }
        @if (hasOlder()) {
          <button mat-stroked-button class="older" (click)="readOlder()">Older ones</button>
        }
      </div>
    </section>
    <section class="work" aria-label="What is different">
      <header>
        <h2 class="display">{{ title() }}</h2>
        <span class="gap"></span>
        <wn-history-buttons
          [canUndo]="song.canUndo()"
          [canRedo]="song.canRedo()"
          (undone)="song.undo()"
          (redone)="song.redo()"
        />
        <a mat-stroked-button [routerLink]="['/songs', song.songId(), 'riffs']">Back to the riffs</a>
      </header>
      @if (shown()) {
        <p class="buttons">
          <button mat-flat-button [disabled]="!differsFromNow()" (click)="bringBack()">
            Bring this version back <kbd>Enter</kbd>
          </button>
          <button mat-stroked-button (click)="compare()">
            {{ base() === null ? 'Compare others with this one' : 'Compare with the song as it is' }}
            <kbd>C</kbd>
          </button>
        </p>
        <ul aria-label="Differences">
          @for (group of groups(); track group.key) {
            <li>
              <b>{{ group.name }}</b>
              @if (group.riffId !== null && base() === null) {
                <button mat-stroked-button (click)="bringRiff(group.riffId)">Bring this riff back</button>
              }
              @for (words of group.words; track $index) {
                <p>{{ words }}</p>
              }
            </li>
          } @empty {
            <li class="quiet">Nothing is different.</li>
          }
        </ul>
      } @else {
        <p class="quiet" role="status">Choose a version to see what is different.</p>
      }
    </section>
  `,
  styleUrl: './versions.page.scss',
})
export class VersionsPage {
  protected readonly song = inject(OpenSongStore);
  private readonly api = inject(Api);
  private readonly said = inject(Say);
  private readonly spelling = inject(Store).selectSignal(settingsFeature.selectSpelling);

  protected readonly versions = signal<readonly Version[]>([]);
  protected readonly hasOlder = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly chosen = signal<number | null>(null);
  /** The version that others are compared with; null for the song as it is. */
  protected readonly base = signal<number | null>(null);
  private readonly documents = signal<ReadonlyMap<number, VersionDocument>>(new Map());

  private readonly key = computed(() => spellingKey(this.song.document()?.key ?? null, this.spelling()));
  protected readonly shown = computed(() => this.documents().get(this.chosen() ?? -1) ?? null);
  private readonly compared = computed(() => {
    const base = this.base();
    return base === null ? this.song.document() : (this.documents().get(base)?.document ?? null);
  });
  protected readonly title = computed(() => {
    const [version, base] = [this.versions().find((v) => v.revision === this.chosen()), this.base()];
    if (!version) return 'What is different';
    const other = this.versions().find((v) => v.revision === base);
    return `${this.when(version)}, against ${other ? this.when(other) : 'the song as it is'}`;
  });

  private readonly changes = computed((): readonly SongChange[] => {
    const [shown, compared] = [this.shown(), this.compared()];
    return shown && compared ? changesBetween(compared, shown.document) : [];
  });
  protected readonly differsFromNow = computed(() => {
    const [shown, now] = [this.shown(), this.song.document()];
    return shown !== null && now !== null && changesBetween(now, shown.document).length > 0;
  });
  /** By riff, and the rest together. */
  protected readonly groups = computed(() => {
    const documents = [this.shown()?.document, this.compared()].flatMap((d) => (d ? [d] : []));
    const groups = new Map<string, { key: string; riffId: string | null; name: string; words: string[] }>();
    for (const change of this.changes()) {
      const riffId = 'riffId' in change ? change.riffId : null;
      const riff = documents.flatMap((d) => d.riffs).find((r) => r.id === riffId);
      const name = riffId === null ? 'The song' : riff ? riff.name || `Riff ${riff.letter}` : 'A riff';
      const group = groups.get(riffId ?? '') ?? { key: riffId ?? '', riffId, name, words: [] };
      const words = changeWords(change, documents, this.key());
      // The riff stands over them.
      group.words.push(riffId === null ? words : words.slice(words.indexOf(': ') + 2));
      groups.set(group.key, group);
    }
    return [...groups.values()];
  });

  constructor() {
    inject(ScreenKeys).show(VERSION_KEYS);
    effect(() => {
      const songId = this.song.songId();
      // A save makes a new version.
      this.song.revision();
      if (songId !== null) untracked(() => void this.read(songId));
    });
  }

  private async read(songId: string): Promise<void> {
    try {
      const versions = await firstValueFrom(this.api.versions(songId, null));
      if (this.song.songId() !== songId) return;
      const older = this.versions().filter((v) => v.revision < (versions.at(-1)?.revision ?? Infinity));
      this.versions.set([...versions, ...older]);
      if (older.length === 0) this.hasOlder.set(versions.length === PAGE);
    } catch {
      this.problem.set('The versions could not be read; is the server still there?');
    }
  }

  protected async readOlder(): Promise<void> {
    const [songId, oldest] = [this.song.songId(), this.versions().at(-1)];
    if (songId === null || !oldest) return;
    try {
      const versions = await firstValueFrom(this.api.versions(songId, oldest.revision));
      this.versions.update((known) => [...known, ...versions]);
      this.hasOlder.set(versions.length === PAGE);
    } catch {
      this.said.say('The versions could not be read; is the server still there?');
    }
  }

  protected when({ savedAt }: Version): string {
    const time = new Date(savedAt);
    const day = dayOf(time, new Date());
    return day.startsWith('Today') ? day : `${day}, ${HOUR.format(time)}`;
  }

  protected wordsOf({ changes, more }: Version): string[] {
    const documents = [this.song.document()].flatMap((d) => (d ? [d] : []));
    const words = changes.map((change) => changeWords(change, documents, this.key()));
    return more > 0 ? [...words, `and ${more} more`] : words;
  }

  protected choose(revision: number): void {
    this.chosen.set(revision);
    void this.load(revision);
  }

  private async load(revision: number): Promise<void> {
    const songId = this.song.songId();
    if (songId === null || this.documents().has(revision)) return;
    try {
      const version = await firstValueFrom(this.api.version(songId, revision));
      this.documents.update((known) => new Map([...known, [revision, version]]));
    } catch {
      this.said.say('This version could not be read; it may have been thinned out');
    }
  }

  protected compare(): void {
    this.base.set(this.base() === null ? this.chosen() : null);
  }

  protected bringBack(): void {
    const shown = this.shown();
    if (!shown || !this.differsFromNow()) return;
    this.song.change(() => shown.document);
    this.said.say('Brought back as a new version; Ctrl Z takes it back');
  }

  protected bringRiff(riffId: string): void {
    const shown = this.shown();
    if (shown) this.song.change((document) => bringRiffBack(document, shown.document, riffId));
  }

  private step(by: number): void {
    const at = this.versions().findIndex((v) => v.revision === this.chosen());
    const next = this.versions().at(Math.max(0, Math.min(this.versions().length - 1, at + by)));
    if (next) this.choose(next.revision);
  }

  private readonly handlers: KeyHandlers<typeof VERSION_KEYS> = {
    step: (by) => this.step(by),
    compare: () => this.compare(),
    bringBack: () => this.bringBack(),
    ...historyHandlers(this.song),
  };

  protected onKey(event: KeyboardEvent): void {
    runScreenKey(VERSION_KEYS, this.handlers, event);
  }
}
