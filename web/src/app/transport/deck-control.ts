/** What the deck's buttons and keys do, in one place, so that both do the same. */
import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { toggleSilent } from '@wild-needle/core/parts';
import {
  barTimesS,
  isBlank,
  keepLoop,
  passTicksToSeconds,
  removeLoop,
  sectionTimesS,
  setTuneTo,
  soundingEndTicks,
  beatPeriodAt,
  nearestBeat,
} from '@wild-needle/core/riff';
import { EARS, FOCUSES, SOURCES, type Source } from '../recording/hearing';
import { runScreenKey, type KeyHandlers } from '../shared/key-map';
import { Say } from '../shared/say';
import { StepWalk } from '../shared/step-walk';
import { DECK_KEYS } from './deck-keys';
import { jumpTarget, type JumpUnit } from './jumps';
import type { PedalCommand } from './pedals';
import type { CountIn } from './count-in';
import { MAX_SPEED, MIN_SPEED, Player } from './player';
import type { Loop } from './play-cursor';
import { Now } from './now';
import { HeardIn } from '../open-song/heard-in';
import { InstrumentsStore } from '../open-song/instruments.store';
import { OpenSongStore } from '../open-song/open-song.store';
import { settingsActions } from '../state/settings/settings.actions';
import { settingsFeature } from '../state/settings/settings.reducer';

/** One press of a speed key. */
const SPEED_STEP = 0.05;
/** Slow enough to hear the strokes apart, until the user has set another. */
const SLOW_SPEED = 0.6;
const CLICK_STEP = 0.1;
const VOLUME_STEP = 0.05;
/** Volume of a whisper. */
const QUIET = 0.08;
/** A loop that is shorter is a slip of the mouse. */
const SHORTEST_LOOP_S = 0.05;
/** A bar line this near to the needle counts as reached. */
const BAR_TOLERANCE_S = 0.05;

/** An octave to both sides: beyond it nothing sounds like a guitar. */
const MOST_SEMITONES = 12;

@Injectable()
export class DeckControl {
  private readonly player = inject(Player);
  private readonly song = inject(OpenSongStore);
  private readonly heardIn = inject(HeardIn);
  private readonly now = inject(Now);
  private readonly store = inject(Store);
  private readonly steps = inject(StepWalk);
  private readonly said = inject(Say);
  private readonly volume = this.store.selectSignal(settingsFeature.selectVolume);
  /** A bar is counted before playback starts. */
  readonly countIn = this.store.selectSignal(settingsFeature.selectCountIn);
  readonly clickLevel = this.store.selectSignal(settingsFeature.selectClickLevel);
  private volumeBeforeQuiet: number | null = null;

  private readonly instruments = inject(InstrumentsStore);
  private readonly instrumentsFocusedSignal = signal(0);
  /** Grows each time that the instruments are to have the keys. */
  readonly instrumentsFocused = this.instrumentsFocusedSignal.asReadonly();
  /** Digits are theirs: they have the focus. */
  readonly instrumentsHaveKeys = signal(false);

  readonly keysShown = signal(false);
  readonly pedalsShown = signal(false);
  /** The slow speed that one key goes back to. */
  private slowSpeed = SLOW_SPEED;
  /** The playback is shifted so that the recording sounds at A = 440 Hz: as the song says, on every screen. */
  readonly corrected = computed(() => this.song.document()?.tuneTo === 'concert');
  /** Semitones that the sound is moved by, whatever its speed. */
  readonly transposed = signal(0);

