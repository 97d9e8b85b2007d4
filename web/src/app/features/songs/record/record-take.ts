/**
 * A take of one's own: input on, its level seen, recorded after a count-in; then kept as a song or thrown away. Takes that a crash has left
 * are offered too.
 */
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
import { MatCheckbox } from '@angular/material/checkbox';
import { MatMenuModule } from '@angular/material/menu';
import { scaleLinear } from 'd3-scale';
import { firstValueFrom } from 'rxjs';
import type { SongSummary, Take } from '@wild-needle/contract';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import { Api } from '../../../api/api';
import { INPUT_CHANNELS } from '../../../input/audio-input';
import { TakeRecorder } from '../../../input/take-recorder';
import { dayOf } from '../../../shared/words';
import { SHELF_KEYS } from '../shelf-keys';

const WEDGE = { width: 190, height: 22 };
/** What the wedge shows, dB under full scale, and from where on it is amber. */
const LOWEST_DB = -60;
const LOUD_DB = -6;
/** A take that another window records is asked about again. */
const AGAIN_MS = 3000;

const mmss = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

@Component({
  selector: 'wn-record-take',
  imports: [MatButton, MatCheckbox, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-label="Record a take">
      <div class="row">
        <button
          mat-stroked-button
          [class.on]="recorder.status() === 'recording'"
          [disabled]="recorder.status() === 'ending'"
          (click)="press()"
        >
          <i aria-hidden="true"></i>{{ label() }} <kbd>{{ keys.record.caps }}</kbd>
        </button>
        @if (recorder.status() === 'off') {
          <button mat-stroked-button class="more" aria-label="Which input" [matMenuTriggerFor]="inputs">
            …
          </button>
        } @else if (recorder.status() === 'armed') {
          <button mat-stroked-button class="more" aria-label="Input off" (click)="recorder.switchOff()">
            ×
          </button>
        }
        <mat-menu #inputs>
          @for (device of recorder.input.devices(); track device.id) {
            <button mat-menu-item (click)="useDevice(device.id)">{{ device.label }}</button>
          }
          @for (channel of CHANNELS; track channel) {
            <button mat-menu-item (click)="recorder.input.channel.set(channel)">
              {{ recorder.input.channel() === channel ? '●' : '○' }} {{ CHANNEL_WORDS[channel] }}
            </button>
          }
          <button mat-menu-item (click)="recorder.arm(true)">Simulated player</button>
        </mat-menu>
      </div>
      @if (recorder.status() !== 'off') {
        <div class="row">
          <svg
            role="meter"
            aria-label="Level of the input"
            aria-valuemin="-60"
            aria-valuemax="0"
            [attr.aria-valuenow]="loudest()"
            [attr.aria-valuetext]="loudest() + ' decibels at its loudest'"
            width="190"
            height="22"
          >
            <path class="ground" [attr.d]="wedge(WEDGE.width)" />
            <path
              class="level"
              [class.recording]="recorder.status() === 'recording'"
              [attr.d]="wedge(levelX())"
            />
            <path class="loud" [attr.d]="loudPart()" />
            <path class="tick" [attr.d]="'M' + loudestX() + ' 0V22'" />
          </svg>
          <span class="loudest"
            ><b>{{ loudest() }} dB</b> loudest</span
          >
        </div>
        <p class="quiet" role="status">{{ hint() }}</p>
        @if (recorder.status() === 'armed') {
          <mat-checkbox [checked]="recorder.countsIn()" (change)="recorder.countsIn.set($event.checked)"
            >Count a bar in</mat-checkbox
          >
          <label class="along"
            >In the headphones
            <select #along aria-label="In the headphones" (change)="playAlong(along.value)">
              <option value="nothing">nothing</option>
              <option value="click">a click, 120 bpm</option>
              @for (song of withSound(); track song.id) {
                <option [value]="song.id" [selected]="isAlong(song.id)">{{ song.title }}</option>
              }
            </select></label
          >
        }
      }
      @if (recorder.problem(); as problem) {
        <p class="problem" role="alert">{{ problem }}</p>
        @if (recorder.status() === 'off') {
          <button mat-stroked-button (click)="recorder.arm(true)">Simulated player</button>
        }
      }
      @for (take of takes(); track take.id) {
        @if (take.isRecording) {
          <p class="quiet">A take of {{ length(take) }} is being recorded in another window.</p>
        } @else {
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
            <button
              mat-stroked-button
              type="button"
              [disabled]="busy() === take.id"
              (click)="throwAway(take)"
            >
              {{ armed() === take.id ? 'For good' : 'Throw away' }}
            </button>
          </form>
        }
      }
      @if (trouble(); as words) {
        <p class="problem" role="alert">{{ words }}</p>
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 8px;
      padding-top: 12px;
      border-top: 1px solid var(--line2);
    }
    .row {
      display: flex;
      align-items: center;
      gap: 8px;
    }
    button i {
      display: inline-block;
      width: 12px;
      height: 12px;
      margin-right: 8px;
      border-radius: 6px;
      background: var(--ink);
    }
    .on {
      color: var(--needle);
    }
    .on i {
      border-radius: 1px;
      background: var(--needle);
    }
    .more {
      min-width: 0;
      padding: 0 10px;
    }
    kbd {
      margin-left: 6px;
    }
    svg {
      display: block;
      flex: none;
    }
    .ground {
      fill: var(--shade);
    }
    .level {
      fill: var(--groove2);
    }
    .level.recording {
      fill: var(--needle);
    }
    .loud {
      fill: var(--doubt-fill);
    }
    .tick {
      stroke: var(--ink);
      stroke-width: 2.5;
    }
    .loudest {
      font-size: 13px;
      line-height: 15px;
    }
    .loudest b {
      display: block;
      white-space: nowrap;
    }
    .problem {
      color: var(--clash);
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
    .along {
      display: grid;
      gap: 2px;
      font-size: 13px;
    }
    select {
      min-width: 0;
      height: 34px;
      padding: 0 8px;
      border: 1px solid var(--edge);
      border-radius: var(--radius);
      background: var(--sleeve);
      color: var(--ink);
    }
    .take select,
    .take input {
      grid-column: 1 / -1;
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
  `,
})
export class RecordTake {
  protected readonly recorder = inject(TakeRecorder);
  private readonly api = inject(Api);
  /** A take is a song now. */
  readonly kept = output();
  /** On the shelf: a take may be played to one of them, and be a recording of it. */
  readonly songs = input.required<readonly SongSummary[]>();
  protected readonly withSound = computed(() => this.songs().filter((s) => s.recordings.length > 0));
  protected readonly keys = SHELF_KEYS;
  protected readonly CHANNELS = INPUT_CHANNELS;
  protected readonly CHANNEL_WORDS = {
    mix: 'Both channels',
    left: 'Left channel',
    right: 'Right channel',
  } as const;
  protected readonly WEDGE = WEDGE;
  protected readonly TITLE_LIMIT = TEXT_LIMITS.title;
  protected readonly takes = signal<readonly Take[]>([]);
  protected readonly busy = signal<string | null>(null);
  /** A take that is thrown away by a second press. */
  protected readonly armed = signal<string | null>(null);
  protected readonly trouble = signal('');
  private readonly x = scaleLinear([LOWEST_DB, 0], [0, WEDGE.width]).clamp(true);

  constructor() {
    effect((onCleanup) => {
      this.recorder.ended();
      const isAnotherRecording = this.takes().some((t) => t.isRecording);
      const later = isAnotherRecording ? setTimeout(() => void this.load(), AGAIN_MS) : undefined;
      onCleanup(() => clearTimeout(later));
    });
    effect(() => {
      this.recorder.ended();
      untracked(() => void this.load());
    });
  }

  protected readonly label = computed(
    () =>
      ({
        off: 'Record a take',
        armed: 'Record',
        counting: 'Counting in',
        recording: `Stop, ${mmss(this.recorder.seconds())}`,
        ending: 'Keeping it …',
      })[this.recorder.status()],
  );
  protected readonly hint = computed(() => {
    if (this.recorder.level().loudestDb > LOUD_DB)
      return 'Too loud: turn the input down until it stays under the amber.';
    if (this.recorder.status() === 'armed') {
      return this.recorder.isSimulated()
        ? 'A simulated player plays.'
        : 'Play as loud as you will, then record.';
    }
    return 'Up to 30 minutes. Every half second is kept as you play.';
  });
  protected readonly levelX = computed(() => this.x(this.recorder.level().nowDb));
  protected readonly loudestX = computed(() => this.x(this.recorder.level().loudestDb));
  protected readonly loudest = computed(() =>
    Math.round(Math.max(LOWEST_DB, this.recorder.level().loudestDb)),
  );
  protected readonly loudPart = computed(() => {
    const [from, to] = [this.x(LOUD_DB), Math.max(this.x(LOUD_DB), this.levelX())];
    return this.part(from, to);
  });

  protected wedge(toX: number): string {
    return this.part(0, toX);
  }

  /** Between two places the wedge is as high as it is wide there. */
  private part(fromX: number, toX: number): string {
    const half = (x: number): number => (x / WEDGE.width) * (WEDGE.height / 2);
    const middle = WEDGE.height / 2;
    return `M${fromX} ${middle - half(fromX)}L${toX} ${middle - half(toX)}V${middle + half(toX)}L${fromX} ${middle + half(fromX)}Z`;
  }

  /** Input on, record, stop. */
  press(): void {
    const status = this.recorder.status();
    if (status === 'off') void this.recorder.arm(false);
    else if (status === 'armed') void this.recorder.record();
    else if (status === 'recording' || status === 'counting') void this.recorder.stop();
  }

  protected useDevice(id: string): void {
    this.recorder.input.deviceId.set(id);
    void this.recorder.arm(false);
  }

  protected length(take: Take): string {
    return mmss(take.seconds);
  }

  protected when(take: Take): string {
    return dayOf(new Date(take.startedAt), new Date());
  }

  protected titleOf(take: Take): string {
    return `Take, ${new Date(take.startedAt).toLocaleString('en-GB', { day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' })}`;
  }

  protected playAlong(choice: string): void {
    const song = this.songs().find((s) => s.id === choice);
    const recordingId = song?.recordings[0]?.id;
    this.recorder.along.set(
      song && recordingId
        ? { kind: 'recording', songId: song.id, recordingId, title: song.title }
        : { kind: choice === 'click' ? 'click' : 'nothing' },
    );
  }

  protected isAlong(songId: string): boolean {
    const along = this.recorder.along();
    return along.kind === 'recording' && along.songId === songId;
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
