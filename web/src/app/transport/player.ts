/**
 * Plays the recording: speed without change of pitch, gapless loop, pitch correction, all changed while it sounds.
 * The playhead is a signal here and no part of any store; it follows the clock of the sound device.
 */
import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { HeardNotes, NoteSpan } from '@wild-needle/core/mir';
import { retimed, type SongDocument } from '@wild-needle/core/riff';
import { ClickTrack, type ClickBeats } from './click-track';
import { CountInClicks, type CountIn } from './count-in';
import type { PieceAddresses } from '../recording/band-pieces';
import { isWhole, WHOLE, type Hearing } from '../recording/hearing';
import { loopRounds, positionAt, type Loop, type Segment } from './play-cursor';
import type { SamplePeaks } from '@wild-needle/core/playback';
import { inHalves } from '../recording/waiting-sound';
import { createRecordingClient, type HeardSound, type RecordingClient } from '../recording/recording-client';
import { FADE_S, OutputLevels } from './output-levels';
import { playingRate } from './playing-rate';
import { SAME_TIME, songLoop, soundLoop, type SongTime } from './song-time';
import { seamFrom, upcomingAt, type SeamChange, type Upcoming } from './seam';
import { createStretchNode, fitBlocks, scheduleSegment, type Pitch, type StretchNode } from './stretch-node';

export const MIN_SPEED = 0.25;
export const MAX_SPEED = 1.5;

/** Changes are scheduled this far ahead, so that the stretcher has its blocks ready. */
const LOOKAHEAD_S = 0.12;
/** Several steps of pitch in a row are made ready once. */
const PITCH_AFTER_MS = 250;

export interface CutSound {
  readonly channels: readonly [Float32Array, Float32Array];
  readonly sampleRate: number;
}

export interface PlayingRound {
  readonly loop: Loop;
  /** When a place of the song sounds in this round, device time; before playing began where that was inside of the loop. */
  readonly deviceS: (songS: number) => number;
}

export interface PlayerPlace {
  readonly nowS: number;
  readonly loop: Loop | null;
  readonly speed: number;
  readonly isPlaying: boolean;
}

type Status = 'empty' | 'loading' | 'ready' | 'failed';

@Injectable({ providedIn: 'root' })
export class Player {
  private context: AudioContext | null = null;
  /** Rate that the context was asked for; undefined = that of the sound device. */
  private wantedRate: number | undefined;
  private node: StretchNode | null = null;
  private readonly levels = new OutputLevels();
  private recording: RecordingClient | null = null;
  private readonly clicks = new ClickTrack();
  private beats: ClickBeats = { beatsS: [], isDownbeat: [] };
  private readonly countInClicks = new CountInClicks();
  /** The time of the screens against that of the sound, in which segments are. */
  private time: SongTime = SAME_TIME;
  private soundS = 0;
  private segment: Segment = { contextS: 0, inputS: 0, speed: 1, loop: null };
  private upcoming: Upcoming | null = null;
  private frame = 0;
  /** Sounds are put in one after the other: the stretcher would keep two that come at once. */
  private replacing: Promise<void> = Promise.resolve();
  /** Guards against a song that was closed while its sound was still read. */
  private loadNumber = 0;

  private readonly statusSignal = signal<Status>('empty');
  private readonly playingSignal = signal(false);
  private readonly nowSignal = signal(0);
  private readonly speedSignal = signal(1);
  private readonly loopSignal = signal<Loop | null>(null);
  private readonly roundsSignal = signal(0);
  private readonly seamsSignal = signal(0);
  private readonly jumpsSignal = signal(0);
  private readonly mutedSignal = signal(false);
  private readonly durationSignal = signal(0);
  private readonly countedSignal = signal<number | null>(null);
  private readonly clickingSignal = signal(false);
  private readonly hearingSignal = signal<Hearing>(WHOLE);
  private readonly hearingShareSignal = signal(1);
  private readonly stageSignal = signal<Float32Array | null>(null);
  private readonly pitchMadeSignal = signal(true);
  private pitch: Pitch = { semitones: 0, madeSemitones: 0 };
  private pitching: ReturnType<typeof setTimeout> | undefined;

