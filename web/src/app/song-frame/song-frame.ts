/**
 * What stays while a song is worked on, whatever the step: the groove strip above, the deck below, and the keys of
 * both. Loads sound and outline of the song that the address names.
 */
import type { ElementRef, OnDestroy } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DOCUMENT,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink, RouterOutlet } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import { Store } from '@ngrx/store';
import { filter, firstValueFrom, map } from 'rxjs';
import { barTimesS, type Section } from '@wild-needle/core/riff';
import { Api } from '../api/api';
import { BandSound } from '../transport/band-sound';
import { MediaKeys } from '../transport/media-keys';
import { Pedals } from '../transport/pedals';
import { Player } from '../transport/player';
import { silentWav } from '../transport/silent-wav';
import { EnvelopeStore } from '../recording/envelope.store';
import { HeardIn, type OtherRecording } from '../open-song/heard-in';
import { OpenSongStore } from '../open-song/open-song.store';
import { SAME_TIME, type SongTime } from '../transport/song-time';
import { droppedFiles, isRecording } from '../shared/dropped-files';
import { dayOf, keptWords, soFarWords } from '../shared/words';
import { ImportFiles } from '../state/imports/import-files';
import { importActions } from '../state/imports/imports.actions';
import { importsFeature } from '../state/imports/imports.reducer';
import { jobActions } from '../state/jobs/jobs.actions';
import { jobsFeature } from '../state/jobs/jobs.reducer';
import { settingsFeature } from '../state/settings/settings.reducer';
import { InstrumentsStore } from '../open-song/instruments.store';
import { ListenAgain } from '../open-song/listen-again';
import type { LeftCopy, UnreadableCopy } from '../open-song/unsaved-copies';
import { observeSize } from '../shared/observe-size';
import { saveFile } from '../shared/save-file';
import { stepOf } from '../shared/step-walk';
import { Deck } from './deck/deck';
import { DeckControl } from '../transport/deck-control';
import { GrooveStrip } from './strip/groove-strip';
import { InstrumentsPanel } from './instruments/instruments-panel';
import { KeyCard } from './key-card';
import { RecordingSwitch } from './recording-switch';
import { PedalBoard } from './deck/pedal-board';
import { StagePanel } from './deck/stage-panel';
import { WorkClock } from './work-clock';

/** Typing goes on meanwhile; the tab is played as it is when the hands rest. */
const TAB_AFTER_MS = 300;

@Component({
  selector: 'wn-song-frame',
  imports: [
    Deck,
    GrooveStrip,
    InstrumentsPanel,
    KeyCard,
    RecordingSwitch,
    MatButton,
    MatProgressBar,
    PedalBoard,
    RouterLink,
    RouterOutlet,
    StagePanel,
  ],
  providers: [BandSound, DeckControl, WorkClock],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class.folded]': 'onSheet()',
    '(window:keydown)': 'onKey($event)',
    '(click)': 'onClick($event)',
    '(dragover)': '$event.preventDefault()',
    '(drop)': 'onDrop($event)',
  },
  templateUrl: './song-frame.html',
  styleUrl: './song-frame.scss',
})
export class SongFrame implements OnDestroy {
  /** From the address. */
  readonly songId = input.required<string>();
  /** Id of the section that the address asks for. */
  readonly section = input<string>();

  protected readonly song = inject(OpenSongStore);
  protected readonly listening = inject(ListenAgain);
  protected readonly instruments = inject(InstrumentsStore);
  protected readonly player = inject(Player);
  private readonly envelope = inject(EnvelopeStore);
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly snackBar = inject(MatSnackBar);
  private readonly work = inject(WorkClock);
  protected readonly control = inject(DeckControl);
  protected readonly keysShown = this.control.keysShown;

