import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { RecordingHandlers } from '../recording/recording-client';
import { Player } from './player';

/** What the stretcher and the clicks were told, on a device whose clock the test sets. */
const device = vi.hoisted(() => ({
  nowS: 0,
  scheduled: [] as {
    output: number;
    active: boolean;
    input: number;
    rate: number;
    semitones: number;
    loopStart: number;
    loopEnd: number;
  }[],
  clicksS: [] as number[],
  stoppedClicks: 0,
  buffers: 0,
  levels: [] as number[],
  /** Draws the next frame. */
  frame: (): void => undefined,
  /** Hands over the sound that was asked for. */
  made: null as (() => void) | null,
}));

vi.mock('./click', () => ({
  playClick: (_context: unknown, _target: unknown, atS: number) => {
    device.clicksS.push(atS);
    return { stop: () => device.stoppedClicks++ };
  },
}));
vi.mock('./stretch-node', async (original) => ({
  ...(await original()),
  createStretchNode: () =>
    Promise.resolve({
      connect: (target: unknown) => target,
      configure: () => Promise.resolve(),
      addBuffers: () => Promise.resolve(++device.buffers),
      dropBuffers: () => Promise.resolve((device.buffers = 0)),
      schedule: (change: (typeof device.scheduled)[number]) => Promise.resolve(device.scheduled.push(change)),
    }),
}));
vi.mock('../recording/recording-client', () => ({
  createRecordingClient: (_channels: unknown, _rate: unknown, { onHeard }: RecordingHandlers) => ({
    hear: (_hearing: unknown, _fromS: number, semitones: number) => {
      device.made = () => onHeard({ channels: [new Float32Array(1)], semitones, isWhole: true });
    },
    end: () => undefined,
    write: () => undefined,
  }),
}));

class FakeContext {
  readonly destination = {};
  readonly outputLatency = 0;
  get currentTime(): number {
    return device.nowS;
  }
  resume(): Promise<void> {
    return Promise.resolve();
  }
  close(): Promise<void> {
    return Promise.resolve();
  }
  decodeAudioData(bytes: ArrayBuffer): Promise<unknown> {
    if (bytes.byteLength === 0) return Promise.reject(new Error('unreadable'));
    return Promise.resolve({
      duration: 60,
      numberOfChannels: 1,
      sampleRate: 100,
      getChannelData: () => new Float32Array(6000),
    });
  }
}

class FakeGain {
  readonly gain = {
    cancelScheduledValues: () => undefined,
    setTargetAtTime: (level: number) => device.levels.push(level),
  };
  connect<T>(target: T): T {
    return target;
  }
}

/** Changes are scheduled this far ahead. */
const AHEAD_S = 0.12;