  readonly status = this.statusSignal.asReadonly();
  readonly playing = this.playingSignal.asReadonly();
  /** Place in the song, seconds; every frame while playing. */
  readonly nowS = this.nowSignal.asReadonly();
  readonly speed = this.speedSignal.asReadonly();
  readonly loop = this.loopSignal.asReadonly();
  /** Completed rounds of the loop since playing started. */
  readonly rounds = this.roundsSignal.asReadonly();
  /** Rounds of any loop that have ended; it only grows. */
  readonly seams = this.seamsSignal.asReadonly();
  /** How often playback was begun, moved or changed by hand. */
  readonly jumps = this.jumpsSignal.asReadonly();
  /** Nothing but the click sounds. */
  readonly muted = this.mutedSignal.asReadonly();
  readonly durationS = this.durationSignal.asReadonly();
  /** Beat of the bar that is counted in; null while none is. */
  readonly counted = this.countedSignal.asReadonly();
  /** The click sounds along. */
  readonly clicking = this.clickingSignal.asReadonly();
  /** Which ears and focus. */
  readonly hearing = this.hearingSignal.asReadonly();
  /** Share of the recording that sounds as {@link hearing} says; 1 when all does. */
  readonly hearingShare = this.hearingShareSignal.asReadonly();
  /** Where energy lay from left to right when it was last {@link look looked} at. */
  readonly stage = this.stageSignal.asReadonly();
  /** The sound has been brought to the wanted pitch exactly; until then the stretcher shifts it. */
  readonly pitchMade = this.pitchMadeSignal.asReadonly();

  constructor() {
    inject(DestroyRef).onDestroy(() => void this.context?.close());
  }

  /** Forgets what was loaded. */
  unload(): void {
    this.loadNumber++;
    this.stop();
    void this.node?.dropBuffers();
    this.recording?.end();
    this.recording = null;
    this.hearingSignal.set(WHOLE);
    this.hearingShareSignal.set(1);
    this.stageSignal.set(null);
    this.time = SAME_TIME;
    this.durationSignal.set(0);
    this.loopSignal.set(null);
    this.speedSignal.set(1);
    clearTimeout(this.pitching);
    this.pitch = { semitones: 0, madeSemitones: 0 };
    this.pitchMadeSignal.set(true);
    this.moveTo(0);
    this.statusSignal.set('empty');
  }

  /** `bytes` is a whole audio file of this length; it is consumed. `time` where it is another recording than the reference. */
  async load(bytes: ArrayBuffer, lengthS: number, time = SAME_TIME): Promise<void> {
    this.unload();
    this.time = time;
    this.setBeats(this.beats);
    const mine = this.loadNumber;
    this.statusSignal.set('loading');
    try {
      const longRate = playingRate(lengthS);
      const context = this.openContext(longRate);
      const decoded = await context.decodeAudioData(bytes);
      const node = await this.ensureNode(context);
      if (mine !== this.loadNumber) return;
      const durationS = decoded.duration;
      // One buffer: the stretcher misreads where several meet. Transferred, so that the page holds it once.
      const channels = Array.from({ length: decoded.numberOfChannels }, (_, c) => {
        const floats = decoded.getChannelData(c);
        return longRate === undefined ? floats : inHalves(floats);
      });
      this.recording = createRecordingClient(channels, decoded.sampleRate, {
        onHeard: (sound) => {
          if (sound.isWhole) this.hearingShareSignal.set(1);
          const put = (): Promise<void> => this.replaceSound(sound);
          this.replacing = this.replacing.then(put, put);
        },
        onProgress: (share) => this.hearingShareSignal.set(share),
        onStage: (shares) => this.stageSignal.set(shares),
      });
      await node.addBuffers(
        channels,
        channels.map((c) => c.buffer),
      );
      if (mine !== this.loadNumber) return;
      this.soundS = durationS;
      this.durationSignal.set(time.songS ?? durationS);
      this.statusSignal.set('ready');
      // A pitch that was set while the sound was read.
      if (this.pitch.semitones !== 0) this.makeSound();
    } catch (error) {
      if (mine === this.loadNumber) this.statusSignal.set('failed');
      throw error;
    }
  }

  /** `countIn` is clicked first, at the present speed. */
  async play(countIn: CountIn | null = null): Promise<void> {
    if (this.statusSignal() !== 'ready' || this.playingSignal() || !this.context) return;
    await this.context.resume();
    if (this.nowSignal() >= this.durationSignal() - 0.05) this.moveTo(this.loopSignal()?.startS ?? 0);
    this.playingSignal.set(true);
    this.roundsSignal.set(0);
    this.levels.riseAnew(this.context.currentTime);
    this.startSegment(this.time.toSound(this.nowSignal()), this.clickIn(this.context, countIn));
    this.jumped();
    this.frame = requestAnimationFrame(this.follow);
  }

