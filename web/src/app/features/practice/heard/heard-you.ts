/**
 * "Heard you": follows the rounds with an input, or with a player who is not there, and keeps what was heard of the last ones. Provided by the
 * page.
 */
import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { JudgedRound, LiveAnswer, LiveRound } from '@wild-needle/core/live';
import type { RoundAnswer } from '@wild-needle/core/practice';
import { barTimesS, strumsInPasses, type StrumInPass } from '@wild-needle/core/riff';
import { AudioInput, channelOf } from '../../../input/audio-input';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { chordNameOf } from '../../../tab/row-layout';
import { settingsActions } from '../../../state/settings/settings.actions';
import { settingsFeature } from '../../../state/settings/settings.reducer';
import { playClick } from '../../../transport/click';
import { Player } from '../../../transport/player';
import { PracticeRun } from '../run/practice-run';
import { countOf, PracticeView } from '../tab/practice-view';
import { createHearClient, type HearAnswer, type HearClient } from './hear-client';
import { heardRoundOf, proposalOf, slipsOf, type RoundStrum, type Slip } from './heard-words';

/** Clicks to tap along to, and the time between them. */
const TAPS = 8;
const TAP_S = 0.6;
const TAP_LEAD_S = 1.2;
const TAP_LEVEL = 0.5;
/** So often the player who is not there is told the time. */
const TICK_MS = 50;
/** What was due before playing began is not asked for; what was due a moment ago may still be played. */
const JUST_BEGUN_S = 0.15;
/** A jump this little before the end of a round does not cut it off. */
const CUT_OFF_S = 0.05;
/** A tap-along is no round of the plan. */
const TAP_ROUND = -1;

/** A round that was sent to be judged. */
interface SentRound {
  readonly serial: number;
  readonly number: number;
  readonly endS: number;
  readonly strums: readonly RoundStrum[];
}

export interface HeardOfRound {
  readonly number: number;
  readonly judged: JudgedRound;
  readonly slips: readonly Slip[];
  readonly proposal: RoundAnswer | null;
}

@Injectable()
export class HeardYou {
  private readonly player = inject(Player);
  private readonly song = inject(OpenSongStore);
  private readonly run = inject(PracticeRun);
  private readonly view = inject(PracticeView);
  private readonly store = inject(Store);
  readonly input = inject(AudioInput);
  private readonly delayMs = this.store.selectSignal(settingsFeature.selectInputDelayMs);
  private client: HearClient | null = null;
  private sent: SentRound[] = [];
  private jumps = 0;
  private ticking: ReturnType<typeof setInterval> | undefined;

  private readonly modeSignal = signal<'off' | 'input' | 'simulated'>('off');
  private readonly lastSignal = signal<HeardOfRound | null>(null);
  private readonly soFarSignal = signal<readonly LiveAnswer[]>([]);
  private readonly measuringSignal = signal(false);
  private readonly problemSignal = signal('');
  readonly mode = this.modeSignal.asReadonly();
  /** The last round that was judged as a whole. */
  readonly last = this.lastSignal.asReadonly();
  /** Of the round that plays. */
  readonly soFar = this.soFarSignal.asReadonly();
  readonly isMeasuring = this.measuringSignal.asReadonly();
  readonly problem = this.problemSignal.asReadonly();
  /** What was heard answers, not the player. */
  readonly answersItself = signal(false);
  readonly isDelayKnown = computed(() => this.mode() === 'simulated' || this.delayMs() !== null);

  private readonly places = computed((): readonly StrumInPass[] => {
    const document = this.view.document();
    return document ? strumsInPasses(document) : [];
  });
  private readonly barsS = computed(() => {
    const grid = this.song.document()?.grid;
    return grid ? barTimesS(grid) : [];
  });

  constructor() {
    effect(() => {
      const [isPlaying, mode] = [this.player.playing(), this.mode()];
      const [serial, jumps] = [this.run.serial(), this.player.jumps()];
      untracked(() => {
        if (mode === 'off' || serial === 0) return;
        if (isPlaying) this.sendRound(jumps);
        else this.stopRounds();
      });
    });
    effect(() => {
      const status = this.input.status();
      if (status === 'lost' && untracked(this.mode) === 'input') untracked(() => this.switchOff());
    });
    inject(DestroyRef).onDestroy(() => this.switchOff());
  }

  toggle(): void {
    if (this.mode() === 'off') void this.switchOn();
    else this.switchOff();
  }

  async switchOn(): Promise<void> {
    const context = this.player.device();
    if (!context) return;
    await context.resume();
    const isThere = await this.input.start(context, (piece) => {
      const samples = channelOf(piece, this.input.channel());
      this.client?.send({ kind: 'hear', startS: piece.startS, samples }, [samples.buffer]);
    });
    if (isThere) this.open('input', context);
  }

  simulate(): void {
    const context = this.player.device();
    if (!context) return;
    this.input.stop();
    this.open('simulated', context);
    this.ticking = setInterval(() => this.client?.send({ kind: 'tick', nowS: context.currentTime }), TICK_MS);
  }

  switchOff(): void {
    clearInterval(this.ticking);
    this.client?.end();
    this.client = null;
    this.sent = [];
    if (this.input.status() !== 'lost') this.input.stop();
    this.modeSignal.set('off');
    this.run.isListenedTo.set(false);
    this.soFarSignal.set([]);
    this.measuringSignal.set(false);
  }

