/**
 * Round after round: which part is practised, how fast, what the player says of a round, and what comes on the next seam of the loop. Every
 * round goes into the log. Provided by the page.
 */
import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  answerRound,
  isWhole,
  planRound,
  standOn,
  stepBy,
  WAYS,
  type PracticeItem,
  type RoundAnswer,
  type RoundPlan,
  type StairState,
  type Way,
} from '@wild-needle/core/practice';
import { timeAtBeat } from '@wild-needle/core/riff';
import type { HeardRound } from '@wild-needle/contract';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { practiceActions } from '../../../state/practice/practice.actions';
import { settingsFeature } from '../../../state/settings/settings.reducer';
import { Player } from '../../../transport/player';
import type { Loop } from '../../../transport/play-cursor';

/** Said later than this into a round, it is said of this round; before, of the one that has ended. */
const SAID_OF_THIS = 0.5;

interface Round {
  readonly plan: RoundPlan;
  readonly item: PracticeItem;
  readonly way: Way;
  /** From 1, since the part was taken up. */
  readonly number: number;
  /** Of all rounds of this screen. */
  readonly serial: number;
  readonly answer: RoundAnswer | null;
  readonly heard: HeardRound | null;
}

@Injectable()
export class PracticeRun {
  private readonly player = inject(Player);
  private readonly song = inject(OpenSongStore);
  private readonly store = inject(Store);
  readonly settings = this.store.selectSignal(settingsFeature.selectStair);
  private readonly countsIn = this.store.selectSignal(settingsFeature.selectCountIn);

  private readonly itemSignal = signal<PracticeItem | null>(null);
  private readonly stairSignal = signal<StairState>(standOn(this.settings().fromPercent));
  private readonly waySignal = signal<Way>('whole');
  private readonly planSignal = signal<RoundPlan | null>(null);
  /** The round that plays, and the one before it until it is in the log: something may still be said of it, or heard. */
  private current: Round | null = null;
  private before: Round | null = null;
  private serials = 0;
  private rounds = 0;
  private clean = 0;
  private readonly lastSignal = signal<{ readonly number: number; readonly answer: RoundAnswer } | null>(
    null,
  );
  private readonly numberSignal = signal(0);
  private readonly serialSignal = signal(0);
  /** An input listens: rounds wait for what it has heard before they go into the log. */
  readonly isListenedTo = signal(false);

  readonly item = this.itemSignal.asReadonly();
  readonly stair = this.stairSignal.asReadonly();
  readonly way = this.waySignal.asReadonly();
  /** Of the round that plays. */
  readonly plan = this.planSignal.asReadonly();
  /** What was said last, for the screen reader. */
  readonly last = this.lastSignal.asReadonly();
  /** Of the round that plays, from 1; 0 before the first. */
  readonly number = this.numberSignal.asReadonly();
  /** Bars of the grid that are played now. */
  readonly span = computed(() => {
    const [item, plan] = [this.item(), this.plan()];
    return item && plan ? { startBar: item.startBar + plan.fromBar, bars: plan.bars } : null;
  });
  /** Of the round that plays, among all rounds of this screen. */
  readonly serial = this.serialSignal.asReadonly();
  readonly beatsPerMinute = computed(() => {
    const [item, { percent }] = [this.item(), this.stair()];
    return item ? Math.round((item.bpm * percent) / 100) : null;
  });

  constructor() {
    let seams = this.player.seams();
    effect(() => {
      const [now, percent] = [this.player.seams(), Math.round(100 * this.player.speed())];
      untracked(() => {
        if (now !== seams) this.roundEnded();
        seams = now;
        // A speed that the deck has set is the step that is stood on.
        const planned = this.planSignal()?.percent;
        if (this.item() && planned !== undefined && percent !== planned && percent !== this.stair().percent) {
          this.stand(percent);
        }
      });
    });
    // What changes while a round plays comes when it ends.
    effect(() => {
      this.settings();
      this.countsIn();
      this.player.playing();
      untracked(() => this.prepareNext());
    });
    inject(DestroyRef).onDestroy(() => this.endItem());
  }

  /** Takes a part up, at a step of the stair. */
  choose(item: PracticeItem, percent: number): void {
    this.endItem();
    this.itemSignal.set(item);
    this.stairSignal.set(standOn(percent));
    this.begin();
  }

  setWay(way: Way): void {
    if (way === this.way()) return;
    this.endItem();
    this.waySignal.set(way);
    this.begin();
  }

  nextWay(): void {
    this.setWay(WAYS[(WAYS.indexOf(this.way()) + 1) % WAYS.length]);
  }

  /** Stands on another step, at once. */
  stand(percent: number): void {
    this.stairSignal.set(standOn(percent));
    this.player.setSpeed(percent / 100);
    this.planSignal.update((plan) => plan && { ...plan, percent });
    if (this.current) this.current = { ...this.current, plan: { ...this.current.plan, percent } };
    this.prepareNext();
  }

  step(by: 1 | -1): void {
    this.stand(stepBy(this.stair(), this.settings(), by).percent);
  }

  /** What the player says of the round that plays, or of the one that has just ended. */
  answer(answer: RoundAnswer): void {
    const isOfThis = this.before?.answer !== null || this.share() > SAID_OF_THIS;
    if (isOfThis && this.rounds === 0 && !this.player.playing()) return;
    this.answerOne(isOfThis ? this.current : this.before, answer);
  }

  /** What was heard says it of a round. */
  answerHeard(serial: number, answer: RoundAnswer): void {
    this.answerOne([this.before, this.current].find((round) => round?.serial === serial) ?? null, answer);
  }

