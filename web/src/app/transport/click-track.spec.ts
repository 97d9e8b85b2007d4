import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ClickTrack } from './click-track';
import type { Segment } from './play-cursor';

interface Click {
  readonly atS: number;
  stopped: boolean;
}
let clicks: Click[] = [];

/** As much of a sound device as the click needs. */
const context = { currentTime: 0, sampleRate: 8000 };

class FakeBuffer {
  getChannelData(): Float32Array {
    return new Float32Array(8);
  }
}
class FakeSource {
  private click: Click | null = null;
  connect(): void {
    // Nothing sounds here.
  }
  start(atS: number): void {
    this.click = { atS, stopped: false };
    clicks.push(this.click);
  }
  stop(): void {
    if (this.click) this.click.stopped = true;
  }
}

const device = context as unknown as BaseAudioContext;
const nowhere = {} as AudioNode;
const BEATS = { beatsS: [0, 1, 2, 3, 4, 5], isDownbeat: [true, false, false, true, false, false] };
const SEGMENT: Segment = { contextS: 0.1, inputS: 0, speed: 1, loop: null };
const sounding = (): number[] => clicks.filter((c) => !c.stopped).map((c) => c.atS);

/** The device and the timers of the page go on together. */
function goOn(seconds: number): void {
  for (let t = 0; t < seconds; t += 0.25) {
    context.currentTime += 0.25;
    vi.advanceTimersByTime(250);
  }
}

describe('the click', () => {
  let track: ClickTrack;
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal('AudioBuffer', FakeBuffer);
    vi.stubGlobal('AudioBufferSourceNode', FakeSource);
    clicks = [];
    context.currentTime = 0;
    track = new ClickTrack();
    track.setBeats(BEATS);
  });
  afterEach(() => {
    track.stop(0);
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it('is handed over a little ahead, each beat once', () => {
    track.start(device, nowhere, SEGMENT);
    expect(sounding()).toEqual([0.1, 1.1]);
    goOn(6);
    expect(sounding()).toHaveLength(6);
    sounding().forEach((atS, beat) => expect(atS).toBeCloseTo(0.1 + beat, 9));
  });

  it('follows a change of speed from where it happens', () => {
    track.start(device, nowhere, SEGMENT);
    goOn(1);
    track.start(device, nowhere, { contextS: 1.6, inputS: 1.5, speed: 0.5, loop: null });
    goOn(3);
    expect(sounding().slice(0, 4)).toEqual([0.1, 1.1, 2.6, 4.6]);
  });

  it('is silent from the moment it is stopped', () => {
    track.start(device, nowhere, SEGMENT);
    track.stop(0.5);
    goOn(3);
    expect(sounding()).toEqual([0.1]);
  });

  it('comes again in a loop', () => {
    track.start(device, nowhere, { ...SEGMENT, inputS: 1, loop: { startS: 1, endS: 3 } });
    goOn(5);
    expect(sounding().length).toBeGreaterThanOrEqual(6);
    sounding().forEach((atS, i) => expect(atS).toBeCloseTo(0.1 + i, 9));
  });
});
