/** A bar clicked before playback starts, and which of its beats sounds. */
import { playClick } from './click';

/** So many beats, this far apart at full speed. */
export interface CountIn {
  readonly beats: number;
  readonly periodS: number;
}

export class CountInClicks {
  private sources: AudioBufferSourceNode[] = [];
  private counted: { readonly startS: number; readonly stepS: number; readonly beats: number } | null = null;

  /** Clicks it from a device time on; answers how long it takes. */
  start(
    context: BaseAudioContext,
    destination: AudioNode,
    startS: number,
    countIn: CountIn | null,
    speed: number,
  ): number {
    this.sources = [];
    this.counted = null;
    if (!countIn) return 0;
    const { beats } = countIn;
    const stepS = countIn.periodS / speed;
    this.counted = { startS, stepS, beats };
    this.sources = Array.from({ length: beats }, (_, beat) =>
      playClick(context, destination, startS + beat * stepS, beat === 0),
    );
    return beats * stepS;
  }

  stop(): void {
    for (const source of this.sources) source.stop();
    this.counted = null;
  }

  /** The beat that sounds, 1 for the first; null when nothing is counted, before it, and from `untilS` on, when playback begins. */
  beatAt(nowS: number, untilS: number): number | null {
    if (!this.counted || nowS >= untilS) return null;
    const { startS, stepS, beats } = this.counted;
    // After a rest it begins later; what is a moment ahead is the first beat.
    if (nowS < startS - stepS) return null;
    return Math.min(beats, Math.max(1, 1 + Math.floor((nowS - startS) / stepS)));
  }
}
