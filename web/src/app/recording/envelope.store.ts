/** The outline of the open recording for drawing; a buffer, so it stays out of the state. */
import { inject, Injectable, signal } from '@angular/core';
import { buildPeakPyramid, type PeakPyramid } from '@wild-needle/core/units';
import { Api } from '../api/api';

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

  load(recordingId: string): void {
    if (recordingId === this.recordingId) return;
    this.recordingId = recordingId;
    this.pyramid.set(null);
    this.api.envelope(recordingId).subscribe({
      next: (bytes) => {
        if (this.recordingId === recordingId) this.pyramid.set(buildPeakPyramid(bytes));
      },
      // The strip stays a line; a later opening tries again.
      error: () => (this.recordingId = null),
    });
  }
}