  /** Place in the song that was heard when an event happened, by its `timeStamp`: a busy page handles it later. */
  heardAtS(timeStampMs: number): number {
    return this.time.toSong(this.position(Math.max(0, performance.now() - timeStampMs) / 1000));
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
    if (!this.playingSignal() || !this.context || !this.node) return;
    const now = this.context.currentTime;
    const soundS = this.position();
    this.nowSignal.set(this.time.toSong(soundS));
    this.playingSignal.set(false);
    this.upcoming = null;
    this.countedSignal.set(null);
    this.clicks.stop(now);
    this.countInClicks.stop();
    this.levels.fall(now);
    const rest = { ...this.segment, contextS: now + 4 * FADE_S, inputS: soundS, loop: null };
    void scheduleSegment(this.node, rest, false, this.pitch);
  }

  /** Listens with other ears, or to another part of the sound; from the needle on at once, then everywhere. */
  setHearing(hearing: Hearing): void {
    if (this.statusSignal() !== 'ready' || !this.recording) return;
    this.hearingSignal.set(hearing);
    this.hearingShareSignal.set(isWhole(hearing) ? 1 : 0);
    this.makeSound();
  }

  /** The written tab, for those who listen to it. */
  setTab(document: SongDocument): void {
    this.recording?.write(this.time === SAME_TIME ? document : retimed(document, this.time.toSound));
    if (this.hearingSignal().source !== 'recording') this.setHearing(this.hearingSignal());
  }

  /** Pieces of the band that are apart, see {@link PieceAddresses}; what sounds of its parts is made anew. */
  setApart(addresses: PieceAddresses): void {
    this.recording?.apart(addresses);
    if (this.hearingSignal().parts) this.setHearing(this.hearingSignal());
  }

  /** Asks where energy lies at the needle. */
  look(): void {
    this.recording?.look(this.time.toSound(this.nowSignal()));
  }

  /** The samples of a part in columns, for drawing; null without a recording. */
  async samplePeaks(fromS: number, toS: number, columns: number): Promise<SamplePeaks | null> {
    const { toSound } = this.time;
    return this.recording ? this.recording.peaks(toSound(fromS), toSound(toS), columns) : null;
  }

  /** Which notes the recording sounds in places where the same is played; null without a recording. */
  async hearNotes(spans: readonly NoteSpan[], offsetCents: number): Promise<HeardNotes | null> {
    const { toSound } = this.time;
    const sounding = spans.map(({ startS, endS }) => ({ startS: toSound(startS), endS: toSound(endS) }));
    // While the band is heard in parts, the neck shows its guitars.
    const ofGuitars = this.hearingSignal().parts !== null;
    return this.recording ? this.recording.notes(sounding, offsetCents, ofGuitars) : null;
  }

  /** A part as it is heard so, at the pitch of the recording; null without one. */
  async cut(hearing: Hearing, fromS: number, toS: number): Promise<CutSound | null> {
    const { recording, context } = this;
    if (!recording || !context) return null;
    const { toSound } = this.time;
    const channels = await recording.cut(hearing, toSound(fromS), toSound(toS));
    return { channels, sampleRate: context.sampleRate };
  }

  /** Semitones that the sound is moved by. */
  semitones(): number {
    return this.pitch.semitones;
  }

  /** Beats of the recording that the click follows. */
  setBeats(beats: ClickBeats): void {
    this.beats = beats;
    this.clicks.setBeats({ ...beats, beatsS: beats.beatsS.map(this.time.toSound) });
    this.restart();
  }

  setClicking(on: boolean): void {
    this.clickingSignal.set(on);
    const { clickOut } = this.levels;
    if (!this.playingSignal() || !this.context || !clickOut) return;
    if (on) this.clicks.start(this.context, clickOut, this.segment);
    else this.clicks.stop(this.context.currentTime);
  }

  /** 0 to 1. */
  setClickLevel(level: number): void {
    this.levels.setClickLevel(level, this.clockS());
  }

  seek(timeS: number): void {
    const bounded = Math.min(Math.max(0, timeS), Math.max(0, this.durationSignal()));
    if (this.playingSignal()) this.startSegment(this.time.toSound(bounded), this.countedInS());
    this.nowSignal.set(bounded);
    this.jumped();
  }

  setSpeed(speed: number): void {
    this.speedSignal.set(Math.min(MAX_SPEED, Math.max(MIN_SPEED, Math.round(speed * 100) / 100)));
    this.restart();
    this.jumped();
  }

