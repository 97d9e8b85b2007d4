/** Practise what is written: slow to fast, round by round, with the tab running. The last step of the work. */
import type { OnDestroy } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DOCUMENT,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatMenuModule } from '@angular/material/menu';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  isDue,
  planOf,
  practisedDays,
  stepsOf,
  WAYS,
  type LoggedRound,
  type PlannedItem,
} from '@wild-needle/core/practice';
import { writeLogCsv } from '@wild-needle/core/practice/log-table';
import type { Layer } from '@wild-needle/core/riff';
import type { PracticeRound } from '@wild-needle/contract';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { runScreenKey, type KeyHandlers } from '../../../shared/key-map';
import { saveFile } from '../../../shared/save-file';
import { ScreenKeys } from '../../../shared/screen-keys';
import { practiceActions } from '../../../state/practice/practice.actions';
import { practiceFeature } from '../../../state/practice/practice.reducer';
import { settingsActions } from '../../../state/settings/settings.actions';
import { settingsFeature } from '../../../state/settings/settings.reducer';
import { DeckControl } from '../../../transport/deck-control';
import { Player } from '../../../transport/player';
import { HeardPanel } from '../heard/heard-panel';
import { HeardYou } from '../heard/heard-you';
import { PracticeLog } from '../log/practice-log';
import { PlanList } from '../plan/plan-list';
import { PRACTICE_KEYS } from '../practice-keys';
import { bpmOf, dayNumber, itemName, WAY_WORDS } from '../practice-words';
import { PracticeRun } from '../run/practice-run';
import { FullScreen } from '../run/full-screen';
import { SpeedStair } from '../stair/speed-stair';
import { StairForm } from '../stair/stair-form';
import { PracticeView, PRACTICE_VERSIONS } from '../tab/practice-view';
import { RunningTab } from '../tab/running-tab';

/** Of the log at a glance. */
const DAYS = 84;
const MINUTES_STEP = 5;
const LEAST_MINUTES = 5;
const MOST_MINUTES = 180;

const LAYER_WORDS: Readonly<Record<Layer, string>> = {
  chords: 'Chords',
  strokes: '+ Strokes',
  all: '+ Mutes (all)',
};
const VERSION_LABELS: Readonly<Record<(typeof PRACTICE_VERSIONS)[number], string>> = {
  'as-written': 'As recorded',
  'two-strings': 'Two strings',
  'one-string': 'One string',
};

function logged(round: PracticeRound): LoggedRound {
  const { item, percent, answer, seconds, isWhole } = round;
  return { day: dayNumber(new Date(round.at)), item, percent, answer, seconds, isWhole };
}

