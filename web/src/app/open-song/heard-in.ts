/**
 * Which recording of the open song sounds: the reference that its tab is written to, or another one that is laid along it. Everything stays at
 * its place of the reference; only the sound is another.
 */
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { Recording, RecordingAlignment } from '@wild-needle/contract';
import { timeMapOf, type TimeMap } from '@wild-needle/core/alignment';
import { changeReference } from '@wild-needle/core/riff';
import { Api } from '../api/api';
import { OpenSongStore } from './open-song.store';

export interface OtherRecording {
  readonly recording: Recording;
  readonly map: TimeMap;
  /** It sounds this much higher than the reference. */
  readonly semitones: number;
}

/** 'apart': it is of another song. */
export type HeardInStatus = 'reference' | 'aligning' | 'ready' | 'apart' | 'failed';

@Injectable({ providedIn: 'root' })
export class HeardIn {
  private readonly song = inject(OpenSongStore);
  private readonly api = inject(Api);
  private readonly wanted = signal<string | null>(null);
  private readonly statusSignal = signal<HeardInStatus>('reference');
  private readonly otherSignal = signal<OtherRecording | null>(null);

  readonly status = this.statusSignal.asReadonly();
  /** What sounds in place of the reference; null while that does. */
  readonly other = this.otherSignal.asReadonly();
  readonly recordings = this.song.recordings;
  /** Which one was chosen, also while it is laid along. */
  readonly chosen = computed(
    () => this.recordings().find((r) => r.id === this.wanted()) ?? this.song.recording(),
  );
  /** The one that sounds. */
  readonly recording = computed(() => this.otherSignal()?.recording ?? this.song.recording());

  /** The song may be read anew meanwhile: the same recording goes on. */
  private readonly referenceId = computed(() => this.song.recording()?.id ?? null);

  constructor() {
    // Another song, or another reference: it sounds first.
    effect(() => {
      this.song.songId();
      this.referenceId();
      untracked(() => this.toReference());
    });
  }

  /** The one after it in the list. */
  next(): void {
    const all = this.recordings();
    const at = all.findIndex((r) => r.id === this.chosen()?.id);
    const next = all.at((at + 1) % Math.max(1, all.length));
    if (next) void this.choose(next.id);
  }

  async choose(id: string): Promise<void> {
    const reference = this.song.recording();
    const recording = this.recordings().find((r) => r.id === id);
    if (!reference || !recording || id === reference.id) {
      this.toReference();
      return;
    }
    this.wanted.set(id);
    this.statusSignal.set('aligning');
    let alignment: RecordingAlignment | null = null;
    try {
      alignment = await firstValueFrom(this.api.alignment(id));
    } catch {
      // It is said below.
    }
    if (this.wanted() !== id) return;
    if (!alignment?.belongs) {
      this.toReference();
      this.statusSignal.set(alignment ? 'apart' : 'failed');
      return;
    }
    const map = timeMapOf(alignment, { referenceS: reference.durationS, otherS: recording.durationS });
    this.otherSignal.set({ recording, map, semitones: alignment.semitones });
    this.statusSignal.set('ready');
  }

  /** The tab is written to what sounds, from now on; undo takes it back. */
  makeReference(): void {
    const other = this.otherSignal();
    if (other)
      this.song.change((document) => changeReference(document, other.recording.id, other.map.toOther));
  }

  async remove(id: string): Promise<void> {
    if (this.chosen()?.id === id) this.toReference();
    await firstValueFrom(this.api.removeRecording(id));
    this.song.recordingGone(id);
  }

  private toReference(): void {
    this.wanted.set(null);
    this.otherSignal.set(null);
    this.statusSignal.set('reference');
  }
}
