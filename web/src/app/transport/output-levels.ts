/** How loud music and click leave the page. Every change is faded: no click of its own. */

/** Changes of level and pauses are faded over this time. */
export const FADE_S = 0.015;
/** A loop seam can overshoot to 1.6 times full scale: this much room is left. */
const HEADROOM = 0.6;
/** The volume at which the click sounds as loud as it is set. */
const USUAL_VOLUME = 0.6;

export class OutputLevels {
  private music: GainNode | null = null;
  private clicks: GainNode | null = null;
  /** 0 to 1. */
  private volume = 0.6;
  private clickLevel = 0.5;
  private isMuted = false;

  /** Where clicks are played into; null before anything is connected. */
  get clickOut(): AudioNode | null {
    return this.clicks;
  }

  /** Music and clicks leave by one door; music is silent until it rises. */
  connect(context: AudioContext, music: AudioNode): void {
    this.music = new GainNode(context, { gain: 0 });
    this.clicks = new GainNode(context, { gain: this.clickVolume() });
    const out = new GainNode(context);
    out.connect(context.destination);
    music.connect(this.music).connect(out);
    this.clicks.connect(out);
  }

  setVolume(volume: number, atS: number): void {
    this.volume = volume;
    this.fadeClicks(atS);
  }

  setClickLevel(level: number, atS: number): void {
    this.clickLevel = level;
    this.fadeClicks(atS);
  }

  /** Nothing but the click sounds. */
  setMuted(isMuted: boolean): void {
    this.isMuted = isMuted;
  }

  /** Music to its level, from a device time on; what was to come after that is not to come any more. */
  rise(atS: number): void {
    this.music?.gain.cancelScheduledValues(atS);
    this.music?.gain.setTargetAtTime(this.isMuted ? 0 : this.volume * HEADROOM, atS, FADE_S);
  }

  /** The same, whatever was to come. */
  riseAnew(atS: number): void {
    this.music?.gain.cancelScheduledValues(0);
    this.rise(atS);
  }

  fall(atS: number, overS = FADE_S): void {
    this.music?.gain.setTargetAtTime(0, atS, overS);
  }

  /** The click is as loud as the rest: quiet where that is. */
  private clickVolume(): number {
    return Math.min(1, (this.clickLevel * this.volume) / USUAL_VOLUME);
  }

  private fadeClicks(atS: number): void {
    this.clicks?.gain.setTargetAtTime(this.clickVolume(), atS, FADE_S);
  }
}