describe('the player', () => {
  let player: Player;
  const last = () => device.scheduled[device.scheduled.length - 1];

  beforeEach(async () => {
    Object.assign(device, {
      nowS: 0,
      scheduled: [],
      clicksS: [],
      stoppedClicks: 0,
      buffers: 0,
      levels: [],
      made: null,
    });
    vi.stubGlobal('AudioContext', FakeContext);
    vi.stubGlobal('GainNode', FakeGain);
    vi.stubGlobal('requestAnimationFrame', (draw: () => void) => {
      device.frame = draw;
      return 1;
    });
    vi.stubGlobal('cancelAnimationFrame', () => undefined);
    player = TestBed.inject(Player);
    await player.load(new ArrayBuffer(8), 60);
  });
  afterEach(() => {
    // What waits to be made would be made in the next test.
    player.unload();
    vi.unstubAllGlobals();
    TestBed.resetTestingModule();
  });

  it('is ready when the recording is read, and says so when it can not be', async () => {
    expect([player.status(), player.durationS(), device.buffers]).toEqual(['ready', 60, 1]);
    await expect(player.load(new ArrayBuffer(0), 60)).rejects.toThrow('unreadable');
    expect(player.status()).toBe('failed');
    await player.play();
    expect(player.playing()).toBe(false);
  });

  it('knows what was heard when a key went down that is handled late', async () => {
    await player.play();
    device.nowS = AHEAD_S + 10;
    expect(player.heardAtS(performance.now())).toBeCloseTo(10, 1);
    expect(player.heardAtS(performance.now() - 400)).toBeCloseTo(9.6, 1);
    player.setSpeed(0.5);
    device.nowS += AHEAD_S + 4;
    expect(player.heardAtS(performance.now() - 400)).toBeCloseTo(11.92, 1);
    player.stop();
    expect(player.heardAtS(performance.now() - 400)).toBe(player.nowS());
  });

  it('starts a moment ahead, at the needle, and goes silent where it is stopped', async () => {
    player.seek(10);
    device.nowS = 5;
    await player.play();
    expect(last()).toMatchObject({ output: 5 + AHEAD_S, active: true, input: 10, rate: 1 });
    device.nowS = 7 + AHEAD_S;
    player.stop();
    expect(player.nowS()).toBeCloseTo(12, 6);
    expect(last()).toMatchObject({ active: false });
    expect(device.levels.at(-1)).toBe(0);
  });

  it('plays another recording of the song in its own time, and is seen in that of the song', async () => {
    // It begins four seconds later, at half the tempo.
    const time = { toSound: (s: number) => 4 + 2 * s, toSong: (s: number) => (s - 4) / 2, songS: 20 };
    await player.load(new ArrayBuffer(8), 60, time);
    expect(player.durationS()).toBe(20);
    player.setLoop({ startS: 5, endS: 6 });
    player.seek(5);
    await player.play();
    expect(last()).toMatchObject({ input: 14, loopStart: 14, loopEnd: 16 });
    // Half of the loop is a second of its sound: what is played to it is due then.
    const round = player.round();
    expect(round && round.deviceS(5.5) - round.deviceS(5)).toBeCloseTo(1, 6);
    device.nowS += AHEAD_S + 1;
    player.stop();
    expect(player.nowS()).toBeCloseTo(5.5, 6);
    expect(player.place()).toMatchObject({ loop: { startS: 5, endS: 6 }, speed: 1, isPlaying: false });
  });

  it('keeps its place when the speed or the pitch changes while it sounds', async () => {
    await player.play();
    device.nowS = 4;
    player.setSpeed(0.5);
    expect(last()).toMatchObject({ output: 4 + AHEAD_S, input: 4, rate: 0.5 });
    device.nowS = 8;
    player.setSemitones(-0.25);
    // Four seconds at half speed.
    expect(last().input).toBeCloseTo(6, 6);
    expect(last()).toMatchObject({ rate: 0.5, semitones: -0.25 });
  });

  it('plays a sound that was made lower at the rate that gives its time back', async () => {
    await player.play();
    player.setSemitones(-12);
    expect(last()).toMatchObject({ semitones: -12, rate: 1 });
    await vi.waitFor(() => expect(device.made).not.toBeNull());
    device.nowS = 10;
    device.made?.();
    // Twice as long, and read twice as fast.
    await vi.waitFor(() => expect(last()).toMatchObject({ semitones: 0, rate: 2 }));
    expect(last().input).toBeCloseTo(20, 6);
    player.setLoop({ startS: 12, endS: 14 });
    expect(last()).toMatchObject({ loopStart: 24, loopEnd: 28 });
    expect(player.nowS()).toBeCloseTo(0, 6);
  });

  it('makes a pitch exactly that was set while the sound was still read', async () => {
    const loading = player.load(new ArrayBuffer(8), 60);
    player.setSemitones(-0.38);
    await loading;
    expect(player.pitchMade()).toBe(false);
    device.made?.();
    await vi.waitFor(() => expect(player.pitchMade()).toBe(true));
  });

  it('says which beat is counted in', async () => {
    let frame: (() => void) | null = null;
    vi.stubGlobal('requestAnimationFrame', (step: () => void) => ((frame = step), 1));
    await player.play({ beats: 4, periodS: 0.5 });
    const counted = (atS: number): number | null => {
      device.nowS = atS + AHEAD_S;
      frame?.();
      return player.counted();
    };
    expect([0.1, 0.6, 1.9, 2.1].map(counted)).toEqual([1, 2, 4, null]);
  });

  it('clicks as loud as the rest', () => {
    player.setClickLevel(0.5);
    player.setVolume(0.06);
    expect(device.levels.at(-1)).toBeCloseTo(0.05, 6);
  });

  it('bounds the speed to a quarter and one and a half', () => {
    player.setSpeed(0.1);
    expect(player.speed()).toBe(0.25);
    player.setSpeed(9);
    expect(player.speed()).toBe(1.5);
  });

  it('counts a bar in at the present speed, then begins', async () => {
    player.setSpeed(0.5);
    await player.play({ beats: 4, periodS: 0.5 });
    expect(device.clicksS.map((s) => Number((s - AHEAD_S).toFixed(6)))).toEqual([0, 1, 2, 3]);
    expect(last().output).toBeCloseTo(4 + AHEAD_S, 6);
    player.stop();
    expect(device.stoppedClicks).toBe(4);
  });

  it('counts the bar to its end whatever is changed meanwhile', async () => {
    await player.play({ beats: 4, periodS: 0.5 });
    device.nowS = 1;
    player.setSemitones(1);
    expect(last()).toMatchObject({ input: 0, semitones: 1 });
    expect(last().output).toBeCloseTo(2 + AHEAD_S, 6);
    player.seek(20);
    expect(last().input).toBe(20);
    expect(last().output).toBeCloseTo(2 + AHEAD_S, 6);
    // Once it plays, changes come at once.
    device.nowS = 3;
    player.setSemitones(0);
    expect(last().output).toBeCloseTo(3 + AHEAD_S, 6);
  });

  it('changes loop and speed on the seam, after a count-in, and says that the round is over', async () => {
    player.setLoop({ startS: 4, endS: 8 });
    player.seek(4);
    await player.play();
    device.nowS = 2;
    const change = { loop: { startS: 6, endS: 8 }, speed: 0.5, restS: 0 };
    player.changeAtSeam(change, { beats: 4, periodS: 0.25 });
    // The seam is four seconds of sound after the start; four beats at half speed are two seconds.
    const seamS = AHEAD_S + 4;
    expect(device.scheduled.slice(-2)).toMatchObject([
      { output: seamS, active: false },
      { output: seamS + 2, active: true, input: 6, rate: 0.5, loopStart: 6, loopEnd: 8 },
    ]);
    expect(device.clicksS.slice(-4)).toEqual(
      [0, 0.5, 1, 1.5].map((s): unknown => expect.closeTo(seamS + s, 6)),
    );
    device.nowS = seamS - 0.1;
    device.frame();
    expect([player.speed(), player.seams()]).toEqual([1, 0]);
    device.nowS = seamS + 1;
    device.frame();
    expect([player.speed(), player.seams(), player.counted(), player.nowS()]).toEqual([0.5, 1, 3, 6]);
    device.nowS = seamS + 4;
    device.frame();
    expect(player.nowS()).toBeCloseTo(7, 6);
    expect(player.round()?.deviceS(6)).toBeCloseTo(seamS + 2, 6);
    expect(player.round()?.deviceS(7)).toBeCloseTo(seamS + 4, 6);
  });

  it('takes a change back, and lets only the click sound', async () => {
    player.setLoop({ startS: 4, endS: 8 });
    player.seek(4);
    await player.play();
    player.changeAtSeam({ loop: { startS: 4, endS: 8 }, speed: 0.5, restS: 0 });
    player.changeAtSeam(null);
    device.nowS = 5;
    device.frame();
    expect([player.speed(), player.seams()]).toEqual([1, 1]);
    player.setMuted(true);
    expect([player.muted(), device.levels.at(-1)]).toEqual([true, 0]);
  });

  it('runs into a loop that lies ahead, and back into one that is over', async () => {
    await player.play();
    device.nowS = 5 + AHEAD_S;
    player.setLoop({ startS: 8, endS: 10 });
    expect(last().input).toBeCloseTo(5 + AHEAD_S, 6);
    player.setLoop({ startS: 1, endS: 3 });
    expect(last().input).toBe(1);
  });

  it('begins again at the start when it had come to the end', async () => {
    player.seek(60);
    await player.play();
    expect(last().input).toBe(0);
  });

  it('forgets everything of a song that is closed', async () => {
    player.setSpeed(0.5);
    player.setLoop({ startS: 1, endS: 2 });
    await player.play();
    player.unload();
    expect([player.status(), player.playing(), player.speed(), player.loop(), player.nowS()]).toEqual([
      'empty',
      false,
      1,
      null,
      0,
    ]);
  });
});
