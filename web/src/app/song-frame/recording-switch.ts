/** Which recording of the song sounds, where it has several: the album, a live one, one's own take. */
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { minutes } from '@wild-needle/core/units';
import type { Recording } from '@wild-needle/contract';
import { HeardIn } from '../open-song/heard-in';
import { OpenSongStore } from '../open-song/open-song.store';
import { Say } from '../shared/say';
import { counted } from '../shared/words';

/** A file's name without its ending. */
export const nameOf = ({ fileName }: Recording): string => fileName.replace(/\.[^.]+$/, '');

@Component({
  selector: 'wn-recording-switch',
  imports: [MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (heardIn.recordings().length > 1) {
      <button
        class="pill"
        [matMenuTriggerFor]="list"
        [attr.aria-label]="'Recording: ' + name() + '. ' + words()"
        [title]="words()"
      >
        <b>{{ name() }}</b> {{ words() }} <kbd>Alt R</kbd>
      </button>
      <mat-menu #list>
        @for (one of heardIn.recordings(); track one.id) {
          <button mat-menu-item (click)="choose(one)">
            {{ one.id === heardIn.chosen()?.id ? '●' : '○' }} {{ nameOf(one) }}, {{ minutes(one.durationS) }}
            @if (one.id === song.recording()?.id) {
              (the tab is written to it)
            }
          </button>
        }
        @if (heardIn.other(); as other) {
          <button mat-menu-item (click)="makeReference()">
            Write the tab to {{ nameOf(other.recording) }}
          </button>
          <button mat-menu-item (click)="remove(other.recording)">
            Remove {{ nameOf(other.recording) }} from the song
          </button>
        }
      </mat-menu>
    }
  `,
  styles: `
    :host {
      position: absolute;
      top: 2px;
      right: 8px;
      z-index: 1;
    }
    .pill {
      max-width: 60vw;
      height: 22px;
      padding: 0 8px;
      overflow: hidden;
      border: 1px solid var(--edge);
      border-radius: 11px;
      background: var(--sleeve);
      color: var(--ink);
      font: 500 12px var(--words);
      text-overflow: ellipsis;
      white-space: nowrap;
      cursor: pointer;
    }
    kbd {
      font-size: 10px;
    }
  `,
})
export class RecordingSwitch {
  protected readonly heardIn = inject(HeardIn);
  protected readonly song = inject(OpenSongStore);
  private readonly said = inject(Say);
  protected readonly nameOf = nameOf;
  protected readonly minutes = minutes;
  /** Its removal waits for a second press. */
  private readonly armed = signal<string | null>(null);

  protected readonly name = computed(() => {
    const chosen = this.heardIn.chosen();
    return chosen ? nameOf(chosen) : '';
  });
  protected readonly words = computed(() => {
    const other = this.heardIn.other();
    switch (this.heardIn.status()) {
      case 'aligning':
        return 'is laid along the tab …';
      case 'apart':
        return 'The other one is of another song: it shares too little with this one.';
      case 'failed':
        return 'The other one could not be laid along: try again.';
      case 'reference':
        return `1 of ${this.heardIn.recordings().length}`;
      case 'ready':
        return other ? readyWords(other.semitones, other.map.onlyIn) : '';
    }
  });

  protected choose({ id }: Recording): void {
    void this.heardIn.choose(id);
  }

  protected makeReference(): void {
    this.heardIn.makeReference();
    this.said.say('The tab is written to this recording now. Undo takes it back.');
  }

  protected remove(recording: Recording): void {
    if (this.armed() !== recording.id) {
      this.armed.set(recording.id);
      this.said.say(`Once more removes ${nameOf(recording)} for good`);
      return;
    }
    this.armed.set(null);
    void this.heardIn
      .remove(recording.id)
      .catch((error: unknown) => this.said.say(error instanceof Error ? error.message : String(error)));
  }
}

/** Where the two differ. */
export function readyWords(
  semitones: number,
  onlyIn: readonly {
    readonly recording: 'reference' | 'other';
    readonly startS: number;
    readonly endS: number;
  }[],
): string {
  const height =
    semitones === 0
      ? []
      : [`${counted(Math.abs(semitones), 'semitone')} ${semitones > 0 ? 'higher' : 'lower'}`];
  const parts = onlyIn.map(({ recording, startS, endS }) =>
    recording === 'other'
      ? `has ${Math.round(endS - startS)} s more at ${minutes(startS)}`
      : `leaves out ${minutes(startS)} to ${minutes(endS)}`,
  );
  const words = [...height, ...parts];
  return words.length === 0 ? 'has the same parts' : words.slice(0, 3).join(', ');
}
