/** A song on the shelf: how far each step is, what is next, which bars are checked, when hands were on it last. */
import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import { RouterLink } from '@angular/router';
import { addressOf, STEPS, TAG_LIMITS, type AnalysisJob, type SongSummary } from '@wild-needle/contract';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import { minutes } from '@wild-needle/core/units';
import { Icon } from '../../../shared/icon';
import { counted, dayOf, soFarWords } from '../../../shared/words';
import { nextStep, nextWords } from './shelf-words';

/** What the user calls a song. */
export interface SongNames {
  readonly title: string;
  readonly artist: string;
  readonly tags: readonly string[];
}

@Component({
  selector: 'wn-song-row',
  imports: [Icon, MatButton, MatIconButton, MatProgressBar, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.chosen]': 'isChosen()' },
  templateUrl: './song-row.html',
  styleUrl: './song-row.scss',
})
export class SongRow {
  readonly song = input.required<SongSummary>();
  /** Of its recording, as it is now; null without one. */
  readonly job = input.required<AnalysisJob | null>();
  readonly isChosen = input.required<boolean>();
  readonly isEdited = input.required<boolean>();
  /** Its removal waits for a second press. */
  readonly isRemoved = input.required<boolean>();
  readonly removePressed = output();
  readonly editPressed = output();
  readonly editEnded = output();
  readonly named = output<SongNames>();
  readonly listenAgain = output<string>();
  readonly cancelled = output<string>();
  readonly carriedOn = output();

  protected readonly LIMITS = TEXT_LIMITS;
  protected readonly TAGS_LENGTH = TAG_LIMITS.tags * (TAG_LIMITS.letters + 2);
  protected readonly isBusy = computed(() => ['queued', 'running'].includes(this.job()?.status ?? ''));
  protected readonly soFar = computed(() => soFarWords(this.job()?.soFar ?? null));
  protected readonly next = computed(() => nextWords(this.song()));
  protected readonly steps = computed(() => {
    const next = nextStep(this.song());
    return STEPS.map((step) => ({ step, percent: 100 * this.song().steps[step], isNext: step === next }));
  });
  protected readonly isListened = computed(() => this.song().strums > 0);
  protected readonly worked = computed(() => dayOf(new Date(this.song().updatedAt), new Date()));
  protected readonly tempo = computed(() => {
    const { tempoBpm, durationS } = this.song();
    const words = [
      tempoBpm === null ? null : `${Math.round(tempoBpm)} bpm`,
      durationS === null ? null : minutes(durationS),
    ];
    return words.filter((word) => word !== null).join(', ');
  });
  /** More than one: each with its length. */
  protected readonly recordings = computed(() => {
    const { recordings } = this.song();
    const nameOf = (file: string): string => file.replace(/\.[^.]+$/, '');
    return recordings.length > 1
      ? recordings.map((r) => ({ id: r.id, name: nameOf(r.fileName), length: minutes(r.durationS) }))
      : [];
  });
  protected readonly recordingWords = computed(() => counted(this.recordings().length, 'recording'));
  protected readonly bars = computed(() => this.song().bars.filter((section) => section.bars > 0));
  protected readonly checkedBars = computed(() => this.bars().reduce((sum, s) => sum + s.checkedBars, 0));
  protected readonly allBars = computed(() => this.bars().reduce((sum, s) => sum + s.bars, 0));
  /** Why nothing is written. */
  protected readonly trouble = computed(() => {
    const job = this.job();
    if (this.isListened() || this.isBusy()) return '';
    if (job?.problem) return job.problem.message;
    if (this.song().recordings.length === 0) return 'No recording yet: drop one here.';
    return job?.status === 'done' ? 'Heard, but no riff was found' : 'Not listened to yet';
  });
  /** How far it is, for who does not see it. */
  protected readonly spoken = computed(() => {
    const { step, missing } = this.next();
    const bars = this.allBars() > 0 ? `, ${this.checkedBars()} of ${this.allBars()} bars checked` : '';
    return `${step.toLowerCase()}${missing ? `, ${missing}` : ''}${bars}, ${this.worked()}`;
  });
  protected readonly handOn = computed(() => addressOf('backUpSong', { id: this.song().id }));
  protected readonly tagText = linkedSignal(() => this.song().tags.join(', '));

  protected save(title: string, artist: string, tags: string): void {
    const words = tags.split(',').map((tag) => tag.trim().slice(0, TAG_LIMITS.letters).trim());
    const own = [...new Set(words.filter((tag) => tag !== ''))].slice(0, TAG_LIMITS.tags);
    this.named.emit({ title, artist, tags: own });
  }
}
