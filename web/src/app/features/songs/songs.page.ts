/** The shelf: all songs, what is on its way in, and the sleeve that takes new recordings. */
import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { MAX_DURATION_S, TAKEN_ENDINGS, TAKEN_FORMATS } from '@wild-needle/contract';
import { minutes } from '@wild-needle/core/units';
import { Icon } from '../../shared/icon';
import { runScreenKey, type KeyHandlers } from '../../shared/key-map';
import { RecordTake } from './record/record-take';
import { SHELF_KEYS } from './shelf-keys';
import { counted, dayOf, soFarWords } from '../../shared/words';
import { importActions } from '../../state/imports/imports.actions';
import { ImportFiles } from '../../state/imports/import-files';
import { importsFeature } from '../../state/imports/imports.reducer';
import { jobActions } from '../../state/jobs/jobs.actions';
import { jobsFeature } from '../../state/jobs/jobs.reducer';
import { shelfActions } from '../../state/songs/songs.actions';
import { songsFeature } from '../../state/songs/songs.reducer';

/** A removal that was asked for and not confirmed is forgotten after this. */
const ARMED_MS = 5000;

@Component({
  selector: 'wn-songs-page',
  imports: [Icon, MatButton, MatIconButton, MatProgressBar, RecordTake, RouterLink],
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
  private readonly songs = this.store.selectSignal(songsFeature.selectSongs);
  private readonly jobs = this.store.selectSignal(jobsFeature.selectBySong);
  protected readonly imports = this.store.selectSignal(importsFeature.selectImports);
  protected readonly dragging = signal(false);
  /** A song whose removal waits for a second press. */
  protected readonly removing = signal<string | null>(null);
  private readonly recorder = viewChild(RecordTake);
  private disarming: ReturnType<typeof setTimeout> | undefined;

  protected readonly rows = computed(() => {
    const now = new Date();
    return this.songs().map((song) => {
      const job = this.jobs()[song.id] ?? song.job;
      const facts = [
        song.tuningLabel || null,
        song.tempoBpm === null ? null : `${Math.round(song.tempoBpm)} bpm`,
        song.durationS === null ? null : minutes(song.durationS),
      ];
      return {
        ...song,
        facts: facts.filter((f) => f !== null).join(', '),
        worked: dayOf(new Date(song.updatedAt), now),
        riffWords: counted(song.riffs, 'riff'),
        checkedShare: song.strums > 0 ? (100 * song.checkedStrums) / song.strums : 0,
        job,
        soFar: soFarWords(job?.soFar ?? null),
        isBusy: job?.status === 'queued' || job?.status === 'running',
      };
    });
  });
  protected readonly keys = SHELF_KEYS;
  protected readonly count = computed(() => counted(this.songs().length, 'song'));
  protected readonly isEmpty = computed(() => this.status() === 'loaded' && this.songs().length === 0);

  constructor() {
    this.store.dispatch(shelfActions.opened());
  }

  private readonly handlers: KeyHandlers<typeof SHELF_KEYS> = {
    choose: () => document.getElementById('choose-file')?.click(),
    record: () => this.recorder()?.press(),
    openFirst: () => {
      const first = this.rows().at(0);
      if (first) void this.router.navigate(['/songs', first.id, 'riffs']);
    },
  };

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') this.disarm();
    // Enter presses what has the focus.
    if (event.key === 'Enter' && event.target !== document.body) return;
    runScreenKey(SHELF_KEYS, this.handlers, event);
  }

  protected onDrag(event: DragEvent, over: boolean): void {
    event.preventDefault();
    this.dragging.set(over);
  }

  protected onDrop(event: DragEvent): void {
    event.preventDefault();
    this.dragging.set(false);
    this.files.choose(event.dataTransfer?.files ?? []);
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
