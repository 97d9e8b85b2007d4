/** What the deck's buttons and keys do, in one place, so that both do the same. */
import { inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { barTimesS } from '@wild-needle/core/riff';
import { Player } from '../audio/player';
import type { Loop } from '../audio/play-cursor';
import { Now } from '../open-song/now';
import { OpenSongStore } from '../open-song/open-song.store';
import { settingsActions } from '../state/settings/settings.actions';
import { settingsFeature } from '../state/settings/settings.reducer';

/** One press of a speed key. */
const SPEED_STEP = 0.05;
/** Volume of a whisper. */
const QUIET = 0.08;
/** A bar line this near to the needle counts as reached. */
const BAR_TOLERANCE_S = 0.05;

@Injectable()
export class DeckControl {
  private readonly player = inject(Player);
  private readonly song = inject(OpenSongStore);
  private readonly now = inject(Now);
  private readonly store = inject(Store);
  private readonly volume = this.store.selectSignal(settingsFeature.selectVolume);
  private volumeBeforeQuiet: number | null = null;

  readonly keysShown = signal(false);
  /** True when the playback is shifted so that the recording sounds at A = 440 Hz. */
  readonly corrected = signal(false);

  /** True when the key was one of the deck's. */
  handleKey(key: string): boolean {
    const commands: Record<string, () => void> = {
      ' ': () => this.player.toggle(),
      Home: () => this.toLoopStart(),
      '[': () => this.moveLoopEnd('start'),
      ']': () => this.moveLoopEnd('end'),
      l: () => this.toggleLoop(),
      '-': () => this.changeSpeed(-SPEED_STEP),
      '=': () => this.changeSpeed(SPEED_STEP),
      '+': () => this.changeSpeed(SPEED_STEP),
      p: () => this.togglePitch(),
      q: () => this.toggleQuiet(),
      '?': () => this.keysShown.update((shown) => !shown),
    };
    const command = commands[key.length === 1 ? key.toLowerCase() : key];
    command?.();
    return command !== undefined;
  }

  changeSpeed(by: number): void {
    // Steps land on whole fives, also from a value set by hand.
    const steps = (this.player.speed() + by) / SPEED_STEP;
    this.player.setSpeed((by > 0 ? Math.floor(steps + 1e-6) : Math.ceil(steps - 1e-6)) * SPEED_STEP);
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

  toLoopStart(): void {
    this.player.seek(this.player.loop()?.startS ?? this.now.pass()?.startS ?? 0);
  }

  togglePitch(): void {
    this.corrected.update((on) => !on);
    this.applyPitch();
  }

  applyPitch(): void {
    const cents = this.song.document()?.referenceOffsetCents ?? 0;
    this.player.setSemitones(this.corrected() ? -cents / 100 : 0);
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

  private barAt(timeS: number): Loop | null {
    const grid = this.song.document()?.grid;
    if (!grid || grid.bars.length === 0) return null;
    const times = barTimesS(grid);
    let bar = 0;
    while (bar + 2 < times.length && times[bar + 1] <= timeS + BAR_TOLERANCE_S) bar++;
    return { startS: times[bar], endS: times[bar + 1] };
  }
}
