/** The shelf: every song and how far it is, who waits for what, what is on its way in, and the sleeve that takes new recordings. */
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injector,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  MAX_DURATION_S,
  SHELF_SORTS,
  STEPS,
  TAKEN_ENDINGS,
  TAKEN_FORMATS,
  type ShelfSort,
  type SongSummary,
} from '@wild-needle/contract';
import { droppedFiles } from '../../shared/dropped-files';
import { Icon } from '../../shared/icon';
import { runScreenKey, type KeyHandlers } from '../../shared/key-map';
import { BackupLine } from './backup/backup-line';
import { AskedFor } from './asked/asked-for';
import { RecordTake } from './record/record-take';
import { RemovedSongs } from './removed/removed-songs';
import { daysUntil, nextStep, STEP_WORDS } from './row/shelf-words';
import { SongRow, type SongNames } from './row/song-row';
import { ThisWeek } from './week/this-week';
import { SHELF_KEYS } from './shelf-keys';
import { counted } from '../../shared/words';
import { importActions } from '../../state/imports/imports.actions';
import { ImportFiles } from '../../state/imports/import-files';
import { importsFeature } from '../../state/imports/imports.reducer';
import { jobActions } from '../../state/jobs/jobs.actions';
import { jobsFeature } from '../../state/jobs/jobs.reducer';
import { shelfActions } from '../../state/songs/songs.actions';
import { songsFeature } from '../../state/songs/songs.reducer';

/** A removal that was asked for and not confirmed is forgotten after this. */
const ARMED_MS = 5000;
const LONGEST_SEARCH = 200;