  /** Eight clicks to tap along to: how late they come back is the delay of the device and the hand. */
  measureDelay(): void {
    const context = this.player.device();
    if (!context || !this.client || this.mode() !== 'input') return;
    this.player.stop();
    this.openWorker(context, null);
    this.measuringSignal.set(true);
    const out = new GainNode(context, { gain: TAP_LEVEL });
    out.connect(context.destination);
    const startS = context.currentTime + TAP_LEAD_S;
    const clicks = Array.from({ length: TAPS }, (_, i) => startS + i * TAP_S);
    clicks.forEach((atS, i) => playClick(context, out, atS, i % 4 === 0));
    this.client.send({
      kind: 'round',
      round: {
        ...{ number: TAP_ROUND, startS, endS: startS + TAPS * TAP_S, beatS: TAP_S },
        strums: clicks.map((timeS) => ({
          ...{ timeS, endS: timeS + TAP_S, midi: [], palmMuted: false, dead: true },
        })),
      },
    });
  }

  private open(mode: 'input' | 'simulated', context: AudioContext): void {
    clearInterval(this.ticking);
    this.client?.end();
    this.client = createHearClient((answer) => this.take(answer));
    const delayMs = this.delayMs();
    this.openWorker(context, delayMs === null ? null : delayMs / 1000, mode === 'simulated');
    this.problemSignal.set('');
    this.lastSignal.set(null);
    this.modeSignal.set(mode);
    this.run.isListenedTo.set(true);
  }

  private openWorker(context: AudioContext, delayS: number | null, isSimulated = false): void {
    const document = this.song.document();
    const isCorrected = document?.tuneTo === 'concert';
    this.sent = [];
    this.client?.send({
      kind: 'open',
      ...{ sampleRate: context.sampleRate, delayS, isSimulated },
      // The guitar is tuned to what sounds: to the recording, or to 440 Hz where that is corrected.
      referenceCents: isCorrected ? 0 : (document?.referenceOffsetCents ?? 0),
    });
  }

  /** The round that plays, from now on where it has begun. */
  private sendRound(jumps: number): void {
    const [round, item] = [this.player.round(), this.run.item()];
    const nowS = this.player.device()?.currentTime ?? 0;
    if (!round || !item || this.measuringSignal()) return;
    const [number, serial, last] = [this.run.number(), this.run.serial(), this.sent.at(-1)];
    if (last?.serial === serial && jumps === this.jumps) return;
    // What was cut off by a hand is no round.
    if (last && jumps !== this.jumps && nowS < last.endS - CUT_OFF_S) this.stopRounds();
    this.jumps = jumps;
    const { loop, deviceS: at } = round;
    const beats = ((loop.endS - loop.startS) * item.bpm) / 60;
    const own = this.places().filter(
      ({ timeS }) =>
        timeS >= loop.startS - 1e-3 && timeS < loop.endS - 1e-3 && at(timeS) >= nowS - JUST_BEGUN_S,
    );
    const strums = own.map((place) => this.roundStrum(place));
    this.sent = [...this.sent.slice(-1), { serial, number, strums, endS: at(loop.endS) }];
    this.soFarSignal.set([]);
    const live: LiveRound = {
      ...{ startS: at(loop.startS), endS: at(loop.endS) },
      beatS: (at(loop.endS) - at(loop.startS)) / beats,
      strums: own.map(({ timeS, endS, midi, strum }) => ({
        ...{ timeS: at(timeS), endS: at(endS), midi },
        ...{ palmMuted: strum.palmMute, dead: strum.dead },
      })),
    };
    this.client?.send({ kind: 'round', round: { ...live, number: serial } });
  }

  private stopRounds(): void {
    if (this.measuringSignal()) return;
    this.sent = [];
    this.client?.send({ kind: 'stop' });
    this.soFarSignal.set([]);
  }

  private roundStrum({ strum, timeS, riff, ticks }: StrumInPass): RoundStrum {
    const document = this.view.document()!;
    const first = this.run.item()?.startBar ?? 0;
    const bar = this.barsS().findLastIndex((t) => t <= timeS + 1e-3);
    return {
      place: `Bar ${bar - first + 1}, ${countOf(riff, ticks)}`,
      name: chordNameOf(strum, document.tuning, this.view.key()),
      palmMuted: strum.palmMute,
      dead: strum.dead,
    };
  }

  private take(answer: HearAnswer): void {
    if (answer.kind === 'failed') {
      this.problemSignal.set('What the input hears can’t be judged any more. Switch it off and on.');
      return;
    }
    if (answer.number === TAP_ROUND) {
      if (answer.kind === 'round') this.delayMeasured(answer.delayS);
      return;
    }
    const sent = this.sent.find((s) => s.serial === answer.number);
    if (!sent) return;
    if (answer.kind === 'strums') {
      if (sent.serial === this.run.serial()) this.soFarSignal.update((all) => [...all, ...answer.answers]);
      return;
    }
    const { judged } = answer;
    const { serial, number } = sent;
    const slips = slipsOf(sent.strums, judged.strums, this.view.key());
    const proposal = proposalOf(judged, slips);
    this.lastSignal.set({ number, judged, slips, proposal });
    this.run.heard(serial, heardRoundOf(judged));
    if (this.answersItself() && proposal !== null) this.run.answerHeard(serial, proposal);
  }

  private delayMeasured(delayS: number | null): void {
    this.measuringSignal.set(false);
    if (delayS === null) {
      this.problemSignal.set('Hardly a tap was heard: hit the muted strings with every click.');
      return;
    }
    this.problemSignal.set('');
    this.store.dispatch(settingsActions.inputDelayMeasured({ inputDelayMs: Math.round(1000 * delayS) }));
    const context = this.player.device();
    if (context) this.openWorker(context, delayS);
  }
}
