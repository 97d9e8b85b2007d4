/**
 * "Listen again": measures the loop, or the whole song, once more with the ears, the focus and the parts of the deck, the tuning of
 * the tab and what was checked in it. What is heard is shown in the passes of the shown guitar; for the tab it is a suggestion.
 */
import { inject, Injectable, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { Api } from '../api/api';
import type { Hearing } from '../recording/hearing';
import { HeardAgain } from './heard-again';
import { InstrumentsStore } from './instruments.store';
import { OpenSongStore } from './open-song.store';
import { analyseInWorker, decodeForAnalysis } from '../recording/analysis-client';
import { cutSignal, type HeardSpan } from '../recording/heard-anew';

@Injectable({ providedIn: 'root' })
export class ListenAgain {
  private readonly api = inject(Api);
  private readonly song = inject(OpenSongStore);
  private readonly heardAgain = inject(HeardAgain);
  private readonly instruments = inject(InstrumentsStore);
  private running: AbortController | null = null;
  private readonly progressSignal = signal<{ readonly share: number; readonly doing: string } | null>(null);

  /** Null while nothing runs. */
  readonly progress = this.progressSignal.asReadonly();

  /**
   * Answers how many strums changed and how to take it back, or null when it was cancelled or there is nothing to hear. `span` null = the whole
   * song; `hearing`: through which ears, focus and parts.
   */
  async start(
    span: HeardSpan | null,
    hearing: Hearing,
  ): Promise<{ readonly changed: number; undo(): void } | null> {
    const [recording, document, songId] = [this.song.recording(), this.song.written(), this.song.songId()];
    if (!recording || !document || this.running) return null;
    const running = (this.running = new AbortController());
    this.progressSignal.set({ share: 0, doing: 'Reading the recording' });
    try {
      const whole = await decodeForAnalysis(await firstValueFrom(this.api.audio(recording.id)));
      running.signal.throwIfAborted();
      const wanted = span ?? { startS: 0, endS: Infinity };
      const { signal: cut, fromS } = span ? cutSignal(whole, span) : { signal: whole, fromS: 0 };
      await this.instruments.refresh();
      const addresses = this.instruments.addresses();
      const cleanAddresses = this.instruments.cleanAddresses();
      const heard = await analyseInWorker(
        { signal: cut, fromS, document, hearing, addresses, cleanAddresses },
        (share, doing) => this.progressSignal.set({ share, doing }),
        running.signal,
      );
      if (this.song.songId() !== songId) return null;
      const anew = heard.strums.map((s) => ({ ...s, timeS: s.timeS + fromS, endS: s.endS + fromS }));
      return this.heardAgain.show(anew, wanted);
    } catch (error) {
      if (running.signal.aborted) return null;
      throw error;
    } finally {
      this.running = null;
      this.progressSignal.set(null);
    }
  }

  cancel(): void {
    this.running?.abort(new DOMException('cancelled', 'AbortError'));
  }
}