  private readonly handlers: KeyHandlers<typeof DECK_KEYS> = {
    play: () => (this.tapping && this.player.playing() ? this.tapping() : this.togglePlay()),
    toLoopStart: () => this.toLoopStart(),
    toSongStart: () => this.player.seek(0),
    jumpBeat: (by) => this.jump('beat', by),
    jumpBar: (by) => this.jump('bar', by),
    jumpSection: (by) => this.jump('section', by),
    jumpSeconds: (by) => this.jump('seconds', by),
    loopStrums: () => this.loopHere('strum'),
    loopSection: () => this.loopHere('section'),
    volume: (steps) => this.changeVolume(steps * VOLUME_STEP),
    step: (by) => this.steps.next(by),
    loop: () => this.toggleLoop(),
    loopEnd: (end) => this.moveLoopEnd(end),
    shiftLoop: (beats) => this.shiftLoop(beats),
    growLoop: (beats) => this.growLoop(beats),
    zoom: () => undefined,
    drag: () => undefined,
    source: () => this.nextSource(),
    recording: () => this.heardIn.next(),
    ears: () => this.nextEars(),
    focus: () => this.nextFocus(),
    speed: (steps) => this.changeSpeed(steps * SPEED_STEP),
    slow: () => this.toggleSlow(),
    click: () => this.toggleClick(),
    clickLevel: (steps) => this.changeClickLevel(steps * CLICK_STEP),
    countIn: () => this.toggleCountIn(),
    pitch: () => this.togglePitch(),
    lower: () => this.transpose(-1),
    higher: () => this.transpose(1),
    quiet: () => this.toggleQuiet(),
    pedals: () => this.pedalsShown.update((shown) => !shown),
    card: () => this.keysShown.update((shown) => !shown),
  };

  /** True when the key was one of the deck's. */
  handleKey(event: KeyboardEvent): boolean {
    return runScreenKey(DECK_KEYS, this.handlers, event);
  }

  jump(unit: JumpUnit, by: 1 | -1): void {
    const document = this.song.document();
    const target = document && jumpTarget(document, this.player.nowS(), unit, by, this.player.playing());
    if (target !== null) this.player.seek(target);
  }

  /** While it is set, Space taps a rhythm to the playing sound and does not stop it. */
  tapping: (() => void) | null = null;

  /** While a part is practised, what is said of its rounds. */
  answering: ((answer: 'clean' | 'slip') => void) | null = null;

  togglePlay(): void {
    if (this.player.playing()) this.player.stop();
    else void this.player.play(this.countIn() ? this.barBeforePlay() : null);
  }

  nextEars(): void {
    const hearing = this.player.hearing();
    this.player.setHearing({ ...hearing, ears: EARS[(EARS.indexOf(hearing.ears) + 1) % EARS.length] });
  }

  /** After the last focus come the instruments, which then have the keys; while they have them it goes back to the full sound. */
  nextFocus(): void {
    const hearing = this.player.hearing();
    if (this.instruments.isShown()) {
      this.showInstruments(!this.instrumentsHaveKeys());
      return;
    }
    const next = FOCUSES.at(FOCUSES.indexOf(hearing.focus) + 1);
    this.player.setHearing({ ...hearing, focus: next ?? 'full' });
    if (!next) this.showInstruments(true);
  }

  /** The row of the band's parts; with it goes what it made louder and softer. */
  showInstruments(isShown: boolean): void {
    this.instruments.show(isShown);
    if (isShown) this.instrumentsFocusedSignal.update((n) => n + 1);
  }

  nextSource(): void {
    this.setSource(SOURCES[(SOURCES.indexOf(this.player.hearing().source) + 1) % SOURCES.length]);
  }

  /** A tab that has nothing to sound is told, not played as silence. */
  setSource(source: Source): void {
    this.player.setHearing({ ...this.player.hearing(), source });
    if (source === 'recording') return;
    const riffs = this.song.document()?.riffs ?? [];
    const isWritten = this.now
      .allPasses()
      .some(({ riffId }) => riffs.find((r) => r.id === riffId)?.strums.some((s) => !isBlank(s)));
    if (!isWritten) this.said.say('“My tab” is silent: nothing is written yet that a section plays.');
  }

  toggleClick(): void {
    this.player.setClicking(!this.player.clicking());
  }

  changeClickLevel(by: number): void {
    const clickLevel = Math.min(1, Math.max(CLICK_STEP, Math.round(10 * (this.clickLevel() + by)) / 10));
    this.store.dispatch(settingsActions.clickLevelChanged({ clickLevel }));
  }

  toggleCountIn(): void {
    this.store.dispatch(settingsActions.countInSwitched({ countIn: !this.countIn() }));
  }

  changeSpeed(by: number): void {
    // Steps land on whole fives, also from a value set by hand.
    const steps = (this.player.speed() + by) / SPEED_STEP;
    this.player.setSpeed((by > 0 ? Math.floor(steps + 1e-6) : Math.ceil(steps - 1e-6)) * SPEED_STEP);
  }

