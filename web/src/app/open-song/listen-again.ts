/**
 * "Listen again": measures the loop, or the whole song, once more with the ears and the focus of the deck, the tuning of
 * the tab and what was checked in it. What is heard is shown in the passes; the written riff is left alone.
 */
import { inject, Injectable, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { Api } from '../api/api';
import type { Hearing } from '../recording/hearing';
import { OpenSongStore } from './open-song.store';
import { analyseInWorker, decodeForAnalysis } from '../recording/analysis-client';
import { cutSignal, putBack, type HeardSpan } from '../recording/heard-anew';

@Injectable({ providedIn: 'root' })
export class ListenAgain {
  private readonly api = inject(Api);
  private readonly song = inject(OpenSongStore);
  private running: AbortController | null = null;
  private readonly progressSignal = signal<{ readonly share: number; readonly doing: string } | null>(null);

  /** Null while nothing runs. */
  readonly progress = this.progressSignal.asReadonly();

  /**
   * Answers how many strums changed, or null when it was cancelled or there is nothing to hear. `span` null = the whole
   * song; `hearing`: through which ears and focus.
   */
  async start(span: HeardSpan | null, hearing: Hearing): Promise<number | null> {
    const [recording, document, songId] = [this.song.recording(), this.song.written(), this.song.songId()];
    if (!recording || !document || this.running) return null;
    const running = (this.running = new AbortController());
    this.progressSignal.set({ share: 0, doing: 'Reading the recording' });
    try {
      const whole = await decodeForAnalysis(await firstValueFrom(this.api.audio(recording.id)));
      running.signal.throwIfAborted();
      const wanted = span ?? { startS: 0, endS: Infinity };
      const { signal: cut, fromS } = span ? cutSignal(whole, span) : { signal: whole, fromS: 0 };
      const heard = await analyseInWorker(
        { signal: cut, fromS, document, hearing },
        (share, doing) => this.progressSignal.set({ share, doing }),
        running.signal,
      );
      const before = this.song.analysis();
      if (this.song.songId() !== songId || !before) return null;
      const anew = heard.strums.map((s) => ({ ...s, timeS: s.timeS + fromS, endS: s.endS + fromS }));
      const { analysis, changed } = putBack(before, anew, wanted);
      this.song.showHeard(analysis);
      return changed;
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
