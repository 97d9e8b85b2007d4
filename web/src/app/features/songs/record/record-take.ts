/** A take of one's own: input on, its level seen, recorded after a count-in. */
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatMenuModule } from '@angular/material/menu';
import { scaleLinear } from 'd3-scale';
import type { SongSummary } from '@wild-needle/contract';
import { minutes } from '@wild-needle/core/units';
import { INPUT_CHANNELS } from '../../../input/audio-input';
import { TakeRecorder } from '../../../input/take-recorder';
import { SHELF_KEYS } from '../shelf-keys';
import { KeptTakes } from './kept-takes';

const WEDGE = { width: 190, height: 22 };
/** What the wedge shows, dB under full scale, and from where on it is amber. */
const LOWEST_DB = -60;
const LOUD_DB = -6;

@Component({
  selector: 'wn-record-take',
  imports: [KeptTakes, MatButton, MatCheckbox, MatMenuModule],
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
      <wn-kept-takes [songs]="songs()" (kept)="kept.emit()" />
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
  `,
})
export class RecordTake {
  protected readonly recorder = inject(TakeRecorder);
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
  private readonly x = scaleLinear([LOWEST_DB, 0], [0, WEDGE.width]).clamp(true);

  protected readonly label = computed(
    () =>
      ({
        off: 'Record a take',
        armed: 'Record',
        counting: 'Counting in',
        recording: `Stop, ${minutes(Math.floor(this.recorder.seconds()))}`,
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
}