  /** Full speed, and back to the slow one: slow playing hides the groove. */
  toggleSlow(): void {
    const speed = this.player.speed();
    if (speed === 1) {
      this.player.setSpeed(this.slowSpeed);
      return;
    }
    this.slowSpeed = speed;
    this.player.setSpeed(1);
  }

  /** What a foot asks for; `value` is how far the pedal is down. */
  runPedal(command: PedalCommand, value: number): void {
    const commands: Record<PedalCommand, () => void> = {
      play: () => this.togglePlay(),
      slow: () => this.toggleSlow(),
      start: () => this.toLoopStart(),
      loop: () => this.toggleLoop(),
      back: () => this.shiftLoop(-1),
      on: () => this.shiftLoop(1),
      source: () => this.nextSource(),
      speed: () => this.player.setSpeed(MIN_SPEED + value * (MAX_SPEED - MIN_SPEED)),
      clean: () => this.answering?.('clean'),
      slip: () => this.answering?.('slip'),
      instruments: () => this.showInstruments(!this.instruments.isShown()),
      drums: () => this.instruments.changeMix((mix) => toggleSilent(mix, 'drums')),
      bass: () => this.instruments.changeMix((mix) => toggleSilent(mix, 'bass')),
      voice: () => this.instruments.changeMix((mix) => toggleSilent(mix, 'voice')),
      guitars: () => this.instruments.changeMix((mix) => toggleSilent(mix, 'guitars')),
    };
    commands[command]();
  }

  /** Off when on; else the pass under the needle, or the bar where there is none. */
  toggleLoop(): void {
    if (this.player.loop()) {
      this.player.setLoop(null);
      return;
    }
    const pass = this.now.pass() ?? this.song.passes()[0];
    const loop = pass ? { startS: pass.startS, endS: pass.endS } : this.barAt(this.player.nowS());
    if (loop) this.player.setLoop(loop);
  }

  /** Loops a part of the song as large as asked, at the needle or the chosen strum. */
  loopHere(what: 'strum' | 'bar' | 'pass' | 'section'): void {
    const loop = this.spanOf(what);
    if (!loop) return;
    this.player.setLoop(loop);
    this.player.seek(loop.startS);
  }

  /** Keeps the present loop with the song. */
  keepLoop(name: string): void {
    const loop = this.player.loop();
    if (loop) this.song.change((document) => keepLoop(document, { id: crypto.randomUUID(), name, ...loop }));
  }

  dropLoop(id: string): void {
    this.song.change((document) => removeLoop(document, id));
  }

  /** Loops a part that was dragged over; its ends go to the nearest beats unless it is `isFree`. */
  loopBetween(fromS: number, toS: number, isFree: boolean): void {
    const grid = this.song.document()?.grid;
    const [low, high] = [Math.min(fromS, toS), Math.max(fromS, toS)];
    if (isFree || !grid || grid.beatsS.length < 2) {
      if (high - low > SHORTEST_LOOP_S) this.player.setLoop({ startS: low, endS: high });
      return;
    }
    const { beatsS } = grid;
    const start = Math.min(nearestBeat(grid, low), beatsS.length - 2);
    const end = Math.max(start + 1, nearestBeat(grid, high));
    this.player.setLoop({ startS: beatsS[start], endS: beatsS[end] });
  }

  loopPasses(startS: number, endS: number): void {
    this.player.setLoop({ startS, endS });
    this.player.seek(startS);
  }

  /** Sets one end of the loop to the bar line at the needle; the other end stays, or is one bar away. */
  moveLoopEnd(end: 'start' | 'end'): void {
    const bar = this.barAt(this.player.nowS());
    if (!bar) return;
    const loop = this.player.loop() ?? bar;
    const moved = end === 'start' ? { ...loop, startS: bar.startS } : { ...loop, endS: bar.endS };
    this.player.setLoop(moved.endS > moved.startS ? moved : bar);
  }

  /** Moves the whole loop by beats. */
  shiftLoop(beats: number): void {
    this.moveLoopByBeats(beats, beats);
  }

