/** The outline of the open recording for drawing; a buffer, so it stays out of the state. */
import { inject, Injectable, signal } from '@angular/core';
import { warpOutline } from '@wild-needle/core/alignment';
import { buildPeakPyramid, type PeakPyramid } from '@wild-needle/core/units';
import { Api } from '../api/api';

export interface Laid {
  /** Length of the reference. */
  readonly songS: number;
  readonly toSound: (songS: number) => number;
}

@Injectable({ providedIn: 'root' })
export class EnvelopeStore {
  private readonly api = inject(Api);
  private recordingId: string | null = null;
  private readonly pyramid = signal<PeakPyramid | null>(null);
  /** One byte per 5 ms, 255 = loudest, in levels; null until it is read. */
  readonly envelope = this.pyramid.asReadonly();

  forget(): void {
    this.recordingId = null;
    this.pyramid.set(null);
  }

  /** `laid`: another recording than the reference is drawn over the time of that. */
  load(recordingId: string, laid: Laid | null = null): void {
    if (recordingId === this.recordingId) return;
    this.recordingId = recordingId;
    this.pyramid.set(null);
    this.api.envelope(recordingId).subscribe({
      next: (bytes) => {
        if (this.recordingId !== recordingId) return;
        const outline = laid ? warpOutline(bytes, laid.songS, laid.toSound) : bytes;
        this.pyramid.set(buildPeakPyramid(outline));
      },
      // The strip stays a line; a later opening tries again.
      error: () => (this.recordingId = null),
    });
  }
}