  private answerOne(round: Round | null, answer: RoundAnswer): void {
    if (round?.answer !== null) return;
    const answered = { ...round, answer };
    if (round === this.current) this.current = answered;
    else this.before = answered;
    this.settle();
    this.lastSignal.set({ number: round.number, answer });
    if (isWhole(round.plan, round.item.bars)) {
      this.stairSignal.update((stair) => answerRound(stair, this.settings(), answer));
    }
    if (answer === 'clean') this.clean++;
    this.prepareNext();
  }

  /** What the input has heard of a round. */
  heard(serial: number, heard: HeardRound): void {
    if (this.current?.serial === serial) this.current = { ...this.current, heard };
    else if (this.before?.serial === serial) this.before = { ...this.before, heard };
    this.settle();
  }

  /** A round of which everything is known goes into the log. */
  private settle(): void {
    const { before } = this;
    if (before?.answer == null || (this.isListenedTo() && before.heard === null)) return;
    this.before = null;
    this.log(before);
  }

  /** How much of the round has played. */
  private share(): number {
    const loop = this.player.loop();
    return loop ? (this.player.nowS() - loop.startS) / (loop.endS - loop.startS) : 0;
  }

  private begin(): void {
    const item = this.item();
    if (!item) return;
    [this.rounds, this.clean, this.current, this.before] = [0, 0, null, null];
    const plan = this.planNow(item);
    this.startRound(item, plan);
    const loop = this.loopOf(item, plan);
    if (loop) {
      this.player.setSpeed(plan.percent / 100);
      this.player.setLoop(loop);
      this.player.seek(loop.startS);
    }
    this.prepareNext();
  }

  private startRound(item: PracticeItem, plan: RoundPlan): void {
    const [number, serial] = [this.rounds + 1, ++this.serials];
    this.current = { ...{ plan, item, way: this.way(), number, serial, answer: null, heard: null } };
    this.numberSignal.set(number);
    this.serialSignal.set(serial);
    this.planSignal.set(plan);
  }

  private roundEnded(): void {
    const [item, current] = [this.item(), this.current];
    if (!item || !current) return;
    // Another loop was set by hand: that is no round of the plan.
    const loop = this.player.loop();
    if (this.before) this.log(this.before);
    this.before = current;
    this.settle();
    this.rounds++;
    const plan = this.next ?? this.planNow(item);
    this.next = null;
    this.startRound(item, plan);
    const wanted = this.loopOf(item, plan);
    const isThere = loop && wanted && Math.abs(loop.startS - wanted.startS) < 1e-6;
    // The page was asleep, or the seam came too soon to be prepared.
    if (wanted && loop && (!isThere || Math.round(100 * this.player.speed()) !== plan.percent)) {
      this.player.setSpeed(plan.percent / 100);
      this.player.setLoop(wanted);
    }
    this.prepareNext();
  }

  private next: RoundPlan | null = null;

  private planNow(item: PracticeItem, rounds = this.rounds): RoundPlan {
    return planRound(this.way(), {
      ...{ bars: item.bars, percent: this.stair().percent, rounds, clean: this.clean },
      chance: Math.random(),
    });
  }

  /** Tells the player what comes on the seam, where that is something else. */
  private prepareNext(): void {
    const [item, current] = [this.item(), this.plan()];
    if (!item || !current || !this.player.playing()) return;
    const next = this.planNow(item, this.rounds + 1);
    this.next = next;
    const loop = this.loopOf(item, next);
    const isSame =
      next.fromBar === current.fromBar &&
      next.bars === current.bars &&
      next.percent === current.percent &&
      next.restBars === 0;
    if (!loop || isSame) {
      this.player.changeAtSeam(null);
      return;
    }
    const speed = next.percent / 100;
    const barS = (loop.endS - loop.startS) / next.bars / speed;
    const beats = Math.max(1, Math.round(((barS * speed) / 60) * item.bpm));
    const countIn = this.countsIn() ? { beats, periodS: (barS * speed) / beats } : null;
    this.player.changeAtSeam({ loop, speed, restS: next.restBars * barS }, countIn);
  }

  private loopOf(item: PracticeItem, { fromBar, bars }: RoundPlan): Loop | null {
    const grid = this.song.document()?.grid;
    const first = grid?.bars[item.startBar + fromBar];
    const last = grid?.bars[item.startBar + fromBar + bars - 1];
    return grid && first && last
      ? { startS: timeAtBeat(grid, first.beat), endS: timeAtBeat(grid, last.beat + last.beats) }
      : null;
  }

  /** What was played of the part that is left goes into the log. */
  private endItem(): void {
    if (this.before) this.log(this.before);
    if (this.current && (this.current.answer !== null || this.rounds > 0) && this.share() > SAID_OF_THIS) {
      this.log(this.current);
    }
    [this.before, this.current] = [null, null];
  }

  private log({ plan, item, way, answer, heard }: Round): void {
    const songId = this.song.songId();
    const loop = this.loopOf(item, plan);
    if (songId === null || !loop) return;
    this.store.dispatch(
      practiceActions.roundPlayed({
        round: {
          id: crypto.randomUUID(),
          at: new Date().toISOString(),
          songId,
          item: item.id,
          way,
          isWhole: isWhole(plan, item.bars),
          percent: plan.percent,
          answer,
          seconds: (loop.endS - loop.startS) / (plan.percent / 100),
          heard,
        },
      }),
    );
  }
}