  setLoop(loop: Loop | null): void {
    this.loopSignal.set(loop);
    this.roundsSignal.set(0);
    const now = this.position();
    // Before the loop playback runs into it; behind it there is no way back, so it starts anew.
    if (loop && now >= this.time.toSound(loop.endS)) this.seek(loop.startS);
    else this.restart();
    this.jumped();
  }

  /** Another loop or speed when the round that plays has ended, counted in at the end of its rest; null takes that back. */
  changeAtSeam(change: SeamChange | null, countIn: CountIn | null = null): void {
    if (!this.playingSignal() || !this.context || !this.node) return;
    if (this.upcoming) this.restart();
    const seamS = change && seamFrom(this.segment, this.context.currentTime + LOOKAHEAD_S);
    if (!change || seamS === null) return;
    const countInS = countIn ? (countIn.beats * countIn.periodS) / change.speed : 0;
    const loop = soundLoop(this.time, change.loop) ?? change.loop;
    this.upcoming = upcomingAt(seamS, { ...change, loop, restS: change.restS + countInS });
    const { segment } = this.upcoming;
    if (segment.contextS > seamS) {
      void scheduleSegment(this.node, { ...segment, contextS: seamS, loop: null }, false, this.pitch);
    }
    void scheduleSegment(this.node, segment, true, this.pitch);
    const { clickOut } = this.levels;
    if (clickOut) {
      const startS = segment.contextS - countInS;
      this.countInClicks.start(this.context, clickOut, startS, countIn, change.speed);
    }
    if (this.clickingSignal()) this.clicks.then(seamS, segment);
  }

  /** Lets nothing but the click sound, or everything again. */
  setMuted(muted: boolean): void {
    this.mutedSignal.set(muted);
    this.levels.setMuted(muted);
    if (this.playingSignal()) this.levels.rise(this.clockS());
  }

  /** The round that plays; null while nothing is looped. */
  round(): PlayingRound | null {
    const { context, segment } = this;
    if (!this.playingSignal() || !context || !segment.loop) return null;
    const { time } = this;
    const { contextS, inputS, speed, loop } = segment;
    const roundS = (loop.endS - loop.startS) / speed;
    const beganS =
      contextS + (loop.startS - inputS) / speed + loopRounds(segment, context.currentTime) * roundS;
    return {
      loop: songLoop(time, loop),
      deviceS: (songS) => beganS + (time.toSound(songS) - loop.startS) / speed,
    };
  }

  /** Where playback is, and how it sounds: for the next recording of the same song. */
  place(): PlayerPlace {
    return {
      nowS: this.nowSignal(),
      loop: this.loopSignal(),
      speed: this.speedSignal(),
      isPlaying: this.playingSignal(),
    };
  }

  async takeOver({ nowS, loop, speed, isPlaying }: PlayerPlace): Promise<void> {
    this.seek(nowS);
    this.setLoop(loop);
    this.setSpeed(speed);
    if (isPlaying) await this.play();
  }

  /** The device that plays, for what listens beside it; null before anything was loaded. */
  device(): AudioContext | null {
    return this.context;
  }

  /** Shift of the pitch in semitones, without change of speed: at once by the stretcher, then exactly. */
  setSemitones(semitones: number): void {
    if (semitones === this.pitch.semitones) return;
    this.pitch = { ...this.pitch, semitones };
    this.pitchMadeSignal.set(false);
    this.restart();
    clearTimeout(this.pitching);
    this.pitching = setTimeout(() => this.makeSound(), PITCH_AFTER_MS);
  }

  /** Asks for the sound as it is heard now, at the wanted pitch. */
  private makeSound(): void {
    if (this.statusSignal() !== 'ready') return;
    clearTimeout(this.pitching);
    const fromS = this.playingSignal() ? this.position() : this.time.toSound(this.nowSignal());
    this.recording?.hear(this.hearingSignal(), fromS, this.pitch.semitones);
  }

  /** 0 to 1. */
  setVolume(volume: number): void {
    this.levels.setVolume(volume, this.clockS());
    if (this.playingSignal()) this.levels.rise(this.clockS());
  }

  /** A context of that rate; one that runs at another gives way. */
  private openContext(sampleRate: number | undefined): AudioContext {
    if (this.context && this.wantedRate === sampleRate) return this.context;
    void this.context?.close();
    this.node = null;
    this.wantedRate = sampleRate;
    this.context = new AudioContext({ latencyHint: 'interactive', sampleRate });
    return this.context;
  }

  private async ensureNode(context: AudioContext): Promise<StretchNode> {
    if (!this.node) {
      this.node = await createStretchNode(context);
      this.levels.connect(context, this.node);
    }
    return this.node;
  }

