import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideState, provideStore, Store } from '@ngrx/store';
import { beforeEach, describe, expect, it } from 'vitest';
import { practiceItems } from '@wild-needle/core/practice';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { practiceFeature } from '../../../state/practice/practice.reducer';
import { settingsFeature } from '../../../state/settings/settings.reducer';
import { SONG } from '../../../tab/test-song';
import type { Loop } from '../../../transport/play-cursor';
import { Player } from '../../../transport/player';
import type { SeamChange } from '../../../transport/seam';
import { PracticeRun } from './practice-run';

/** A player whose seams the test makes: what waits for one is taken then. */
class FakePlayer {
  readonly playing = signal(true);
  readonly seams = signal(0);
  readonly speed = signal(1);
  readonly loop = signal<Loop | null>(null);
  readonly nowS = signal(0);
  waiting: SeamChange | null = null;

  setSpeed(speed: number): void {
    this.speed.set(speed);
  }
  setLoop(loop: Loop | null): void {
    this.loop.set(loop);
  }
  seek(timeS: number): void {
    this.nowS.set(timeS);
  }
  changeAtSeam(change: SeamChange | null): void {
    this.waiting = change;
  }
  /** So far into the round. */
  goTo(share: number): void {
    const { startS, endS } = this.loop()!;
    this.nowS.set(startS + share * (endS - startS));
  }
  /** The round is over. */
  seam(): void {
    if (this.waiting) {
      this.speed.set(this.waiting.speed);
      this.loop.set(this.waiting.loop);
      this.waiting = null;
    }
    this.seams.update((n) => n + 1);
    TestBed.tick();
    this.goTo(0.1);
  }
}

describe('rounds of practising', () => {
  const player = new FakePlayer();
  let run: PracticeRun;
  const rounds = () => TestBed.inject(Store).selectSignal(practiceFeature.selectUnsent)();
  const [item] = practiceItems(SONG);

  beforeEach(() => {
    localStorage.clear();
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        provideStore(),
        provideState(settingsFeature),
        provideState(practiceFeature),
        PracticeRun,
        { provide: Player, useValue: player },
        { provide: OpenSongStore, useValue: { songId: signal('song'), document: signal(SONG) } },
      ],
    });
    Object.assign(player, { waiting: null });
    run = TestBed.inject(PracticeRun);
    run.choose(item, 60);
    TestBed.tick();
  });

  it('loop the part at its step, and climb on the seam after the third clean one', () => {
    expect([player.speed(), player.loop()?.startS]).toEqual([0.6, item.startS]);
    for (const clean of [1, 2]) {
      player.goTo(0.8);
      run.answer('clean');
      expect([run.stair().clean, player.waiting]).toEqual([clean, null]);
      player.seam();
    }
    player.goTo(0.8);
    run.answer('clean');
    expect(run.stair()).toEqual({ percent: 65, clean: 0, slips: 0 });
    expect([player.speed(), player.waiting?.speed]).toEqual([0.6, 0.65]);
    player.seam();
    expect([player.speed(), run.plan()?.percent, run.number()]).toEqual([0.65, 65, 4]);
    expect(rounds().map((r) => [r.percent, r.answer, r.isWhole])).toEqual(
      Array.from({ length: 3 }, () => [60, 'clean', true]),
    );
  });

  it('early in a round the answer is for the one before, and is given once', () => {
    player.seam();
    run.answer('slip');
    run.answer('clean');
    expect(rounds().map((r) => r.answer)).toEqual(['slip']);
    // The second one was said of the round that plays.
    player.seam();
    expect(rounds().map((r) => r.answer)).toEqual(['slip', 'clean']);
  });

  it('are in the log without an answer too, but the one that was hardly begun is not', () => {
    player.seam();
    player.seam();
    run.choose(practiceItems(SONG)[1] ?? item, 60);
    expect(rounds().map((r) => r.answer)).toEqual([null, null]);
  });

  it('wait for what an input has heard before they are in the log', () => {
    run.isListenedTo.set(true);
    const serial = run.serial();
    player.goTo(0.9);
    run.answer('clean');
    player.seam();
    expect(rounds()).toEqual([]);
    const heard = { written: 4, played: 4, right: 4, meanMs: 3, spreadMs: 2 };
    run.heard(serial, heard);
    expect(rounds().map((r) => r.heard)).toEqual([heard]);
  });

  it('stand on a step that the deck has set', () => {
    player.setSpeed(0.8);
    TestBed.tick();
    expect([run.stair().percent, run.plan()?.percent]).toEqual([80, 80]);
  });

  it('as bursts put a bar at full speed on the seam after two slow rounds, and come back', () => {
    run.setWay('bursts');
    TestBed.tick();
    player.seam();
    expect(player.waiting).toMatchObject({ speed: 1 });
    player.seam();
    expect([player.speed(), run.plan()?.bars, run.stair().percent]).toEqual([1, 1, 60]);
    expect(player.waiting).toMatchObject({ speed: 0.6 });
    player.seam();
    expect([player.speed(), run.plan()?.bars]).toEqual([0.6, item.bars]);
    expect(rounds().map((r) => [r.percent, r.isWhole])).toContainEqual([60, true]);
  });
});
