/**
 * Check what is written: the places where tab and recording may disagree, most doubtful first, each with what is written, what is heard
 * and one key for each answer.
 */
import type { ElementRef, OnDestroy } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { listInWords } from '@wild-needle/core/units';
import { TEXT_LIMITS, type GuitarNumber } from '@wild-needle/core/riff';
import { HeardIn } from '../../../open-song/heard-in';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { GuitarSwitch } from '../../../shared/guitar-switch';
import { historyHandlers } from '../../../shared/history-keys';
import { runScreenKey, type KeyHandlers } from '../../../shared/key-map';
import { Say } from '../../../shared/say';
import { ScreenKeys } from '../../../shared/screen-keys';
import { counted } from '../../../shared/words';
import { guessesActions } from '../../../state/guesses/guesses.actions';
import { Player } from '../../../transport/player';
import { CHECK_KEYS } from '../check-keys';
import { EarFirst } from '../ear/ear-first';
import { EarSleeve } from '../ear/ear-sleeve';
import { EarTally } from '../ear/ear-tally';
import { GuessPad } from '../ear/guess-pad';
import { Judging } from '../judging/judging';
import { CompareLanes } from '../lanes/compare-lanes';
import { DoubtList } from '../list/doubt-list';
import { ProgressTicks } from '../list/progress-ticks';
import { OtherPasses } from '../strum/other-passes';
import { PitchNeck } from '../strum/pitch-neck';
import { StrumCompare } from '../strum/strum-compare';
import { TimingLine } from '../strum/timing-line';
import { AnswerBar } from '../walk/answer-bar';
import { CheckAnswers, type AnswerKind } from '../walk/check-answers';
import { CheckWalk } from '../walk/check-walk';
import { countWords, passWordsOf } from '../walk/question-words';
import { isOpen } from '../walk/questions';

/** "Again": slow enough to hear the strings apart. */
const AGAIN_SPEED = 0.5;

