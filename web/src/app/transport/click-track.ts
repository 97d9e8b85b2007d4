/** Clicks on the recording's own beats while it plays: a little ahead of time, again and again, as playback goes on. */
import { playClick } from './click';
import { reachedBetween, type Segment } from './play-cursor';

/** Beats of the recording, and which of them are downbeats. */
export interface ClickBeats {
  readonly beatsS: readonly number[];
  readonly isDownbeat: readonly boolean[];
}

/** Clicks are handed over this far ahead: longer than a timer of a page in the background is late. */
const AHEAD_S = 1.2;
const EVERY_MS = 250;

export class ClickTrack {
  private beats: ClickBeats = { beatsS: [], isDownbeat: [] };
  private waiting: { readonly atS: number; readonly source: AudioBufferSourceNode }[] = [];
  private handedUntilS = 0;
  private timer: ReturnType<typeof setInterval> | undefined;

  setBeats(beats: ClickBeats): void {
    this.beats = beats;
  }

  /** Follows this segment from now on; what was handed over for another is taken back. */
  start(context: BaseAudioContext, destination: AudioNode, segment: Segment): void {
    this.stop(segment.contextS);
    this.handedUntilS = segment.contextS;
    const hand = (): void => {
      const untilS = context.currentTime + AHEAD_S;
      if (untilS <= this.handedUntilS) return;
      const { beatsS, isDownbeat } = this.beats;
      for (const { atS, index } of reachedBetween(segment, beatsS, this.handedUntilS, untilS)) {
        this.waiting.push({ atS, source: playClick(context, destination, atS, isDownbeat[index]) });
      }
      this.handedUntilS = untilS;
      this.waiting = this.waiting.filter(({ atS }) => atS > context.currentTime - 1);
    };
    hand();
    this.timer = setInterval(hand, EVERY_MS);
  }

  /** No more clicks from this device time on. */
  stop(fromS: number): void {
    clearInterval(this.timer);
    for (const { atS, source } of this.waiting) if (atS >= fromS) source.stop();
    this.waiting = this.waiting.filter(({ atS }) => atS < fromS);
  }
}