  protected readonly heardIn = inject(HeardIn);
  /** Whose sound is loaded. */
  private loadedSong: string | null = null;
  private readonly files = inject(ImportFiles);
  protected readonly imports = this.store.selectSignal(importsFeature.selectImports);
  protected readonly dropped = signal<readonly File[]>([]);
  protected readonly droppedWords = computed(() => {
    const [first, ...more] = this.dropped();
    return more.length > 0 ? `${more.length + 1} files` : (first?.name ?? '');
  });
  private readonly page = inject(DOCUMENT);
  private readonly workArea = viewChild<ElementRef<HTMLElement>>('workArea');
  /** Where the document is wrong is said from the document on. */
  protected readonly refusal = computed(() => (this.song.refusal() ?? '').replace(/^document\./, ''));
  private readonly mediaKeys = new MediaKeys({
    play: () => {
      if (!this.player.playing()) this.control.togglePlay();
    },
    stop: () => this.player.stop(),
    toStart: () => this.control.toLoopStart(),
    slow: () => this.control.toggleSlow(),
    seek: (timeS) => this.player.seek(timeS),
    jump: (by) => this.control.jump('seconds', by),
  });
  /** Whole seconds: what the system shows need not move more often. */
  private readonly second = computed(() => Math.floor(this.player.nowS()));
  private readonly jobs = this.store.selectSignal(jobsFeature.selectBySong);
  protected readonly job = computed(() => this.jobs()[this.songId()] ?? null);
  protected readonly keptWords = computed(() => keptWords(this.song.keptFromDraft()));
  protected readonly soFar = computed(() => soFarWords(this.job()?.soFar ?? null));
  private readonly recordingId = computed(() => this.song.recording()?.id ?? null);
  /** How long the beats of a song without a recording last; 0 for one with a recording, and for one without beats. */
  private readonly silentS = computed(() => {
    const isOpen = this.song.status() === 'open' && this.recordingId() === null;
    return isOpen ? Math.ceil(this.song.document()?.grid.beatsS.at(-1) ?? 0) : 0;
  });
  private readonly router = inject(Router);
  private readonly url = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map((event) => event.urlAfterRedirects),
    ),
    { initialValue: this.router.url },
  );
  private readonly step = computed(() => stepOf(this.url()));
  protected readonly onSheet = computed(() => this.step() === 'sheet');
  protected readonly onSections = computed(() => this.step() === 'sections');
  private readonly volume = this.store.selectSignal(settingsFeature.selectVolume);
  private readonly clickLevel = this.store.selectSignal(settingsFeature.selectClickLevel);

  constructor() {
    // Messages lie outside of this page, and over the deck, whose height changes with the window and the parts.
    observeSize(this.workArea, () => {
      const bottom = this.workArea()?.nativeElement.getBoundingClientRect().bottom ?? innerHeight;
      this.page.documentElement.style.setProperty('--under-the-work', `${innerHeight - bottom}px`);
    });
    effect(() => {
      const songId = this.songId();
      untracked(() => this.song.open(songId));
    });
    // The section that the address asks for is chosen, and the needle lies on its start.
    const asked = computed(() => {
      const isOpen = this.song.status() === 'open' && this.song.songId() === this.songId();
      return isOpen ? (this.section() ?? null) : null;
    });
    effect(() => {
      const section = this.sectionOf(asked());
      if (section) untracked(() => this.song.selectRiff(section.riffId, section.id));
    });
    let placedAt: string | null = null;
    effect(() => {
      const section = this.sectionOf(asked());
      if (this.player.status() !== 'ready' || !section || placedAt === section.id) return;
      placedAt = section.id;
      const startS = untracked(() => barTimesS(this.song.document()!.grid).at(section.startBar));
      if (startS !== undefined) untracked(() => this.player.seek(startS));
    });
    effect(() => {
      const [recordingId, other] = [this.recordingId(), this.heardIn.other()];
      if (recordingId === null) {
        // A song without one must not sound like the song before.
        this.envelope.forget();
        const durationS = this.silentS();
        untracked(() => void this.loadSilence(durationS));
        return;
      }
      const time = untracked(() => this.songTime(other));
      const sounding = other?.recording.id ?? recordingId;
      this.envelope.load(sounding, time.songS === null ? null : { ...time, songS: time.songS });
      void this.loadSound(sounding, time);
    });
    // The draft appears as soon as the analysis is done.
    let wasHeard = false;
    effect(() => {
      const job = this.job();
      const isNews = wasHeard;
      wasHeard = job?.status === 'running' || job?.status === 'queued';
      // Another recording of the song writes no draft.
      if (job?.status !== 'done' || job.recordingId !== untracked(this.recordingId)) return;
      untracked(() => {
        if (isNews) this.song.draftCame(job.kept);
        // It was done while the song was opened: what was opened may lack it.
        else if (this.song.status() === 'open' && !this.song.analysis()) this.song.refresh();
      });
    });
    inject(BandSound);
    inject(Pedals).setHandler((command, value) => {
      this.work.pedal();
      this.control.runPedal(command, value);
    });
    effect(() => {
      const { title = '', artist = '' } = this.song.document() ?? {};
      this.mediaKeys.show({
        title,
        artist,
        isPlaying: this.player.playing(),
        positionS: this.second(),
        durationS: this.player.durationS(),
        speed: this.player.speed(),
      });
    });
    // Another recording of this song has come in.
    effect(() => {
      const added = this.store.selectSignal(importsFeature.selectAdded)();
      untracked(() => {
        if (added?.songId === this.songId()) this.song.refresh();
      });
    });
    effect(() => this.player.setVolume(this.volume()));
    effect(() => this.player.setClickLevel(this.clickLevel()));
    effect(() => {
      const grid = this.song.document()?.grid;
      if (!grid) return;
      const ones = new Set(grid.bars.map((bar) => bar.beat));
      const isDownbeat = grid.beatsS.map((_, beat) => ones.has(beat));
      untracked(() => this.player.setBeats({ beatsS: grid.beatsS, isDownbeat }));
    });
    effect((onCleanup) => {
      const document = this.song.document();
      if (!document || this.player.status() !== 'ready') return;
      const later = setTimeout(() => this.player.setTab(document), TAB_AFTER_MS);
      onCleanup(() => clearTimeout(later));
    });
  }

  ngOnDestroy(): void {
    this.page.documentElement.style.removeProperty('--under-the-work');
    this.instruments.show(false);
    this.mediaKeys.drop();
    this.player.unload();
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape' && (this.keysShown() || this.control.pedalsShown())) {
      this.keysShown.set(false);
      this.control.pedalsShown.set(false);
      // It closes what is shown and does nothing else: the page behind would let go of its strum.
      event.stopImmediatePropagation();
      return;
    }
    this.control.handleKey(event);
  }

  /** After a click with the mouse the keys belong to the music again, not to the button that was clicked. */
  protected onClick(event: MouseEvent): void {
    const clicked = event.detail > 0 && event.target instanceof Element ? event.target : null;
    const control = clicked?.closest('button, [role=option], [role=slider]');
    if (control?.contains(document.activeElement) && document.activeElement instanceof HTMLElement) {
      document.activeElement.blur();
    }
  }

  /** A recording that is dropped on an open song: another one of it, or a new song? A file that the page itself takes is no question. */
  protected async onDrop(event: DragEvent): Promise<void> {
    if (event.defaultPrevented) return;
    event.preventDefault();
    this.dropped.set((await droppedFiles(event)).filter(isRecording));
  }

  /** `songId` null: songs of their own. */
  protected bringIn(songId: string | null): void {
    this.files.choose(this.dropped(), songId);
    this.dropped.set([]);
  }

  /** The whole song as it is stored; nothing that was written gets lost with a refused save. */
  protected takeAway(): void {
    const document = this.song.document();
    if (document) saveFile(this.page, document.title, 'json', 'application/json', JSON.stringify(document));
  }

  protected takeTheirsAway(): void {
    const theirs = this.song.theirs()?.document;
    if (theirs)
      saveFile(this.page, `${theirs.title} other window`, 'json', 'application/json', JSON.stringify(theirs));
  }

  protected takeAwayLeft({ document }: LeftCopy): void {
    saveFile(this.page, `${document.title} unsaved`, 'json', 'application/json', JSON.stringify(document));
  }

  /** ' (Today, 14:05)'; nothing where it is not known. */
  protected leftAt({ keptAt }: LeftCopy): string {
    return keptAt > 0 ? ` (${dayOf(new Date(keptAt), new Date())})` : '';
  }

  protected takeAwayCopy({ text }: UnreadableCopy): void {
    saveFile(this.page, 'unsaved', 'json', 'application/json', text);
  }

  protected cancelImport(importId: string): void {
    this.store.dispatch(importActions.importCancelled({ importId }));
  }

  protected dismissImport(importId: string): void {
    this.store.dispatch(importActions.messageDismissed({ importId }));
  }

  protected cancel(jobId: string): void {
    this.store.dispatch(jobActions.analysisCancelled({ jobId }));
  }

  protected analyse(recordingId: string): void {
    this.store.dispatch(jobActions.analysisRequested({ recordingId }));
  }

  /** What a song without a recording plays: its tab, over silence as long as its beats. */
  private async loadSilence(durationS: number): Promise<void> {
    this.player.unload();
    if (durationS === 0) return;
    await this.player.load(silentWav(durationS), durationS);
    this.player.setHearing({ ...this.player.hearing(), source: 'tab' });
  }

  /** As the song is when it is asked for; the effects that ask go by the address. */
  private sectionOf(id: string | null): Section | undefined {
    return untracked(() => this.song.document()?.sections.find((s) => s.id === id));
  }

  private songTime(other: OtherRecording | null): SongTime {
    if (!other) return SAME_TIME;
    const { toOther, toReference } = other.map;
    return { toSound: toOther, toSong: toReference, songS: this.song.recording()?.durationS ?? 0 };
  }

  /** Another recording of the song takes over where the one before it was: at the same place, in the same loop. */
  private async loadSound(recordingId: string, time: SongTime): Promise<void> {
    try {
      const bytes = await firstValueFrom(this.api.audio(recordingId));
      const isSameSong = this.loadedSong === this.songId() && this.player.status() === 'ready';
      const before = isSameSong ? this.player.place() : null;
      const recording = this.heardIn.recording();
      if (recording?.id === recordingId) {
        await this.player.load(bytes, recording.durationS, time);
        this.loadedSong = this.songId();
        if (before) await this.player.takeOver(before);
      }
    } catch {
      this.snackBar
        .open('The sound could not be loaded.', 'Try again', { panelClass: 'above-deck' })
        .onAction()
        .subscribe(() => void this.loadSound(recordingId, time));
    }
  }
}
