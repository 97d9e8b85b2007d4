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
  /** What is followed, each from a device time on; the last one stays. */
  private followed: { readonly fromS: number; readonly segment: Segment }[] = [];
  private timer: ReturnType<typeof setInterval> | undefined;

  setBeats(beats: ClickBeats): void {
    this.beats = beats;
  }

  /** Follows this segment from now on; what was handed over for another is taken back. */
  start(context: BaseAudioContext, destination: AudioNode, segment: Segment): void {
    this.stop(segment.contextS);
    this.handedUntilS = segment.contextS;
    this.followed = [{ fromS: segment.contextS, segment }];
    const hand = (): void => {
      const untilS = context.currentTime + AHEAD_S;
      if (untilS <= this.handedUntilS) return;
      const { beatsS, isDownbeat } = this.beats;
      for (const { atS, index } of this.reachedUntil(untilS, beatsS)) {
        this.waiting.push({ atS, source: playClick(context, destination, atS, isDownbeat[index]) });
      }
      this.handedUntilS = untilS;
      this.waiting = this.waiting.filter(({ atS }) => atS > context.currentTime - 1);
    };
    hand();
    this.timer = setInterval(hand, EVERY_MS);
  }

  /** Follows another segment from a device time on, and what is followed now until then. */
  then(fromS: number, segment: Segment): void {
    this.followed = [...this.followed.filter((one) => one.fromS < fromS), { fromS, segment }];
    this.takeBack(fromS);
    this.handedUntilS = Math.min(this.handedUntilS, fromS);
  }

  private reachedUntil(untilS: number, beatsS: readonly number[]): { atS: number; index: number }[] {
    return this.followed.flatMap(({ fromS, segment }, i) => {
      const from = Math.max(fromS, this.handedUntilS);
      const to = Math.min(untilS, this.followed[i + 1]?.fromS ?? untilS);
      return to > from ? reachedBetween(segment, beatsS, from, to) : [];
    });
  }

  private takeBack(fromS: number): void {
    for (const { atS, source } of this.waiting) if (atS >= fromS) source.stop();
    this.waiting = this.waiting.filter(({ atS }) => atS < fromS);
  }

  /** No more clicks from this device time on. */
  stop(fromS: number): void {
    clearInterval(this.timer);
    this.takeBack(fromS);
  }
}