  /** The clock of the device; 0 before there is one. */
  private clockS(): number {
    return this.context?.currentTime ?? 0;
  }

  /** Continues from the present place with changed settings. */
  private restart(): void {
    if (!this.playingSignal() || !this.context) return;
    this.startSegment(positionAt(this.segment, this.context.currentTime + LOOKAHEAD_S), this.countedInS());
  }

  private jumped(): void {
    this.jumpsSignal.update((n) => n + 1);
  }

  /** How much longer the bar before playback is counted: what changes meanwhile does not cut it short. */
  private countedInS(): number {
    return Math.max(0, this.segment.contextS - (this.context?.currentTime ?? 0) - LOOKAHEAD_S);
  }

  /** Puts another sound in place of the present one without a click. */
  private async replaceSound({ channels, semitones }: HeardSound): Promise<void> {
    if (!this.context || !this.node) return;
    const mine = this.loadNumber;
    const wasPlaying = this.playingSignal();
    if (wasPlaying) {
      this.levels.fall(this.context.currentTime, FADE_S / 3);
      await new Promise((resolve) => setTimeout(resolve, 1000 * FADE_S));
    }
    if (mine !== this.loadNumber) return;
    await this.node.dropBuffers();
    await fitBlocks(this.node, semitones);
    await this.node.addBuffers(
      [...channels],
      channels.map((c) => c.buffer),
    );
    if (mine !== this.loadNumber) return;
    this.pitch = { ...this.pitch, madeSemitones: semitones };
    this.pitchMadeSignal.set(semitones === this.pitch.semitones);
    if (!this.playingSignal()) return;
    this.restart();
    this.levels.rise(this.context.currentTime + LOOKAHEAD_S);
  }

  /** Clicks the count-in from the start of playback on; answers how long it takes. */
  private clickIn(context: AudioContext, countIn: CountIn | null): number {
    const { clickOut } = this.levels;
    if (!clickOut) return 0;
    const startS = context.currentTime + LOOKAHEAD_S;
    return this.countInClicks.start(context, clickOut, startS, countIn, this.speedSignal());
  }

  /** From this place of the sound on, `afterS` later than at once. */
  private startSegment(inputS: number, afterS = 0): void {
    if (!this.context || !this.node) return;
    const contextS = this.context.currentTime + LOOKAHEAD_S + afterS;
    this.upcoming = null;
    const loop = soundLoop(this.time, this.loopSignal());
    this.segment = { contextS, inputS, speed: this.speedSignal(), loop };
    void scheduleSegment(this.node, this.segment, true, this.pitch);
    const { clickOut } = this.levels;
    if (this.clickingSignal() && clickOut) {
      this.clicks.start(this.context, clickOut, this.segment);
    }
  }

  /** What waited for the seam is what plays, once it has come. */
  private passSeam(nowS: number): void {
    if (!this.upcoming || nowS < this.upcoming.seamS) return;
    this.segment = this.upcoming.segment;
    this.upcoming = null;
    this.speedSignal.set(this.segment.speed);
    this.loopSignal.set(this.segment.loop && songLoop(this.time, this.segment.loop));
    this.roundsSignal.set(0);
    this.seamsSignal.update((n) => n + 1);
  }

  private moveTo(timeS: number): void {
    this.segment = { ...this.segment, inputS: this.time.toSound(timeS) };
    this.nowSignal.set(timeS);
  }

  /** The place of the sound that is heard now: the device lags behind its clock by its output latency. */
  private position(agoS = 0): number {
    if (!this.playingSignal() || !this.context) return this.time.toSound(this.nowSignal());
    return positionAt(this.segment, this.context.currentTime - (this.context.outputLatency || 0) - agoS);
  }

  private readonly follow = (): void => {
    if (!this.context) return;
    this.passSeam(this.context.currentTime);
    const now = this.position();
    this.countedSignal.set(this.countInClicks.beatAt(this.context.currentTime, this.segment.contextS));
    const rounds = loopRounds(this.segment, this.context.currentTime);
    if (rounds > this.roundsSignal()) this.seamsSignal.update((n) => n + rounds - this.roundsSignal());
    this.roundsSignal.set(rounds);
    if (now >= this.soundS) {
      this.stop();
      this.nowSignal.set(this.durationSignal());
      return;
    }
    this.nowSignal.set(Math.min(this.durationSignal(), this.time.toSong(now)));
    this.frame = requestAnimationFrame(this.follow);
  };
}