  /** Moves the end of the loop by beats; at least one is left. */
  growLoop(beats: number): void {
    this.moveLoopByBeats(0, beats);
  }

  toLoopStart(): void {
    this.player.seek(this.player.loop()?.startS ?? this.now.pass()?.startS ?? 0);
  }

  /** The recording is corrected, or else the guitar is tuned to it: never both. */
  togglePitch(): void {
    this.song.change((document) => setTuneTo(document, this.corrected() ? 'recording' : 'concert'));
  }

  /** Moves the sound by semitones; 0 brings it back to where it was recorded. */
  transpose(by: number): void {
    this.transposed.update((at) =>
      by === 0 ? 0 : Math.max(-MOST_SEMITONES, Math.min(MOST_SEMITONES, at + by)),
    );
    this.applyPitch();
  }

  applyPitch(): void {
    const cents = this.song.document()?.referenceOffsetCents ?? 0;
    this.player.setSemitones(this.transposed() + (this.corrected() ? -cents / 100 : 0));
  }

  changeVolume(by: number): void {
    this.setVolume(Math.min(1, Math.max(0, Math.round(100 * (this.volume() + by)) / 100)));
  }

  setVolume(volume: number): void {
    this.volumeBeforeQuiet = null;
    this.store.dispatch(settingsActions.volumeChanged({ volume }));
  }

  toggleQuiet(): void {
    const before = this.volumeBeforeQuiet;
    this.volumeBeforeQuiet = before === null ? this.volume() : null;
    this.store.dispatch(settingsActions.volumeChanged({ volume: before ?? QUIET }));
  }

  private spanOf(what: 'strum' | 'bar' | 'pass' | 'section'): Loop | null {
    if (what === 'bar') return this.barAt(this.player.nowS());
    if (what === 'section') {
      const [song, section] = [this.song.document(), this.now.section() ?? this.song.section()];
      return song && section && sectionTimesS(song, section);
    }
    const pass = this.now.pass() ?? this.song.passes()[0];
    if (!pass) return null;
    if (what === 'pass') return { startS: pass.startS, endS: pass.endS };
    const [document, riff, strum] = [this.song.document(), this.song.riff(), this.song.strum()];
    if (!document || !riff || !strum || riff.id !== pass.riffId) return null;
    const at = (ticks: number): number => passTicksToSeconds(pass, document.grid, ticks);
    const chosen = riff.strums.filter((s) => this.song.selectedIds().has(s.id));
    const last = riff.strums.indexOf(chosen.at(-1) ?? strum);
    return { startS: at((chosen[0] ?? strum).startTicks), endS: at(soundingEndTicks(riff, last)) };
  }

  private moveLoopByBeats(startBeats: number, endBeats: number): void {
    const [loop, grid] = [this.player.loop(), this.song.document()?.grid];
    if (!loop || !grid || grid.beatsS.length < 2) return;
    const { beatsS } = grid;
    const start = nearestBeat(grid, loop.startS) + startBeats;
    const end = nearestBeat(grid, loop.endS) + endBeats;
    if (start < 0 || end >= beatsS.length || end <= start) return;
    this.player.setLoop({ startS: beatsS[start], endS: beatsS[end] });
  }

  /** The beats of the bar at the needle, at its tempo. */
  private barBeforePlay(): CountIn | null {
    const grid = this.song.document()?.grid;
    const startS = this.player.nowS();
    const periodS = grid ? beatPeriodAt(grid, startS) : null;
    if (!grid || periodS === null) return null;
    const times = barTimesS(grid);
    const bar = Math.max(
      0,
      times.findLastIndex((t) => t <= startS + BAR_TOLERANCE_S),
    );
    return { beats: grid.bars[Math.min(bar, grid.bars.length - 1)]?.beats ?? 4, periodS };
  }

  private barAt(timeS: number): Loop | null {
    const grid = this.song.document()?.grid;
    if (!grid || grid.bars.length === 0) return null;
    const times = barTimesS(grid);
    let bar = 0;
    while (bar + 2 < times.length && times[bar + 1] <= timeS + BAR_TOLERANCE_S) bar++;
    return { startS: times[bar], endS: times[bar + 1] };
  }
}