@Component({
  selector: 'wn-practice-page',
  imports: [
    HeardPanel,
    MatButton,
    MatButtonToggleModule,
    MatMenuModule,
    PlanList,
    PracticeLog,
    RouterLink,
    RunningTab,
    SpeedStair,
    StairForm,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  providers: [FullScreen, HeardYou, PracticeRun, PracticeView],
  templateUrl: './practice.page.html',
  styleUrl: './practice.page.scss',
})
export class PracticePage implements OnDestroy {
  protected readonly song = inject(OpenSongStore);
  protected readonly player = inject(Player);
  protected readonly run = inject(PracticeRun);
  protected readonly view = inject(PracticeView);
  protected readonly full = inject(FullScreen);
  protected readonly heard = inject(HeardYou);
  private readonly control = inject(DeckControl);
  private readonly store = inject(Store);
  private readonly page = inject(DOCUMENT);
  protected readonly keys = PRACTICE_KEYS;
  protected readonly WAYS = WAYS;
  protected readonly WAY_WORDS = WAY_WORDS;
  protected readonly layers = Object.entries(LAYER_WORDS) as [Layer, string][];
  protected readonly versions = PRACTICE_VERSIONS.map((id) => ({ id, label: VERSION_LABELS[id] }));
  protected readonly stairShown = signal(false);
  protected readonly planShown = signal(false);

  private readonly rounds = this.store.selectSignal(practiceFeature.selectRounds);
  private readonly status = this.store.selectSignal(practiceFeature.selectStatus);
  protected readonly isWaiting = this.store.selectSignal(practiceFeature.selectIsWaiting);
  protected readonly minutes = this.store.selectSignal(settingsFeature.selectPracticeMinutes);
  /** The day stays the one that the screen was opened on: at midnight nobody loses a list. */
  protected readonly today = dayNumber(new Date());
  private readonly loggedRounds = computed(() => this.rounds().map(logged));

  protected readonly plan = computed((): readonly PlannedItem[] => {
    const document = this.song.written();
    if (!document) return [];
    return planOf(document, {
      today: this.today,
      rounds: this.loggedRounds(),
      minutes: this.minutes(),
      cleanRounds: this.run.settings().cleanRounds,
    });
  });
  protected readonly chosen = computed(() => this.plan().find((i) => i.id === this.run.item()?.id) ?? null);
  protected readonly isNothingDue = computed(() => this.plan().length > 0 && !this.plan().some(isDue));
  protected readonly days = computed(() =>
    practisedDays(
      this.loggedRounds(),
      this.run.item()?.id ?? '',
      this.today,
      DAYS,
      this.run.settings().cleanRounds,
    ),
  );
  /** Why there is nothing to practise; null where there is. */
  protected readonly nothing = computed(() => {
    const document = this.song.written();
    if (!document) return null;
    if (document.riffs.every((r) => r.strums.length === 0))
      return 'Nothing to practise yet: write a riff first';
    if (this.plan().length === 0) return 'No section plays a riff yet: place the riffs on Sections';
    return null;
  });
  protected readonly hint = computed(() =>
    this.rounds().length === 0
      ? `Start at ${this.run.stair().percent} %: play a round, then say Clean or Slip.`
      : 'Warm up slowly; stop when it hurts.',
  );
  protected readonly said = computed(() => {
    const last = this.run.last();
    return last ? `${last.answer === 'clean' ? 'Clean' : 'Slip'}, round ${last.number}` : '';
  });

  constructor() {
    inject(ScreenKeys).show(PRACTICE_KEYS);
    this.control.answering = (answer) => this.run.answer(answer);
    effect(() => {
      const songId = this.song.songId();
      if (songId !== null) untracked(() => this.store.dispatch(practiceActions.opened({ songId })));
    });
    // What is first on the list is taken up as soon as the list is known.
    effect(() => {
      const [first, status] = [this.plan().at(0), this.status()];
      const isReady = this.player.status() === 'ready' && status !== 'empty' && status !== 'loading';
      if (first && isReady && untracked(this.run.item) === null) untracked(() => this.choose(first));
    });
    // The sound of my tab is that of the version on screen.
    effect(() => {
      const document = this.view.document();
      if (document && this.player.status() === 'ready') untracked(() => this.player.setTab(document));
    });
  }

  ngOnDestroy(): void {
    this.control.answering = null;
    this.player.setMuted(false);
    const document = this.song.document();
    if (document && this.view.version() !== 'as-written') this.player.setTab(document);
  }

  protected onKey(event: KeyboardEvent): void {
    runScreenKey(PRACTICE_KEYS, this.handlers, event);
  }

  /** One step above what is reached, or where the stair begins. */
  protected choose(item: PlannedItem): void {
    const settings = this.run.settings();
    const { bestPercent } = item;
    const after = stepsOf(settings).find((step) => bestPercent !== null && step > bestPercent);
    this.run.choose(item, bestPercent === null ? settings.fromPercent : (after ?? settings.toPercent));
  }

  protected changeMinutes(by: number): void {
    const practiceMinutes = Math.min(
      MOST_MINUTES,
      Math.max(LEAST_MINUTES, this.minutes() + by * MINUTES_STEP),
    );
    this.store.dispatch(settingsActions.practiceMinutesChanged({ practiceMinutes }));
  }

  protected readonly takeLogAway = (): void => {
    const items = new Map(this.plan().map((item) => [item.id, item]));
    const rows = this.rounds().map((round) => {
      const item = items.get(round.item);
      return {
        ...{ at: round.at, part: item ? itemName(item) : round.item, way: round.way },
        ...{ percent: round.percent, bpm: item ? bpmOf(item, round.percent) : null },
        ...{ answer: round.answer ?? '', seconds: Math.round(10 * round.seconds) / 10 },
        written: round.heard?.written ?? null,
        played: round.heard?.played ?? null,
        right: round.heard?.right ?? null,
        meanMs: round.heard?.meanMs ?? null,
      };
    });
    const title = this.song.document()?.title ?? 'song';
    saveFile(this.page, `${title} practice`, 'csv', 'text/csv', writeLogCsv(rows));
  };

  private stepPlan(by: number): void {
    const [plan, chosen] = [this.plan(), this.run.item()?.id];
    const at = plan.findIndex((item) => item.id === chosen);
    const next = plan.at(Math.min(plan.length - 1, Math.max(0, at + by)));
    if (next && next.id !== chosen) this.choose(next);
  }

  private readonly handlers: KeyHandlers<typeof PRACTICE_KEYS> = {
    clean: () => this.run.answer('clean'),
    slip: () => this.run.answer('slip'),
    plan: (by) => this.stepPlan(by),
    line: (by) => this.view.turn(by),
    input: () => this.heard.toggle(),
    layer: () => this.view.nextLayer(),
    version: (by) => this.view.stepVersion(by),
    way: () => this.run.nextWay(),
    music: () => this.player.setMuted(!this.player.muted()),
    full: () => this.full.toggle(),
  };
}
