import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { OutputLevels } from './output-levels';

/** A gain whose changes are listed by their time, as the Web Audio API (W3C 2021, section 1.6) orders them. */
class ListedGain {
  static readonly made: ListedGain[] = [];
  private events: { readonly atS: number; readonly target: number }[] = [];
  readonly gain = {
    setTargetAtTime: (target: number, atS: number) => this.events.push({ atS, target }),
    cancelScheduledValues: (fromS: number) => (this.events = this.events.filter(({ atS }) => atS < fromS)),
  };

  constructor() {
    ListedGain.made.push(this);
  }

  connect(target: unknown): unknown {
    return target;
  }

  /** What it ends at. */
  last(): number | undefined {
    return [...this.events].sort((a, b) => a.atS - b.atS).at(-1)?.target;
  }
}

describe('how loud the music leaves', () => {
  beforeEach(() => {
    ListedGain.made.length = 0;
    vi.stubGlobal('GainNode', ListedGain);
  });
  afterEach(() => vi.unstubAllGlobals());

  it('is as the slider was set last, also while another sound is about to fade in', () => {
    const levels = new OutputLevels();
    levels.connect({} as AudioContext, new ListedGain() as unknown as AudioNode);
    const [, music] = ListedGain.made;
    levels.fall(1);
    levels.rise(1.12);
    expect(music.last()).toBeGreaterThan(0.3);
    // Silent, a moment before the new sound comes.
    levels.setVolume(0, 1.05);
    levels.rise(1.05);
    expect(music.last()).toBe(0);
  });
});