@Component({
  selector: 'wn-check-page',
  imports: [
    AnswerBar,
    CompareLanes,
    DoubtList,
    EarSleeve,
    EarTally,
    GuessPad,
    GuitarSwitch,
    MatButton,
    MatButtonToggleModule,
    OtherPasses,
    PitchNeck,
    ProgressTicks,
    RouterLink,
    StrumCompare,
    TimingLine,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  providers: [CheckAnswers, CheckWalk, EarFirst],
  templateUrl: './check.page.html',
  styleUrl: './check.page.scss',
})
export class CheckPage implements OnDestroy {
  protected readonly song = inject(OpenSongStore);
  private readonly heardIn = inject(HeardIn);
  private readonly player = inject(Player);
  protected readonly walk = inject(CheckWalk);
  protected readonly answers = inject(CheckAnswers);
  protected readonly ear = inject(EarFirst);
  protected readonly judging = inject(Judging);
  private readonly said = inject(Say);
  private readonly store = inject(Store);
  protected readonly keys = CHECK_KEYS;
  protected readonly NOTE_LIMIT = TEXT_LIMITS.note;
  private readonly noteField = viewChild<ElementRef<HTMLInputElement>>('note');
  /** The note of the strum is being written. */
  protected readonly isNoting = signal(false);
  protected readonly listShown = signal(false);

  protected readonly title = computed(() => {
    const question = this.walk.chosen();
    return question ? `${passWordsOf(question)}, ${countWords(question)}` : '';
  });
  protected readonly counts = computed(() => {
    const all = this.walk.all();
    const open = all.filter(isOpen).length + this.walk.later().length;
    return { checked: all.length - open, all: all.length };
  });
  protected readonly heardFrets = computed(() => {
    const question = this.walk.chosen();
    if (!question || question.verdict === 'unchecked') return [];
    if (question.verdict === 'agrees') return question.strum?.dead ? [] : (question.strum?.frets ?? []);
    return this.answers.fretsHeard(question);
  });
  /** Of the whole song, while it is compared: 'Comparing, 40 of 172'. */
  protected readonly comparing = computed(() => {
    const progress = this.judging.progress();
    if (progress.kind !== 'comparing') return null;
    const all = this.walk.all().length;
    return `Comparing, ${Math.round(progress.share * all)} of ${all}`;
  });
  /** Why there is nothing to walk through; null where there is. */
  protected readonly nothing = computed(() => {
    const document = this.song.written();
    if (!document) return null;
    if (this.song.recording() === null)
      return 'This song has no recording: there is nothing to check it against';
    if (document.riffs.every((r) => r.strums.length === 0)) return 'Nothing to check yet: write a riff first';
    if (document.grid.bars.length === 0) return 'This song has no bars: tap the beats on Sections first';
    if (this.walk.all().length === 0) return 'No section plays a riff yet: place the riffs on Sections';
    return null;
  });
  /** What is missing is not on Sections. */
  protected readonly isAboutRiffs = computed(() => /riff first|no recording/.test(this.nothing() ?? ''));
  /** Letters of the riffs that no section plays; '' for none. */
  protected readonly unplayed = computed(() => {
    const { riffs = [], sections = [] } = this.song.document() ?? {};
    const played = new Set(sections.map((s) => s.riffId));
    const letters = riffs.filter((r) => r.strums.length > 0 && !played.has(r.id)).map((r) => r.letter);
    return letters.length === 0 ? '' : listInWords(letters);
  });
  protected readonly alsoWords = computed(() => {
    const also = this.answers.also();
    if (!also) return '';
    const own = also.given.section.id;
    const here = also.questions.filter((q) => q.section.id === own).map((q) => q.pass.index + 1);
    const elsewhere = also.questions.filter((q) => q.section.id !== own).map((q) => passWordsOf(q));
    const words = [
      ...(here.length > 0 ? [`${here.length === 1 ? 'pass' : 'passes'} ${listInWords(here)}`] : []),
      ...(elsewhere.length > 2
        ? [counted(elsewhere.length, 'other pass').replace('passs', 'passes')]
        : elsewhere),
    ];
    return `Also in ${listInWords(words)}?`;
  });

  constructor() {
    inject(ScreenKeys).show(CHECK_KEYS);
    // The song, its guitar and its recording may come after the screen.
    effect(() => {
      const isThere = this.song.written() !== null && this.heardIn.recording() !== null;
      this.song.guitar();
      if (isThere) untracked(() => void this.judging.open());
    });
    effect(() => {
      if (this.ear.isOn()) untracked(() => this.store.dispatch(guessesActions.earFirstOpened()));
    });
    // The first doubt is looked at as soon as it is known; what is playing is not torn away.
    let lookedAt: GuitarNumber | null = null;
    effect(() => {
      const guitar = this.song.guitar();
      const question = this.walk.chosen();
      const isJudged = this.judging.judged() !== null && this.judging.progress().kind !== 'comparing';
      if (!question || lookedAt === guitar || !isJudged || this.player.status() !== 'ready') return;
      lookedAt = guitar;
      untracked(() => {
        if (!this.player.playing()) this.walk.choose(question);
      });
    });
  }

  ngOnDestroy(): void {
    this.said.silence();
  }

  protected onKey(event: KeyboardEvent): void {
    runScreenKey(CHECK_KEYS, this.handlers, event);
  }

  protected give(answer: AnswerKind | 'again'): void {
    if (answer === 'again') this.again();
    else if (this.ear.isCovered() && answer !== 'doubtful')
      this.said.say('Say what you hear first, or press S to open it');
    else {
      this.answers.give(answer);
      if (answer === 'doubtful') this.said.say('Left for later; F2 on it writes a note');
    }
  }

  /** The bar once more from its start, at half speed. */
  private again(): void {
    const question = this.walk.chosen();
    const bar = question && this.walk.barOf(question);
    if (!bar) return;
    this.player.setLoop({ startS: bar.startS, endS: bar.endS });
    this.player.setSpeed(AGAIN_SPEED);
    this.player.seek(bar.startS);
    if (!this.player.playing()) void this.player.play();
  }

  protected note(): void {
    const strum = this.walk.chosen()?.strum;
    if (!strum) {
      this.said.say('Nothing is written here that a note could stand on');
      return;
    }
    this.isNoting.set(true);
    setTimeout(() => this.noteField()?.nativeElement.focus());
  }

  protected endNote(text: string | null): void {
    if (text !== null) this.answers.note(text);
    this.isNoting.set(false);
  }

  protected now(): Date {
    return new Date();
  }

  protected listenAnew(): void {
    void this.judging.open(true);
  }

  private readonly handlers: KeyHandlers<typeof CHECK_KEYS> = {
    step: (by) => this.walk.step(by),
    main: () => (this.ear.isCovered() ? this.ear.guess(new Date()) : this.give(this.answers.main())),
    keep: () => this.give('keep'),
    riff: () => this.give('riff'),
    pass: () => this.give('pass'),
    again: () => this.again(),
    doubtful: () => this.give('doubtful'),
    note: () => this.note(),
    also: () => this.answers.giveAlso(),
    order: () => this.walk.order.update((order) => (order === 'doubt' ? 'place' : 'doubt')),
    listen: () => this.listenAnew(),
    earFirst: () => this.ear.switch(),
    kind: (index) => {
      if (this.ear.isCovered()) this.ear.setKind(index);
    },
    fret: (by) => {
      if (this.ear.isCovered()) this.ear.move(by, 0);
    },
    string: (by) => {
      if (this.ear.isCovered()) this.ear.move(0, by);
    },
    uncover: () => this.ear.uncover(),
    ...historyHandlers({ undo: () => this.answers.undo(), redo: () => this.song.redo() }),
  };
}
