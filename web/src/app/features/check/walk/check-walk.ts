/**
 * The walk over what is to be settled: the list, the question that is looked at, and the bar that is looped around it. Provided by the
 * page.
 */
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { STANDARD_TUNING } from '@wild-needle/core/guitar';
import { barTimesS } from '@wild-needle/core/riff';
import { spellingKey } from '@wild-needle/core/theory';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { behindPaint } from '../../../shared/behind-paint';
import { settingsFeature } from '../../../state/settings/settings.reducer';
import { Player } from '../../../transport/player';
import { Judging } from '../judging/judging';
import { isOpen, judgedPlaces, questionsOf, type JudgedPlaces, type Question } from './questions';

export type Order = 'doubt' | 'place';

/** A strum this little before a bar line belongs to the bar that it stands in. */
const ON_LINE_S = 1e-3;

/** More of the strums than this are doubted: something is wrong with all of them. */
const HARDLY_HEARD = 0.6;

@Injectable()
export class CheckWalk {
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly judging = inject(Judging);
  private readonly spelling = inject(Store).selectSignal(settingsFeature.selectSpelling);
  private readonly chosenId = signal<string | null>(null);
  /** Where in the list what is looked at stood; null for what was not chosen from it. */
  private listedAt: number | null = null;
  readonly order = signal<Order>('doubt');

  constructor() {
    // What was chosen by a hand is looped; what comes by itself leaves the loop as it is.
    let looped: string | null = null;
    effect(() => {
      const [question, id] = [this.studied(), this.chosenId()];
      if (question?.id !== id || id === looped) return;
      looped = id;
      untracked(() => this.loopAround(question));
    });
    // What answers itself, since another answer has changed what is written or believed, gives way to what comes next.
    effect(() => {
      const [listed, id] = [this.listed(), this.chosenId()];
      if (this.listedAt === null || this.open().length === 0 || listed.some((q) => q.id === id)) return;
      const next = listed[Math.min(this.listedAt, listed.length - 1)];
      untracked(() => this.choose(next));
    });
  }

  readonly tuning = computed(() => this.song.written()?.tuning ?? STANDARD_TUNING);
  readonly key = computed(() => spellingKey(this.song.document()?.key ?? null, this.spelling()));

  private readonly judgedPlaces = computed((): JudgedPlaces => {
    const judged = this.judging.judged();
    return judged ? judgedPlaces(judged.judgement, judged.document) : new Map();
  });

  /** Everything that can be asked, in order of time. */
  readonly all = computed((): readonly Question[] => {
    const document = this.song.written();
    return document
      ? questionsOf(document, this.judgedPlaces(), this.judging.judged()?.judgement ?? null)
      : [];
  });

  /** Beats or tuning are wrong, it is another recording, or a silent one: then single strums are not what to settle. */
  readonly isUnheard = computed(() => {
    const compared = this.all().filter((q) => q.strum !== null && q.verdict !== 'unchecked');
    return compared.length > 0 && compared.filter(isOpen).length > HARDLY_HEARD * compared.length;
  });

  /** What is to be settled, the most doubtful first or in order of time. */
  readonly open = computed((): readonly Question[] => {
    const open = this.all().filter(isOpen);
    return this.order() === 'doubt' ? open.sort((a, b) => b.doubt - a.doubt) : open;
  });
  /** What was left for later. */
  readonly later = computed(() => this.all().filter((q) => q.settled === 'doubtful'));
  /** What the arrows walk over: with nothing left to settle, everything. */
  readonly listed = computed((): readonly Question[] => {
    const listed = [...this.open(), ...this.later()];
    return listed.length > 0 ? listed : this.all();
  });
  readonly chosen = computed((): Question | null => {
    const id = this.chosenId();
    return this.all().find((q) => q.id === id) ?? this.listed().at(0) ?? null;
  });

  /** What is drawn of it in detail, a frame behind the row and the names that a key has brought. */
  readonly studied = behindPaint(this.chosen);

  /** Start and end of the bar that a question is in, and the bar's index. */
  barOf({ timeS }: Pick<Question, 'timeS'>): {
    readonly bar: number;
    readonly startS: number;
    readonly endS: number;
  } | null {
    const grid = this.song.document()?.grid;
    const times = grid ? barTimesS(grid) : [];
    const bar = times.findLastIndex((t) => t <= timeS + ON_LINE_S);
    return bar < 0 || bar + 1 >= times.length ? null : { bar, startS: times[bar], endS: times[bar + 1] };
  }

  /** Looks at a question, and loops its bar: what sounds goes on there, and never louder. */
  choose(question: Question | null | undefined): void {
    if (!question) return;
    this.chosenId.set(question.id);
    const at = this.listed().findIndex((q) => q.id === question.id);
    this.listedAt = at < 0 || this.open().length === 0 ? null : at;
  }

  /** Behind the frame that shows it: of many keys in a row, the last. */
  private loopAround({ section, strum, timeS }: Question): void {
    this.song.selectRiff(section.riffId, section.id);
    if (strum) this.song.selectStrum(strum.id);
    const bar = this.barOf({ timeS });
    if (!bar) return;
    this.player.setLoop({ startS: bar.startS, endS: bar.endS });
    this.player.seek(bar.startS);
  }

  /** Along the list. */
  step(by: number): void {
    const [listed, chosen] = [this.listed(), this.chosen()];
    const at = listed.findIndex((q) => q.id === chosen?.id);
    this.choose(listed.at(at < 0 ? 0 : Math.min(listed.length - 1, Math.max(0, at + by))));
  }

  /** What comes after a question that is answered: the next of the list as it was before. */
  nextAfter(id: string, before: readonly Question[]): void {
    const at = before.findIndex((q) => q.id === id);
    const rest = [...before.slice(at + 1), ...before.slice(0, Math.max(0, at))];
    const open = new Set(this.open().map((q) => q.id));
    const next = rest.find((q) => open.has(q.id)) ?? this.open().at(0) ?? this.later().at(0);
    if (next) this.choose(next);
    else {
      this.chosenId.set(id);
      this.listedAt = null;
    }
  }

  /** Where an undo brought something back. */
  show(id: string): void {
    this.choose(this.all().find((q) => q.id === id));
  }
}