@Component({
  selector: 'wn-songs-page',
  imports: [
    AskedFor,
    BackupLine,
    Icon,
    MatButton,
    MatButtonToggle,
    MatButtonToggleGroup,
    MatIconButton,
    MatProgressBar,
    RecordTake,
    RemovedSongs,
    SongRow,
    ThisWeek,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  templateUrl: './songs.page.html',
  styleUrl: './songs.page.scss',
})
export class SongsPage {
  private readonly store = inject(Store);
  private readonly files = inject(ImportFiles);
  private readonly router = inject(Router);
  protected readonly accept = TAKEN_ENDINGS.join(',');
  protected readonly takenFormats = TAKEN_FORMATS;
  protected readonly longestMinutes = MAX_DURATION_S / 60;

  protected readonly status = this.store.selectSignal(songsFeature.selectStatus);
  protected readonly problem = this.store.selectSignal(songsFeature.selectProblem);
  protected readonly songs = this.store.selectSignal(songsFeature.selectSongs);
  protected readonly jobs = this.store.selectSignal(jobsFeature.selectBySong);
  protected readonly imports = this.store.selectSignal(importsFeature.selectImports);
  protected readonly dragging = signal(false);
  /** A folder was dropped in which no recording lies. */
  protected readonly nothingDropped = signal(false);
  /** A song whose removal waits for a second press. */
  protected readonly removing = signal<string | null>(null);
  private readonly recorder = viewChild(RecordTake);
  private readonly asked = viewChild(AskedFor);
  private readonly backup = viewChild(BackupLine);
  private readonly injector = inject(Injector);
  private disarming: ReturnType<typeof setTimeout> | undefined;

  protected readonly hasMore = this.store.selectSignal(songsFeature.selectHasMore);
  protected readonly search = this.store.selectSignal(songsFeature.selectSearch);
  protected readonly sort = this.store.selectSignal(songsFeature.selectSort);
  protected readonly namingProblem = this.store.selectSignal(songsFeature.selectNamingProblem);
  protected readonly keys = SHELF_KEYS;
  protected readonly steps = STEPS.map((step) => STEP_WORDS[step]);
  /** On a small screen it is behind its notch. */
  protected readonly asideShown = signal(false);
  /** Whose title and tags are edited. */
  protected readonly edited = signal<string | null>(null);
  private readonly chosen = signal<string | null>(null);
  /** The one that was chosen, else the one on top. */
  protected readonly chosenId = computed(() => {
    const songs = this.songs();
    return (songs.find((s) => s.id === this.chosen()) ?? songs.at(0))?.id ?? null;
  });
  protected readonly count = computed(() => {
    const now = new Date();
    const due = this.songs().filter(({ dueOn }) => dueOn !== null && daysUntil(dueOn, now) <= 7).length;
    const songs = this.hasMore()
      ? `${this.songs().length} songs and more`
      : counted(this.songs().length, 'song');
    return due > 0 ? `${songs}, ${due} due this week` : songs;
  });
  private readonly searched = viewChild<ElementRef<HTMLInputElement>>('searched');

  constructor() {
    this.store.dispatch(shelfActions.opened());
  }

  private readonly handlers: KeyHandlers<typeof SHELF_KEYS> = {
    choose: (by) => this.step(by),
    carryOn: () => {
      const song = this.songs().find((s) => s.id === this.chosenId());
      if (song) this.carryOn(song);
    },
    file: () => document.getElementById('choose-file')?.click(),
    record: () => this.recorder()?.press(),
    search: () => this.searched()?.nativeElement.focus(),
    sort: () => this.sortBy(SHELF_SORTS[(SHELF_SORTS.indexOf(this.sort()) + 1) % SHELF_SORTS.length]),
    ask: () => {
      this.asideShown.set(true);
      this.asked()?.add();
    },
    edit: () => this.edit(this.chosenId()),
    backUp: () => this.backup()?.press(),
  };

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') {
      this.disarm();
      if (this.search() !== '') this.find('');
    }
    // Enter presses what has the focus.
    if (event.key === 'Enter' && event.target !== document.body) return;
    runScreenKey(SHELF_KEYS, this.handlers, event);
  }

  protected choose(songId: string): void {
    this.chosen.set(songId);
  }

  /** At its next step. */
  protected carryOn(song: SongSummary): void {
    void this.router.navigate(['/songs', song.id, nextStep(song) ?? 'riffs']);
  }

  protected find(search: string): void {
    this.store.dispatch(shelfActions.searched({ search: search.slice(0, LONGEST_SEARCH) }));
  }

  protected sortBy(sort: ShelfSort): void {
    this.store.dispatch(shelfActions.sorted({ sort }));
  }

  protected more(): void {
    this.store.dispatch(shelfActions.moreWanted());
  }

  protected edit(songId: string | null): void {
    this.edited.set(songId);
    if (songId === null) return;
    this.chosen.set(songId);
    afterNextRender(() => document.querySelector<HTMLInputElement>(`#song-${songId} input`)?.select(), {
      injector: this.injector,
    });
  }

  protected name(songId: string, names: SongNames): void {
    this.edited.set(null);
    this.store.dispatch(shelfActions.songNamed({ songId, ...names }));
  }

  private step(by: number): void {
    const songs = this.songs();
    const at = songs.findIndex((s) => s.id === this.chosenId());
    const next = songs.at(Math.min(songs.length - 1, Math.max(0, at + by)));
    if (!next) return;
    this.chosen.set(next.id);
    document.getElementById(`song-${next.id}`)?.scrollIntoView({ block: 'nearest' });
  }

  protected onDrag(event: DragEvent, over: boolean): void {
    event.preventDefault();
    this.dragging.set(over);
  }

  protected async onDrop(event: DragEvent): Promise<void> {
    event.preventDefault();
    this.dragging.set(false);
    this.nothingDropped.set(false);
    const isOfFiles = event.dataTransfer?.types.includes('Files') ?? false;
    const files = await droppedFiles(event);
    this.nothingDropped.set(isOfFiles && files.length === 0);
    this.files.choose(files);
  }

  protected onChosen(input: HTMLInputElement): void {
    this.files.choose(input.files ?? []);
    input.value = '';
  }

  protected reload(): void {
    this.store.dispatch(shelfActions.opened());
  }

  protected dismiss(importId: string): void {
    this.store.dispatch(importActions.messageDismissed({ importId }));
  }

  protected cancelImport(importId: string): void {
    this.store.dispatch(importActions.importCancelled({ importId }));
  }

  protected cancelAnalysis(jobId: string): void {
    this.store.dispatch(jobActions.analysisCancelled({ jobId }));
  }

  protected analyse(recordingId: string): void {
    this.store.dispatch(jobActions.analysisRequested({ recordingId }));
  }

  /** The first press asks, the second removes. */
  protected remove(songId: string): void {
    if (this.removing() === songId) {
      this.store.dispatch(shelfActions.songRemoved({ songId }));
      this.disarm();
    } else {
      this.removing.set(songId);
      clearTimeout(this.disarming);
      this.disarming = setTimeout(() => this.disarm(), ARMED_MS);
    }
  }

  private disarm(): void {
    clearTimeout(this.disarming);
    this.removing.set(null);
  }
}
